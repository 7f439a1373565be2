import { useEffect, useRef, useState } from 'react';
import type { PreviewAnswer, PreviewQuestion } from './previewTypes';

/** Returns the worker's answer to the newest question; while it works, the answer before stays. */
export function usePreview(question: Omit<PreviewQuestion, 'id'> | null): { answer: PreviewAnswer | null; busy: boolean } {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [answer, setAnswer] = useState<PreviewAnswer | null>(null);
  const [busy, setBusy] = useState(false);

  useEffect(() => {
    const own = new Worker(new URL('./preview.worker.ts', import.meta.url), { type: 'module' });
    own.onmessage = (event: MessageEvent<PreviewAnswer>) => {
      if (event.data.id !== asked.current) return;
      setAnswer(event.data);
      setBusy(false);
    };
    worker.current = own;
    return () => own.terminate();
  }, []);

  const text = question && JSON.stringify(question);
  useEffect(() => {
    if (!text) return;
    asked.current++;
    setBusy(true);
    worker.current?.postMessage({ ...(JSON.parse(text) as Omit<PreviewQuestion, 'id'>), id: asked.current });
  }, [text]);

  return { answer, busy };
}
