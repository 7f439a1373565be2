import styled from 'styled-components';
import { Button, QuietButton } from '../ui/Button';

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 0.9rem;
  padding: 0.3rem 0.6rem;
  border: 1px solid var(--line);
  background: var(--shade);
`;

interface BulkBarProps {
  /** How many entries are selected, and how many of them the person may change. */
  readonly selected: number;
  readonly writable: number;
  /** Whether an edit is under way: what is selected may be older than it. */
  readonly isBusy: boolean;
  readonly onChange: () => void;
  readonly onClear: () => void;
}

/** Says how many entries are selected, and opens what can be done to them. */
export function BulkBar({ selected, writable, isBusy, onChange, onClear }: BulkBarProps) {
  return (
    <Bar role="group" aria-label="Selected entries">
      <span role="status">
        {selected} selected
        {writable < selected && `, of which you may change ${writable}`}
      </span>
      <Button isDisabled={!writable || isBusy} onPress={onChange}>
        Change them …
      </Button>
      <QuietButton onPress={onClear}>Clear the selection</QuietButton>
    </Bar>
  );
}
