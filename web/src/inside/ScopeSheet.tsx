import { SCOPES, type Entry, type Scope, type When } from '@zonal/core/entries';
import { useState } from 'react';
import type { Calendar } from '@zonal/core/api';
import { Button, MainButton } from '../ui/Button';
import { ChoiceStrip } from '../ui/Choice';
import { Row, Stack } from '../ui/layout';
import { Sheet } from '../ui/Sheet';
import { useNow } from '../ui/useNow';
import { effectWords } from './entryEdit';
import { t } from '../texts/inside';

const SCOPE_WORDS: Record<Scope, string> = {
  this: t('thisDate'),
  onward: t('thisAndLater'),
  all: t('allDates'),
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
    <Sheet title={`${what}: ${entry.title || t('untitled')}`} onClose={onClose}>
      <Stack>
        <p>{t('whichDates')}</p>
        <ScopeStrip value={scope} onChange={setScope} />
        <p role="status">{effectWords(entry, slot, scope, calendar, now)}</p>
        <Row>
          <MainButton autoFocus onPress={() => onChoose(scope)}>
            {t('scopeAction', { action: what, scope: SCOPE_WORDS[scope] })}
          </MainButton>
          <Button onPress={onClose}>{t('cancel')}</Button>
        </Row>
      </Stack>
    </Sheet>
  );
}

export function ScopeStrip({ value, onChange }: { value: Scope; onChange: (scope: Scope) => void }) {
  return (
    <ChoiceStrip
      label={t('applyTo')}
      value={value}
      options={SCOPES.map((s) => ({ value: s, text: SCOPE_WORDS[s] }))}
      onChange={onChange}
    />
  );
}
