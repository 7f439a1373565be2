import styled from 'styled-components';

/** How far a long job has come. */
export const ProgressBar = styled.progress`
  width: 100%;
  accent-color: var(--ink);
`;
