/** Countries and regions that public holidays are known of; vite.config.ts makes it from the rules of the holidays. */
declare module 'virtual:holiday-places' {
  interface Place {
    readonly code: string;
    readonly name: string;
  }
  const places: {
    readonly countries: readonly Place[];
    /** The regions of each country by its code. */
    readonly regions: Readonly<Record<string, readonly Place[]>>;
  };
  export default places;
}
