import { Component, lazy, Suspense, useEffect, useState, type ComponentType, type ReactNode } from 'react';
import { Button } from './Button';
import { Empty, Loading } from './Notice';
import { t } from '../texts/base';

/** Pauses before the script of a screen is asked for again, in milliseconds: a short interruption passes unnoticed. */
const RETRY_PAUSES_MS = [500, 2000];

/** A screen whose script is fetched when it is shown first, or before that by `prepare`. */
export type PreparedScreen<P> = ComponentType<P> & {
  /** Fetches the script ahead of its use. Does not report trouble: the screen itself does when it is shown. */
  readonly prepare: () => void;
};

/** Returns a screen whose script is fetched when it is shown first. Enclose it in a LazyScreen. */
export function lazyScreen<P extends object = object>(
  load: () => Promise<ComponentType<P>>,
): PreparedScreen<P> {
  let loaded: ComponentType<P> | null = null;
  let isPrepared = false;
  const fetchScreen = async () => (loaded ??= await fetchAgain(load));
  const Later = lazy(async () => ({ default: await fetchScreen() }));
  function PreparedOrLater(props: P) {
    // It stays what it was at first, so that nothing typed is lost once the script is there.
    const [Shown] = useState<ComponentType<P>>(() => loaded ?? (Later as unknown as ComponentType<P>));
    return <Shown {...props} />;
  }
  const prepare = () => {
    if (isPrepared) return;
    isPrepared = true;
    fetchScreen().catch(() => (isPrepared = false));
  };
  return Object.assign(PreparedOrLater, { prepare });
}

async function fetchAgain<T>(fetchOnce: () => Promise<T>): Promise<T> {
  for (const pause of RETRY_PAUSES_MS) {
    try {
      return await fetchOnce();
    } catch {
      await new Promise((resolve) => setTimeout(resolve, pause));
    }
  }
  return fetchOnce();
}

interface LazyScreenProps {
  readonly children: ReactNode;
  /** Called if Escape is pressed before the screen is there. */
  readonly onCancel?: () => void;
}

/** Shows that the script of a screen is being fetched, and what to do if it cannot be. */
export function LazyScreen({ children, onCancel }: LazyScreenProps) {
  return (
    <ScriptTrouble>
      <Suspense fallback={<Opening onCancel={onCancel} />}>{children}</Suspense>
    </ScriptTrouble>
  );
}

function Opening({ onCancel }: { readonly onCancel: (() => void) | undefined }) {
  useEffect(() => {
    const cancel = (event: KeyboardEvent) => {
      if (event.key === 'Escape') onCancel?.();
    };
    window.addEventListener('keydown', cancel);
    return () => window.removeEventListener('keydown', cancel);
  }, [onCancel]);
  return <Loading what={t('opening')} />;
}

/** Shown instead of a screen that failed, mostly because its script did not arrive or a new version replaced it. */
class ScriptTrouble extends Component<{ readonly children: ReactNode }, { readonly hasFailed: boolean }> {
  override state = { hasFailed: false };

  static getDerivedStateFromError() {
    return { hasFailed: true };
  }

  override render() {
    if (!this.state.hasFailed) return this.props.children;
    return (
      <Empty>
        <p role="alert">{t('screenNotOpened')}</p>
        <Button onPress={() => window.location.reload()}>{t('loadAgain')}</Button>
      </Empty>
    );
  }
}
