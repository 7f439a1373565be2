import type { WindowInput } from '@zonal/core/glass';
import { canonical } from '@zonal/core/entries';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useDiscardDraftMutation, useKeepDraftMutation } from '../api/zonalApi';
import type { ApiProblem, Calendar, OutwardWindow, WindowDraft } from '@zonal/core/api';
import { useAppSelector } from '../store';
import { blankDraft, draftOf } from './draft';
import { removeNewWindow, storeNewWindow, storedNewWindow } from './newWindowDraft';

/** After this many milliseconds without typing the draft is kept on the server. */
const PAUSE = 700;

const plain = ({ version: _v, confirmed: _c, audience: _a, ...rest }: WindowInput) => canonical(rest);

/** Returns whether a draft says something else than what is shown outside. */
export function differs(draft: WindowInput, window: OutwardWindow | null): boolean {
  return !window || plain(draft) !== plain(draftOf(window));
}

/**
 * Returns where work on a window starts: from its stored draft, from what is shown outside, or for a new one without a draft from
 * `initial`, or from nothing.
 */
function startOf(
  window: OutwardWindow | null,
  calendars: readonly Calendar[],
  email: string,
  initial: WindowInput | null,
): WindowInput {
  if (!window) return storedNewWindow(email, calendars) ?? initial ?? blankDraft(calendars);
  return window.draft
    ? { ...draftOf(window), ...window.draft.body, version: window.version }
    : draftOf(window);
}

/** The rules being worked on. They are stored as they are typed: on the server, and those of a new window on this device. */
export function useDraft(
  window: OutwardWindow | null,
  calendars: readonly Calendar[],
  initial: WindowInput | null = null,
) {
  const email = useAppSelector((state) => state.person.user?.email ?? '');
  const [wasStored] = useState(() => !window && storedNewWindow(email, calendars) !== null);
  const [draft, setDraft] = useState<WindowInput>(() => startOf(window, calendars, email, initial));
  const [kept, setKept] = useState<WindowDraft | null>(window?.draft ?? null);
  const [problem, setProblem] = useState<ApiProblem | null>(null);
  const [conflict, setConflict] = useState<ApiProblem | null>(null);
  const [keep] = useKeepDraftMutation();
  const [discard] = useDiscardDraftMutation();
  const version = useRef(window?.draft?.version ?? 0);
  const saved = useRef(plain(startOf(window, calendars, email, initial)));
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
  const isNew = window === null;
  const isStored = isNew && text !== plain(blankDraft(calendars));
  useEffect(() => {
    if (!isNew) return;
    if (isStored) storeNewWindow(email, draft);
    else removeNewWindow();
  }, [isNew, isStored, email, draft]);
  useEffect(() => {
    if (id && text !== saved.current) timer.current = setTimeout(() => void send(), PAUSE);
    return () => clearTimeout(timer.current);
  }, [text, id, send]);
  // What was typed just before leaving is kept too.
  useEffect(() => () => void send(), [send]);

  /** Starts anew from what is shown outside. */
  const settle = (live: OutwardWindow) => {
    // The page of a new window gives way to that of the open one.
    if (isNew) return removeNewWindow();
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
    /** Whether this is a new window's draft that is stored on this device. */
    isStored,
    /** Whether there was one when the page was opened. */
    wasStored,
    /** Why the draft could not be kept, or null; it is tried again with the next change. */
    problem,
    settle,
    /** Goes on with another draft of a new window. */
    replace: setDraft,
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
      if (!window) return setDraft(blankDraft(calendars));
      clearTimeout(timer.current);
      latest.current = { draft: draftOf(window), text: saved.current };
      await line.current;
      await discard(window.id);
      settle(window);
    },
  };
}
