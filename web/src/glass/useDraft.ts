import type { WindowInput } from '@zonal/core/glass';
import { canonical } from '@zonal/core/entries';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useDiscardDraftMutation, useKeepDraftMutation } from '../api/zonalApi';
import type { ApiProblem, Calendar, OutwardWindow, WindowDraft } from '@zonal/core/api';
import { blankDraft, draftOf } from './draft';

/** After this many milliseconds without typing the draft is kept on the server. */
const PAUSE = 700;

const plain = ({ version: _v, confirmed: _c, audience: _a, ...rest }: WindowInput) => canonical(rest);

/** Returns whether a draft says something else than what is shown outside. */
export function differs(draft: WindowInput, window: OutwardWindow | null): boolean {
  return !window || plain(draft) !== plain(draftOf(window));
}

/** Returns where work on a window starts: from its kept draft, from what is shown outside, or from nothing. */
function startOf(window: OutwardWindow | null, calendars: readonly Calendar[]): WindowInput {
  if (!window) return blankDraft(calendars);
  return window.draft
    ? { ...draftOf(window), ...window.draft.body, version: window.version }
    : draftOf(window);
}

/** The rules being worked on. They are kept on the server as they are typed; a new window's stay in the page. */
export function useDraft(window: OutwardWindow | null, calendars: readonly Calendar[]) {
  const [draft, setDraft] = useState<WindowInput>(() => startOf(window, calendars));
  const [kept, setKept] = useState<WindowDraft | null>(window?.draft ?? null);
  const [problem, setProblem] = useState<ApiProblem | null>(null);
  const [conflict, setConflict] = useState<ApiProblem | null>(null);
  const [keep] = useKeepDraftMutation();
  const [discard] = useDiscardDraftMutation();
  const version = useRef(window?.draft?.version ?? 0);
  const saved = useRef(plain(startOf(window, calendars)));
  const line = useRef(Promise.resolve());
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const id = window?.id ?? null;

  const set = useCallback((part: Partial<WindowInput>) => setDraft((d) => ({ ...d, ...part })), []);
  const text = plain(draft);
  const latest = useRef({ draft, text });
  useEffect(() => {
    latest.current = { draft, text };
  }, [draft, text]);

  /** Keeps what stands here now; one request after the other, or a draft would be in conflict with itself. */
  const send = useCallback(() => {
    clearTimeout(timer.current);
    line.current = line.current.then(async () => {
      const { draft: body, text: sent } = latest.current;
      if (!id || sent === saved.current) return;
      const { data, error } = await keep({ id, version: version.current, body });
      if (data) {
        saved.current = sent;
        version.current = data.version;
        setKept(data);
        setProblem(null);
      } else if ((error as ApiProblem).code === 'version-conflict') setConflict(error as ApiProblem);
      else setProblem(error as ApiProblem);
    });
    return line.current;
  }, [id, keep]);
  useEffect(() => {
    if (id && text !== saved.current) timer.current = setTimeout(() => void send(), PAUSE);
    return () => clearTimeout(timer.current);
  }, [text, id, send]);
  // What was typed just before leaving is kept too.
  useEffect(() => () => void send(), [send]);

  /** Starts anew from what is shown outside. */
  const settle = (live: OutwardWindow) => {
    clearTimeout(timer.current);
    const next = draftOf(live);
    saved.current = plain(next);
    latest.current = { draft: next, text: saved.current };
    version.current = 0;
    setKept(null);
    setConflict(null);
    setDraft(next);
  };

  return {
    draft,
    set,
    kept,
    setKept,
    conflict,
    /** Why the draft could not be kept, or null; it is tried again with the next change. */
    problem,
    settle,
    /** Takes the colleague's draft, or goes on with one's own over it. */
    resolve: (whose: 'theirs' | 'mine') => {
      const current = conflict?.details['current'] as WindowDraft | null | undefined;
      version.current = current?.version ?? 0;
      if (whose === 'theirs' && current) {
        const theirs = { ...draft, ...current.body };
        saved.current = plain(theirs);
        setKept(current);
        setDraft(theirs);
      } else void send();
      setConflict(null);
    },
    discard: async () => {
      if (!window) return;
      clearTimeout(timer.current);
      latest.current = { draft: draftOf(window), text: saved.current };
      await line.current;
      await discard(window.id);
      settle(window);
    },
  };
}
