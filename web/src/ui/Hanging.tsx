import styled from 'styled-components';

/** What hangs below a field while it is used, over what stands there. Put it beside the field in a box of its own. */
export const Hanging = styled.div<{ $side?: 'left' | 'right' }>`
  position: absolute;
  top: 100%;
  ${(p) => p.$side ?? 'left'}: 0;
  z-index: 20;
  min-width: 100%;
  width: max-content;
  max-width: min(56rem, 92vw);
  max-height: 70vh;
  overflow: auto;
  margin-top: 3px;
  padding: 0.5rem 0.7rem;
  background: var(--paper);
  border: 1px solid var(--ink);
  font-size: 0.88rem;
`;
