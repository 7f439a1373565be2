import styled from 'styled-components';

/** Fields that belong together, below a legend. */
export const Group = styled.fieldset`
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
  legend {
    padding: 0;
    font-size: 0.85rem;
    color: var(--faded);
    margin-bottom: 0.3rem;
  }
`;
