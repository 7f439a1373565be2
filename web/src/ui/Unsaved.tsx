import {
  createContext,
  useContext,
  useEffect,
  useId,
  useLayoutEffect,
  useState,
  type ReactNode,
} from 'react';
import { useBlocker } from 'react-router';
import { DiscardDialog } from './DiscardDialog';

/** The forms of a part of the screen that hold something unsaved, by an id each; the parts around it hold them too. */
class UnsavedForms {
  private readonly ids = new Set<string>();

  constructor(private readonly around: UnsavedForms | null) {}

  get hasAny(): boolean {
    return this.ids.size > 0;
  }

  add(id: string): void {
    this.ids.add(id);
    this.around?.add(id);
  }

  delete(id: string): void {
    this.ids.delete(id);
    this.around?.delete(id);
  }
}

const FormsAround = createContext<UnsavedForms>(new UnsavedForms(null));

/** Asks before another screen, a reload or closing the tab throws away what was typed into a form. */
export function UnsavedGuard({ children }: { children: ReactNode }) {
  const [forms] = useState(() => new UnsavedForms(null));
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => forms.hasAny && currentLocation.pathname !== nextLocation.pathname,
  );
  useEffect(() => {
    const ask = (event: BeforeUnloadEvent) => {
      if (forms.hasAny) event.preventDefault();
    };
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [forms]);
  return (
    <FormsAround value={forms}>
      {children}
      {blocker.state === 'blocked' && (
        <DiscardDialog onKeep={() => blocker.reset()} onDiscard={() => blocker.proceed()} />
      )}
    </FormsAround>
  );
}

interface UnsavedPartProps {
  readonly forms: UnsavedForms;
  readonly children: ReactNode;
}

/** Encloses a part of the screen that can be closed by itself, such as a sheet. */
export function UnsavedPart({ forms, children }: UnsavedPartProps) {
  return <FormsAround value={forms}>{children}</FormsAround>;
}

/** Returns the unsaved forms of a part of the screen that can be closed by itself; `isChanged` counts as one of them. */
export function useUnsavedPart(isChanged: boolean): UnsavedForms {
  const around = useContext(FormsAround);
  const [forms] = useState(() => new UnsavedForms(around));
  useRegistered(forms, isChanged);
  return forms;
}

/** Guards a form while it holds changes. Returns what ends that at once, before its page goes to another one. */
export function useUnsaved(isChanged: boolean): () => void {
  return useRegistered(useContext(FormsAround), isChanged);
}

function useRegistered(forms: UnsavedForms, isChanged: boolean): () => void {
  const id = useId();
  // Before anything else can happen: a form that closes may lead to another screen at once.
  useLayoutEffect(() => {
    if (!isChanged) return;
    forms.add(id);
    return () => forms.delete(id);
  }, [forms, id, isChanged]);
  return () => forms.delete(id);
}

/**
 * Guards a form from its first change until it is sent. Returns what to call on sending; that returns what to call if the form
 * was refused.
 */
export function useUnsavedForm(form: unknown): () => () => void {
  const now = JSON.stringify(form);
  const [saved, setSaved] = useState(now);
  useUnsaved(now !== saved);
  return () => {
    setSaved(now);
    return () => setSaved(saved);
  };
}

/** Returns whether a form differs from what it was when this was first called. */
export function useChanged(form: unknown): boolean {
  const now = JSON.stringify(form);
  const [blank] = useState(now);
  return now !== blank;
}
