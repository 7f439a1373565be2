import { proxy } from 'comlink';
import { Archive } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { remoteOf, type RemoteWorker } from '../../workers/remote';
import { Button } from '../../ui/Button';
import { ProgressBar } from '../../ui/ProgressBar';
import { Faded, Row, Stack } from '../../ui/layout';
import { Notice } from '../../ui/Notice';
import { saveBlob } from '../../ui/saveFile';
import type { ArchiveWorker } from './archive.worker';
import { t } from '../../texts/house';
import { LANGUAGE } from '../../texts/language';

type Step =
  | { readonly kind: 'none' | 'stopped' }
  | { readonly kind: 'working'; readonly what: string; readonly share: number }
  | { readonly kind: 'done'; readonly name: string }
  | { readonly kind: 'failed'; readonly why: string };

/** Makes one file of everything in the house, in a worker; it shows its progress and can be stopped. */
export function ArchivePanel() {
  const [step, setStep] = useState<Step>({ kind: 'none' });
  const worker = useRef<RemoteWorker<ArchiveWorker> | null>(null);
  const end = () => {
    worker.current?.end();
    worker.current = null;
  };
  useEffect(() => end, []);
  const make = async () => {
    setStep({ kind: 'working', what: t('calendars'), share: 0 });
    const own = remoteOf<ArchiveWorker>(
      new Worker(new URL('./archive.worker.ts', import.meta.url), { type: 'module', name: LANGUAGE }),
    );
    worker.current = own;
    const tell = (what: string, share: number) => {
      if (worker.current === own) setStep({ kind: 'working', what, share });
    };
    const now = Date.now();
    try {
      const bytes = await Promise.race([own.offered.make(now, proxy(tell)), own.failed]);
      if (worker.current !== own) return;
      const name = `archive-${new Date(now).toISOString().slice(0, 10)}.zip`;
      saveBlob(new Blob([bytes], { type: 'application/zip' }), name);
      setStep({ kind: 'done', name });
    } catch (error) {
      if (worker.current === own) setStep({ kind: 'failed', why: (error as Error).message });
    } finally {
      if (worker.current === own) end();
    }
  };
  const stop = () => {
    end();
    setStep({ kind: 'stopped' });
  };
  return (
    <Stack as="section" aria-labelledby="archive">
      <h2 id="archive">{t('archive')}</h2>
      <Faded>{t('archiveHint')}</Faded>
      {step.kind === 'working' ? (
        <div role="status">
          <p>{step.what} …</p>
          <ProgressBar aria-label={t('archive')} max={1} value={step.share} />
          <Button onPress={stop}>{t('stop')}</Button>
        </div>
      ) : (
        <Row>
          <Button onPress={() => void make()}>
            <Archive aria-hidden="true" /> {t('makeArchive')}
          </Button>
          {step.kind === 'stopped' && <span role="status">{t('archiveStopped')}</span>}
          {step.kind === 'done' && <span role="status">{t('savedAs', { name: step.name })}</span>}
        </Row>
      )}
      {step.kind === 'failed' && <Notice>{t('archiveFailed', { why: step.why })}</Notice>}
    </Stack>
  );
}
