import styled from 'styled-components';
import { NotedList } from './layout';

/** A list in a frame with notes, and with what can be done to each item at its right; below it on a narrow screen. */
export const ActionList = styled(NotedList)`
  > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0.4rem 1rem;
    align-items: center;
    @media (max-width: 44rem) {
      grid-template-columns: minmax(0, 1fr);
      justify-items: start;
    }
  }
`;
