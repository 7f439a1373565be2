import type { CsvMapping, DateOrder } from '@zonal/core/forms';
import type { RehearsedWindow, Watch } from '@zonal/core/glass';
import { useEffect, useRef, useState } from 'react';
import { csrfToken, zonalApi } from '../../api/zonalApi';
import { stepDone } from '../historySlice';
import type { RehearsalLines } from '../../workers/questions';
import { useAppDispatch } from '../../store';
import { saveFile } from '../../ui/saveFile';
import type { FileAnswer, FileQuestion, PlanLine, TakeRequest } from './fileTypes';

/** How far a file has come. */
export type FileState =
  | { readonly step: 'none' }
  | { readonly step: 'working'; readonly what: string; readonly share: number; readonly sending: boolean }
  | (Extract<FileAnswer, { kind: 'table' }> & { readonly step: 'table' })
  | { readonly step: 'plan'; readonly lines: readonly PlanLine[]; readonly notes: readonly string[] }
  | { readonly step: 'applied'; readonly label: string; readonly size: number }
  | { readonly step: 'stopped' }
  | { readonly step: 'taken'; readonly name: string };

const START = (what: string, sending = false): FileState => ({ step: 'working', what, share: 0, sending });

/** Reads, compares, sends and writes files in a worker, so that the page stays free. */
export function useFiles() {
  const dispatch = useAppDispatch();
  const worker = useRef<Worker | null>(null);
  const fileName = useRef('');
  const lines = useRef<PlanLine[]>([]);
  const [state, setState] = useState<FileState>({ step: 'none' });
  const [problem, setProblem] = useState('');
  /** What the import is called that goes on by itself once the effect outside is known. */
  const going = useRef<{ label: string; take: readonly number[] } | null>(null);
  const [outside, setOutside] = useState<readonly RehearsalLines[] | 'working' | null>(null);

  const hear = (answer: FileAnswer) => {
    switch (answer.kind) {
      case 'progress':
        return setState((s) => (s.step === 'working' ? { ...s, what: answer.what, share: answer.share } : s));
      case 'table':
        return setState({ ...answer, step: 'table' });
      case 'lines':
        lines.current.push(...answer.lines);
        return;
      case 'plan':
        return setState({ step: 'plan', notes: answer.notes, lines: lines.current });
      case 'applied':
        dispatch(stepDone(answer));
        dispatch(zonalApi.util.invalidateTags(['Entry', 'Calendar']));
        return setState({ ...answer, step: 'applied' });
      case 'rehearsed': {
        setOutside(answer.rehearsals);
        const next = going.current;
        going.current = null;
        if (next && answer.rehearsals.every((r) => !r.demands.length)) apply(next.label, next.take);
        return;
      }
      case 'stopped':
        return setState({ step: 'stopped' });
      case 'taken':
        saveFile(answer.text, fileName.current);
        return setState({ step: 'taken', name: fileName.current });
      case 'problem':
        setProblem(answer.message);
        setOutside(null);
        going.current = null;
        return setState({ step: 'none' });
    }
  };

  const post = (question: FileQuestion) => {
    setProblem('');
    if (question.kind === 'open' || question.kind === 'map') {
      lines.current = [];
      setOutside(null);
    }
    worker.current ??= new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module' });
    worker.current.onmessage = ({ data }: MessageEvent<FileAnswer>) => hear(data);
    worker.current.postMessage(question);
  };
  const apply = (label: string, take: readonly number[]) => {
    setState(START('Sending', true));
    post({ kind: 'apply', label, take, csrf: csrfToken() });
  };
  const end = () => {
    worker.current?.terminate();
    worker.current = null;
  };
  useEffect(() => end, []);

  return {
    state,
    problem,
    open: (file: File, calendarId: string, zone: string) => {
      setState(START('Reading the file'));
      post({ kind: 'open', file, calendarId, zone });
    },
    map: (mapping: CsvMapping, dateOrder: DateOrder) => {
      setState(START('Reading the table'));
      post({ kind: 'map', mapping, dateOrder });
    },
    apply,
    /** While it reads, the worker is ended; while it sends, it drops what was sent. */
    stop: () => {
      if (state.step === 'working' && state.sending) return post({ kind: 'stop' });
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
      going.current = label === null ? null : { label, take };
      post({ kind: 'rehearse', windows, watch, take, now: Date.now() });
    },
    forgetOutside: () => setOutside(null),
    take: (request: TakeRequest, name: string) => {
      fileName.current = name;
      setState(START('Writing the file'));
      post({ kind: 'take', ...request });
    },
  };
}
