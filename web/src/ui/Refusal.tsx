import type { ApiProblem } from '@zonal/core/api';
import { useEffect, useRef } from 'react';
import { ProblemNotice } from './ProblemNotice';

/** What can be focused in a field that is marked as wrong: a date has several parts. */
const MARKED = ['input:not([type=hidden])', 'textarea', 'select', '[role=spinbutton]']
  .map((part) => `[data-invalid] ${part}`)
  .join();

/** Says above the buttons of a form why it was refused, and brings into sight what has to be changed. */
export function Refusal({ problem }: { problem: ApiProblem | null }) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!problem) return;
    const marked = place.current?.closest('form')?.querySelector<HTMLElement>(MARKED);
    // Focus scrolls to the field by itself.
    if (marked) marked.focus();
    else place.current?.scrollIntoView({ block: 'nearest' });
  }, [problem]);
  return (
    <div ref={place}>
      <ProblemNotice problem={problem} />
    </div>
  );
}
