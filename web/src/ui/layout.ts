import styled from 'styled-components';

export const Stack = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.9rem;
  align-content: start;
  min-width: 0;
`;

export const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.6rem;
`;

export const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.9rem;
  @media (max-width: 34rem) {
    grid-template-columns: 1fr;
  }
`;

/** A list in a frame, with a hairline between its items; their columns are the place's own. */
export const FramedList = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  border: 1px solid var(--line);
  background: var(--sheet);
  > li {
    padding: 0.5rem 0.7rem;
    border-bottom: 1px solid var(--hair);
    overflow-wrap: anywhere;
  }
  > li:last-child {
    border-bottom: 0;
  }
`;

/** What is handed out: all in it is outside. */
export const OutsideBox = styled.section`
  border: 1px solid var(--outside);
  background: var(--outside-wash);
  padding: 0.8rem 1rem;
  display: grid;
  gap: 0.6rem;
`;

export const Faded = styled.span`
  color: var(--faded);
  font-size: 0.85rem;
`;
