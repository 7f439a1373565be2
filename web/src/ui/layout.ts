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

export const Faded = styled.span`
  color: var(--faded);
  font-size: 0.85rem;
`;
