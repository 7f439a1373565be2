/** The two encodings that the core needs; both exist in browsers, workers and Node. */
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean; ignoreBOM?: boolean });
  decode(input: Uint8Array): string;
}
declare class TextEncoder {
  encode(input: string): Uint8Array<ArrayBuffer>;
}
/** Taking addresses apart (the URL standard); it exists in browsers, workers and Node. */
declare class URL {
  static canParse(text: string): boolean;
  constructor(text: string);
  readonly href: string;
  readonly origin: string;
  readonly pathname: string;
  readonly searchParams: Iterable<[name: string, value: string]>;
}
