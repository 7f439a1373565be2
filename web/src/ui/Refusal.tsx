import type { ApiProblem } from '@zonal/core/api';
import { useEffect, useRef } from 'react';
import styled from 'styled-components';
import { ProblemNotice } from './ProblemNotice';

const Place = styled.div`
  outline: none;
`;

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
    if (marked) return marked.focus();
    place.current?.scrollIntoView({ block: 'nearest' });
    // The button pressed could not be pressed again while the call was under way, and so lost the focus.
    if (document.activeElement === document.body) place.current?.focus({ preventScroll: true });
  }, [problem]);
  return (
    <Place ref={place} tabIndex={-1}>
      <ProblemNotice problem={problem} />
    </Place>
  );
}
