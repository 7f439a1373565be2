import styled from 'styled-components';
import { Button, QuietButton } from '../ui/Button';
import { t } from '../texts/inside';

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
    <Bar role="group" aria-label={t('selectedEntries')}>
      <span role="status">
        {t('selectedCount', { count: selected })}
        {writable < selected && t('ofWhichWritable', { count: writable })}
      </span>
      <Button isDisabled={!writable || isBusy} onPress={onChange}>
        {t('changeSelected')}
      </Button>
      <QuietButton onPress={onClear}>{t('clearSelection')}</QuietButton>
    </Bar>
  );
}
