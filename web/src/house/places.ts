import { useEffect, useState } from 'react';

/** Countries and regions that public holidays are known of. */
export interface Places {
  readonly countries: readonly { code: string; name: string }[];
  readonly regionsOf: (country: string) => readonly { code: string; name: string }[];
}

/** Returns the places that public holidays are known of, or null until their list is fetched. */
export function usePlaces(): Places | null {
  const [places, setPlaces] = useState<Places | null>(null);
  useEffect(() => {
    void import('virtual:holiday-places').then(({ default: { countries, regions } }) =>
      setPlaces({ countries, regionsOf: (country) => regions[country] ?? [] }),
    );
  }, []);
  return places;
}
