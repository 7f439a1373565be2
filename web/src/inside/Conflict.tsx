import type { Entry } from '@zonal/core/entries';
import { useEffect, useRef, useState } from 'react';
import { Label, Radio, RadioGroup } from 'react-aria-components';
import styled from 'styled-components';
import type { EntryInput } from '@zonal/core/api';
import { MainButton } from '../ui/Button';
import { Row } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { disputeWords, type Dispute } from './mergeForms';
import { t } from '../texts/inside';

const Choices = styled(RadioGroup)`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.3rem 0.6rem;
  margin: 0.6rem 0;
  > span:first-child {
    grid-column: 1 / -1;
    font-weight: 700;
  }
  label {
    border: 1px solid var(--line);
    padding: 0.3rem 0.5rem;
    cursor: pointer;
    overflow-wrap: anywhere;
    small {
      display: block;
      color: var(--faded);
    }
    &[data-selected] {
      outline: 2px solid var(--ink);
    }
    &[data-focus-visible] {
      outline: 2px solid var(--focus);
    }
  }
`;

interface ConflictProps {
  readonly disputes: readonly Dispute[];
  readonly mine: EntryInput;
  readonly theirs: Entry;
  /** Gets the disputes that their version decides. */
  readonly onChoose: (theirs: readonly Dispute[]) => void;
}

/** What two people changed differently, field by field with both texts. What only one of them changed is kept anyway. */
export function Conflict({ disputes, mine, theirs, onChoose }: ConflictProps) {
  const [chosen, setChosen] = useState<ReadonlySet<Dispute>>(new Set());
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => place.current?.querySelector('input')?.focus(), []);
  const choose = (dispute: Dispute, isTheirs: boolean) => {
    const next = new Set(chosen);
    if (isTheirs) next.add(dispute);
    else next.delete(dispute);
    setChosen(next);
  };
  return (
    <div ref={place}>
      <Notice>
        <p>{t('conflictHint')}</p>
        {disputes.map((dispute) => {
          const words = disputeWords(dispute, mine, theirs);
          return (
            <Choices
              key={words.about}
              value={chosen.has(dispute) ? 'theirs' : 'mine'}
              onChange={(whose) => choose(dispute, whose === 'theirs')}
            >
              <Label>{words.about}</Label>
              <Radio value="mine">
                <small>{t('yours')}</small>
                {words.mine}
              </Radio>
              <Radio value="theirs">
                <small>{t('theirs')}</small>
                {words.theirs}
              </Radio>
            </Choices>
          );
        })}
        <Row>
          <MainButton onPress={() => onChoose([...chosen])}>{t('saveThese')}</MainButton>
        </Row>
      </Notice>
    </div>
  );
}
