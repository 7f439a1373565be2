import type { ReactNode } from 'react';
import { ReadingPage } from '../ui/layout';
import { HouseNav } from './HouseNav';

/** One part of what stewards look after, below the way to the others. */
export function HousePart({ children }: { children: ReactNode }) {
  return (
    <ReadingPage>
      <h1>House</h1>
      <HouseNav />
      {children}
    </ReadingPage>
  );
}
