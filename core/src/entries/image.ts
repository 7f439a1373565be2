import type { Content, EntryImage } from './entry';
import { ENTRY_LIMITS } from './limits';

const IMAGE_NAME = /^[0-9a-f]{32}$/;

/** Whether a value is the name of a stored image. */
export function isImageName(value: unknown): value is string {
  return typeof value === 'string' && IMAGE_NAME.test(value);
}

/** Whether a value is the description of a stored image, with a name and a size that one can have. */
export function isImage(value: unknown): value is EntryImage {
  if (typeof value !== 'object' || value === null) return false;
  const { name, alt, width, height, ...rest } = value as Record<string, unknown>;
  return (
    isImageName(name) &&
    typeof alt === 'string' &&
    alt.length <= ENTRY_LIMITS.altLetters &&
    isSide(width) &&
    isSide(height) &&
    Object.keys(rest).length === 0
  );
}

function isSide(value: unknown): boolean {
  return Number.isInteger(value) && (value as number) >= 1 && (value as number) <= ENTRY_LIMITS.imageSide;
}

/** An entry as far as its images are concerned. */
export interface WithImages extends Pick<Content, 'image'> {
  readonly overrides: readonly { readonly content: Pick<Content, 'image'> }[];
}

/** Returns the names of the images of an entry and of its dates. */
export function imageNamesOf({ image, overrides }: WithImages): string[] {
  return [image, ...overrides.map(({ content }) => content.image)].flatMap((one) => one?.name ?? []);
}
