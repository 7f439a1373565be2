import type { Day } from '@zonal/core/zones';
import { useEffect, useRef, useState } from 'react';
import { remoteOf, type RemoteWorker } from '../workers/remote';
import type { Layer } from './deskSlice';
import { LANGUAGE } from '../texts/language';

/** A note of a ready-made calendar on a day. */
export interface DayNote {
  readonly layer: Layer;
  /** In one or two words, for narrow places. */
  readonly short: string;
  readonly text: string;
}

/** Notes by day. */
export type DayNotes = ReadonlyMap<Day, readonly DayNote[]>;

/** What the worker is asked for. Sun needs a spot; holidays a country. */
export interface NotesQuestion {
  readonly layers: readonly Layer[];
  readonly from: Day;
  readonly to: Day;
  readonly zone: string;
  readonly country: string;
  readonly region: string;
  readonly spot: { readonly latitude: number; readonly longitude: number } | null;
}

/** What the worker offers. */
export interface Readymade {
  notesOf(question: NotesQuestion): DayNotes;
}

const NONE: DayNotes = new Map();

/** Returns the notes of the ready-made calendars that are switched on; they are computed in a worker. */
export function useDayNotes(question: NotesQuestion): DayNotes {
  const [told, setTold] = useState(NONE);
  const worker = useRef<RemoteWorker<Readymade> | null>(null);
  const text = JSON.stringify(question);
  const wanted = question.layers.length > 0;
  useEffect(() => {
    if (!wanted) return;
    let current = true;
    worker.current ??= remoteOf<Readymade>(
      new Worker(new URL('./readymade.worker.ts', import.meta.url), { type: 'module', name: LANGUAGE }),
    );
    const answer = worker.current.offered.notesOf(JSON.parse(text) as NotesQuestion);
    void answer.then((notes) => current && setTold(notes));
    return () => {
      current = false;
    };
  }, [text, wanted]);
  useEffect(() => () => worker.current?.end(), []);
  return wanted ? told : NONE;
}
