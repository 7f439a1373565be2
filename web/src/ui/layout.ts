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
  /* As high as a finger needs. */
  > a {
    padding-block: 0.15rem;
  }
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

/** A list in a frame whose items have a smaller line below what they say first. */
export const NotedList = styled(FramedList)`
  small {
    display: block;
    color: var(--faded);
  }
`;

/** A table in a frame; on a narrow screen each of its rows is a block. */
export const PlainTable = styled.table`
  width: 100%;
  border-collapse: collapse;
  background: var(--sheet);
  border: 1px solid var(--line);
  th {
    text-align: left;
    font-weight: 400;
    font-size: 0.8rem;
    color: var(--faded);
    padding: 0.35rem 0.8rem;
    border-bottom: 1px solid var(--line);
  }
  td {
    padding: 0.6rem 0.8rem;
    border-bottom: 1px solid var(--hair);
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  small {
    color: var(--faded);
    display: block;
  }
  @media (max-width: 44rem) {
    thead {
      display: none;
    }
    tr,
    td {
      display: block;
    }
    td {
      border: 0;
      padding: 0.25rem 0.8rem;
    }
    /* What its column is called, as no heading stands above it there. */
    td[data-label]::before {
      content: attr(data-label) ': ';
      color: var(--faded);
    }
    tr {
      border-bottom: 1px solid var(--line);
      padding: 0.4rem 0;
    }
  }
`;

/** A page of forms and lists, no wider than is read well. */
export const ReadingPage = styled(Stack)`
  max-width: 60rem;
`;

/** Parts of a page side by side where there is room; the first is read first. */
export const SideBySide = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 30rem), 1fr));
  gap: 1.2rem 2.5rem;
  align-items: start;
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
