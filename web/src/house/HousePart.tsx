import type { ReactNode } from 'react';
import { ReadingPage } from '../ui/layout';
import { HouseNav } from './HouseNav';

interface HousePartProps {
  readonly title: string;
  readonly children: ReactNode;
}

/** One part of what stewards look after, below the links to the others. */
export function HousePart({ title, children }: HousePartProps) {
  return (
    <ReadingPage>
      <h1>{title}</h1>
      <HouseNav />
      {children}
    </ReadingPage>
  );
}
