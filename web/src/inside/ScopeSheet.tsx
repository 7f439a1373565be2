import { SCOPES, type Entry, type Scope, type When } from '@zonal/core/entries';
import { useState } from 'react';
import type { Calendar } from '@zonal/core/api';
import { Button, MainButton } from '../ui/Button';
import { ChoiceStrip } from '../ui/Choice';
import { Row, Stack } from '../ui/layout';
import { Sheet } from '../ui/Sheet';
import { useNow } from '../ui/useNow';
import { effectWords } from './entryEdit';

const SCOPE_WORDS: Record<Scope, string> = {
  this: 'Only this date',
  onward: 'From here on',
  all: 'All dates',
};

interface ScopeSheetProps {
  /** What is to be done, such as “Move”. */
  what: string;
  entry: Entry;
  slot: When;
  calendar: Calendar;
  onChoose: (scope: Scope) => void;
  onClose: () => void;
}

/** Asks which dates of a series are meant, and says first what each answer changes. */
export function ScopeSheet({ what, entry, slot, calendar, onChoose, onClose }: ScopeSheetProps) {
  const [scope, setScope] = useState<Scope>('this');
  const now = useNow();
  return (
    <Sheet title={`${what}: ${entry.title || 'Untitled'}`} onClose={onClose}>
      <Stack>
        <p>This entry recurs. Which dates do you mean?</p>
        <ScopeStrip value={scope} onChange={setScope} />
        <p role="status">{effectWords(entry, slot, scope, calendar, now)}</p>
        <Row>
          <MainButton autoFocus onPress={() => onChoose(scope)}>
            {what} {SCOPE_WORDS[scope].toLowerCase()}
          </MainButton>
          <Button onPress={onClose}>Leave it as it is</Button>
        </Row>
      </Stack>
    </Sheet>
  );
}

export function ScopeStrip({ value, onChange }: { value: Scope; onChange: (scope: Scope) => void }) {
  return (
    <ChoiceStrip
      label="Dates meant"
      value={value}
      options={SCOPES.map((s) => ({ value: s, text: SCOPE_WORDS[s] }))}
      onChange={onChange}
    />
  );
}
