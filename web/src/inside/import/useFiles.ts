import type { CalendarInput } from '@zonal/core/api';
import { proxy } from 'comlink';
import type { CsvMapping, DateOrder } from '@zonal/core/forms';
import type { RehearsedWindow, Watch } from '@zonal/core/glass';
import { useEffect, useRef, useState } from 'react';
import { csrfToken, zonalApi } from '../../api/zonalApi';
import { stepDone } from '../historySlice';
import { remoteOf, type RemoteWorker } from '../../workers/remote';
import type { RehearsalLines } from '../../workers/questions';
import { useAppDispatch } from '../../store';
import { saveFile } from '../../ui/saveFile';
import type { Files, PlanLine, Progress, ReadPlan, ReadTable, TakeRequest } from './fileTypes';
import { t } from '../../texts/inside';
import { LANGUAGE } from '../../texts/language';

/** How far a file has come. */
export type FileState =
  | { readonly step: 'none' }
  | { readonly step: 'working'; readonly what: string; readonly share: number; readonly sending: boolean }
  | (ReadTable & { readonly step: 'table' })
  | {
      readonly step: 'plan';
      /** The name that the file gives itself, or empty. */
      readonly name: string;
      readonly lines: readonly PlanLine[];
      readonly notes: readonly string[];
    }
  | { readonly step: 'applied'; readonly label: string; readonly size: number }
  | { readonly step: 'stopped' }
  | { readonly step: 'taken'; readonly name: string };

/** Lines of a plan in one message. */
const AT_ONCE = 1000;

type Worked = RemoteWorker<Files & { hear(told: Progress): void }>;

/** Reads, compares, sends and writes files in a worker, so that the page stays free. */
export function useFiles() {
  const dispatch = useAppDispatch();
  const worker = useRef<Worked | null>(null);
  const [state, setState] = useState<FileState>({ step: 'none' });
  const [problem, setProblem] = useState('');
  const [outside, setOutside] = useState<readonly RehearsalLines[] | 'working' | null>(null);

  const end = () => {
    worker.current?.end();
    worker.current = null;
  };
  useEffect(() => end, []);

  const started = (): Worked => {
    if (worker.current) return worker.current;
    const own: Worked = remoteOf(
      new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module', name: LANGUAGE }),
    );
    void own.offered.hear(
      proxy((what: string, share: number) =>
        setState((s) => (s.step === 'working' ? { ...s, what, share } : s)),
      ),
    );
    return (worker.current = own);
  };

  /** Has something done in the worker, and goes on with what came of it unless it was ended meanwhile. */
  const run = async <T>(
    work: (files: Worked['offered']) => Promise<T>,
    then: (done: T) => void,
  ): Promise<void> => {
    setProblem('');
    const own = started();
    try {
      const done = await Promise.race([work(own.offered), own.failed]);
      if (worker.current === own) then(done);
    } catch (error) {
      if (worker.current !== own) return;
      setProblem((error as Error).message);
      setOutside(null);
      setState({ step: 'none' });
    }
  };

  const working = (what: string, sending = false) => setState({ step: 'working', what, share: 0, sending });
  /** Fetches the lines of a plan in parts; a table has none yet. */
  const withLines = async (files: Worked['offered'], read: ReadTable | ReadPlan): Promise<FileState> => {
    if (!('count' in read)) return { ...read, step: 'table' };
    const lines: PlanLine[] = [];
    for (let at = 0; at < read.count; at += AT_ONCE) lines.push(...(await files.lines(at, at + AT_ONCE)));
    return { step: 'plan', name: read.name, lines, notes: read.notes };
  };
  const apply = (label: string, take: readonly number[], newCalendar: CalendarInput | null = null) => {
    working(t('sending'), true);
    void run(
      (files) => files.apply(label, csrfToken(), take, newCalendar),
      (done) => {
        if (!done) return setState({ step: 'stopped' });
        dispatch(stepDone({ id: done.id, label }));
        dispatch(zonalApi.util.invalidateTags(['Entry', 'Calendar']));
        setState({ ...done, step: 'applied', label });
      },
    );
  };

  return {
    state,
    problem,
    open: (file: File, calendarId: string | null, zone: string) => {
      working(t('readingFile'));
      setOutside(null);
      void run(async (files) => withLines(files, await files.open(file, calendarId, zone)), setState);
    },
    map: (mapping: CsvMapping, dateOrder: DateOrder) => {
      working(t('readingTable'));
      setOutside(null);
      void run(async (files) => withLines(files, await files.map(mapping, dateOrder)), setState);
    },
    apply,
    /** While it reads, the worker is ended; while it sends, it drops what was sent. */
    stop: () => {
      if (state.step === 'working' && state.sending) return void worker.current?.offered.stop();
      end();
      setState({ step: 'stopped' });
    },
    reset: () => setState({ step: 'none' }),
    /** What readers outside would see differently; null until it is asked for, and once the choice changes. */
    outside,
    /** With a label the import goes on by itself where nothing of its effect is large. */
    rehearse: (
      windows: readonly RehearsedWindow[],
      watch: Watch,
      take: readonly number[],
      label: string | null,
    ) => {
      setOutside('working');
      void run(
        (files) => files.rehearse(windows, watch, take, Date.now()),
        (rehearsals) => {
          setOutside(rehearsals);
          if (label !== null && rehearsals.every((r) => !r.demands.length)) apply(label, take);
        },
      );
    },
    forgetOutside: () => setOutside(null),
    take: (request: TakeRequest, name: string) => {
      working(t('writingFile'));
      void run(
        (files) => files.take(request),
        (text) => {
          saveFile(text, name);
          setState({ step: 'taken', name });
        },
      );
    },
  };
}
