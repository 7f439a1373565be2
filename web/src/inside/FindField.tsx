import { FIND_IN, wallOf, type Entry, type FindIn } from '@zonal/core/entries';
import { dayOfWall, type Day } from '@zonal/core/zones';
import { Search, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { useFindQuery } from '../api/zonalApi';
import { Button, QuietButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Hanging } from '../ui/Hanging';
import { Faded } from '../ui/layout';
import { t } from '../texts/inside';
import { dayText } from '../texts/formWords';

const Box = styled.search`
  position: relative;
  min-width: 0;
  > svg {
    position: absolute;
    right: 0.5rem;
    top: 0.55rem;
    width: 1rem;
    height: 1rem;
    color: var(--faded);
    pointer-events: none;
  }
`;

/** Stays while something is looked for; on a phone it would hide what was found. */
const Results = styled(Hanging)`
  @media (max-width: 44rem) {
    position: static;
    max-width: 100%;
  }
`;

const Found = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.6rem;
  align-items: center;
  max-width: 30rem;
  button {
    min-height: 1.6rem;
    padding: 0.05rem 0.5rem;
    font-size: 0.82rem;
  }
`;

const WHERE: Record<FindIn, string> = {
  text: t('findInAll'),
  label: t('findInLabels'),
  person: t('findInPeople'),
  property: t('findInProperties'),
};

interface FindFieldProps {
  query: { readonly text: string; readonly in: FindIn };
  onChange: (query: { text: string; in: FindIn }) => void;
  /** Number of entries found in the days shown. */
  here: number;
  onGo: (day: Day) => void;
}

/** Finds entries: the views show only what matches, and what lies on other days is listed to go to. */
export function FindField({ query, onChange, here, onGo }: FindFieldProps) {
  const [text, setText] = useState(query.text);
  const { text: asked, in: where } = query;
  useEffect(() => {
    // Typing goes on while the search waits.
    const timer = setTimeout(() => text !== asked && onChange({ text, in: where }), 250);
    return () => clearTimeout(timer);
  }, [text, asked, where, onChange]);
  const { data } = useFindQuery({ text: asked, in: where }, { skip: !asked.trim() });
  return (
    <Box>
      <Field hideLabel label={t('find')} value={text} onChange={setText} placeholder={t('findHint')} />
      {!text && <Search aria-hidden="true" />}
      {text && (
        <Results $side="right">
          <Found>
            <SelectOne
              hideLabel
              label={t('findWhere')}
              value={where}
              options={FIND_IN.map((f) => ({ value: f, text: WHERE[f] }))}
              onChange={(next) => onChange({ text, in: next })}
            />
            <Faded role="status">
              {asked.trim() &&
                (data ? t('foundCount', { here, total: data.total }) : t('findingCount', { here }))}
            </Faded>
            <QuietButton
              aria-label={t('clearSearch')}
              onPress={() => {
                setText('');
                onChange({ text: '', in: where });
              }}
            >
              <X aria-hidden="true" />
            </QuietButton>
            {asked.trim() && data?.entries.slice(0, 4).map((e) => <Hit key={e.id} entry={e} onGo={onGo} />)}
          </Found>
        </Results>
      )}
    </Box>
  );
}

function Hit({ entry, onGo }: { entry: Entry; onGo: (day: Day) => void }) {
  const day = dayOfWall(wallOf(entry.start));
  return (
    <Button onPress={() => onGo(day)}>
      {entry.title.slice(0, 40) || t('untitled')}, {dayText(day)}
    </Button>
  );
}
