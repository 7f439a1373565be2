import { useEffect, useState } from 'react';

/** Countries and regions that public holidays are known of. */
export interface Places {
  readonly countries: readonly { code: string; name: string }[];
  readonly regionsOf: (country: string) => readonly { code: string; name: string }[];
}

/** The list of countries is large, so it comes by itself. */
export function usePlaces(): Places | null {
  const [places, setPlaces] = useState<Places | null>(null);
  useEffect(() => {
    void import('@zonal/core/readymade').then(({ holidayCountries, holidayRegions }) =>
      setPlaces({ countries: holidayCountries(), regionsOf: holidayRegions }),
    );
  }, []);
  return places;
}
