import type { Calendar, OutwardWindow } from '@zonal/core/api';
import { WINDOW_TEMPLATES, type WindowTemplate } from '@zonal/core/glass';
import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { Button } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { ConfirmDialog } from '../ui/ConfirmDialog';
import { Faded } from '../ui/layout';
import { startingDraft, type Start, type StartingDraft } from './startingDraft';
import { t } from '../texts/glass';
import { templateWords } from '../texts/glassWords';

/** The parameter of the address of a new window that names the window to copy. */
export const COPY_PARAMETER = 'copy';

const Narrow = styled.div`
  max-width: 24rem;
`;

const TEMPLATES = Object.keys(WINDOW_TEMPLATES) as WindowTemplate[];

interface StartFromProps {
  readonly calendars: readonly Calendar[];
  readonly windows: readonly OutwardWindow[];
  /** The window of which the draft is to be a copy, by the address of the page. */
  readonly copied: OutwardWindow | null;
  /** Whether there was a draft when the page was opened. */
  readonly hadDraft: boolean;
  /** Whether there is work that a start would replace. */
  readonly hasWork: boolean;
  readonly onStart: (start: StartingDraft) => void;
}

/** Chooses what a new window starts from: nothing, a template, or another window. Asks before it replaces work. */
export function StartFrom({ calendars, windows, copied, hadDraft, hasWork, onStart }: StartFromProps) {
  const [, setParams] = useSearchParams();
  const copy = copied && `copy:${copied.id}`;
  const [chosen, setChosen] = useState(hadDraft ? 'blank' : (copy ?? 'blank'));
  const [asked, setAsked] = useState<string | null>(hadDraft ? copy : null);
  const start = (choice: string) => {
    setChosen(choice);
    setAsked(null);
    onStart(startingDraft(startOf(choice, windows), calendars));
  };
  const choose = (choice: string) => (hasWork ? setAsked(choice) : start(choice));
  // The address asks once: reloading goes on with the draft.
  useEffect(() => {
    if (copy) setParams({}, { replace: true });
  }, [copy, setParams]);
  // A discarded draft starts from nothing again.
  const value = hasWork ? chosen : 'blank';
  const purpose = value in WINDOW_TEMPLATES ? templateWords(value as WindowTemplate).purpose : '';
  return (
    <Narrow>
      <SelectOne
        label={t('startFrom')}
        value={value}
        options={[
          { value: 'blank', text: t('emptyWindow') },
          ...TEMPLATES.map((one) => ({
            value: one,
            text: t('templateNamed', { name: templateWords(one).name }),
          })),
          ...windows.map((w) => ({ value: `copy:${w.id}`, text: t('copyOf', { name: w.wording.name }) })),
        ]}
        onChange={choose}
      />
      {purpose && <Faded>{purpose}</Faded>}
      {asked !== null && (
        <ConfirmDialog
          title={t('replaceDraft')}
          onCancel={() => setAsked(null)}
          buttons={(close) => (
            <>
              <Button autoFocus onPress={() => close(() => setAsked(null))}>
                {t('keepMyDraft')}
              </Button>
              <Button onPress={() => close(() => start(asked))}>{t('replaceIt')}</Button>
            </>
          )}
        >
          <p>{t('replaceDraftHint')}</p>
        </ConfirmDialog>
      )}
    </Narrow>
  );
}

function startOf(choice: string, windows: readonly OutwardWindow[]): Start {
  if (choice in WINDOW_TEMPLATES) return { kind: 'template', template: choice as WindowTemplate };
  const window = windows.find((w) => `copy:${w.id}` === choice);
  return window ? { kind: 'copy', window } : { kind: 'blank' };
}
