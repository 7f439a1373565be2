import { useEffect, useRef, useState } from 'react';
import type { PreviewAnswer, PreviewQuestion } from './previewTypes';

interface Told {
  readonly question: string;
  readonly answer: PreviewAnswer;
}

/** Returns the worker's answer to the newest question; while it works, the answer before stays. */
export function usePreview(question: Omit<PreviewQuestion, 'id'> | null): {
  answer: PreviewAnswer | null;
  busy: boolean;
} {
  const worker = useRef<Worker | null>(null);
  const asked = useRef({ id: 0, question: '' });
  const [told, setTold] = useState<Told | null>(null);

  useEffect(() => {
    const own = new Worker(new URL('./preview.worker.ts', import.meta.url), { type: 'module' });
    own.onmessage = ({ data }: MessageEvent<PreviewAnswer>) => {
      if (data.id === asked.current.id) setTold({ question: asked.current.question, answer: data });
    };
    worker.current = own;
    return () => own.terminate();
  }, []);

  const text = question && JSON.stringify(question);
  useEffect(() => {
    if (!text) return;
    asked.current = { id: asked.current.id + 1, question: text };
    worker.current?.postMessage({
      ...(JSON.parse(text) as Omit<PreviewQuestion, 'id'>),
      id: asked.current.id,
    });
  }, [text]);

  return { answer: told?.answer ?? null, busy: text !== null && told?.question !== text };
}
