import type { Sheet } from '@zonal/core/api';
import { LANGUAGES, type Language } from '@zonal/core/forms';
import { Mail, RefreshCw } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { problemOf, useTurnSheetMutation } from '../api/zonalApi';
import { Button } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { CopyButton } from '../ui/CopyButton';
import { Faded, OutsideBox, Row } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { LOCALE } from '../texts/language';
import { t } from '../texts/outside';

const Box = styled(OutsideBox)`
  code {
    overflow-wrap: anywhere;
  }
`;

const Text = styled.textarea`
  width: 100%;
  height: 12rem;
  resize: vertical;
  border: 1px solid var(--line);
  background: var(--sheet);
  padding: 0.5rem;
  font-size: 0.85rem;
`;

const NAMES = new Intl.DisplayNames([LOCALE], { type: 'language' });

interface HandOutProps {
  sheet: Sheet;
  /** Whether something is written that is not kept yet. */
  changed: boolean;
  onTurned: (sheet: Sheet) => void;
}

/** How a sheet is handed out: its address, a file, the text of a mail. */
export function HandOut({ sheet, changed, onTurned }: HandOutProps) {
  const [language, setLanguage] = useState<Language>('en');
  const [mail, setMail] = useState<string | null>(null);
  const [trouble, setTrouble] = useState('');
  const [turn, turning] = useTurnSheetMutation();
  const problem = problemOf(turning.error);
  const { pathname } = new URL(sheet.address);
  if (sheet.withdrawnAt) return <Notice>{t('sheetWithdrawn')}</Notice>;
  const write = async (to: Language) => {
    setLanguage(to);
    setTrouble('');
    const answer = await fetch(`${pathname}.txt?lang=${to}`).catch(() => null);
    if (answer?.ok) setMail(await answer.text());
    else setTrouble(t('textNotFetched'));
  };
  return (
    <Box aria-labelledby="hand-out">
      <h2 id="hand-out">{t('handOut')}</h2>
      {changed && <Faded>{t('unsavedNotIn')}</Faded>}
      <code>{sheet.address}</code>
      <Row>
        <CopyButton what={t('sheetAddress')} text={sheet.address} />
        <a href={pathname} target="_blank" rel="noreferrer">
          {t('viewSheet')}
        </a>
        <a href={`${pathname}.csv`} download>
          CSV
        </a>
        <a href={`${pathname}.json`} download>
          JSON
        </a>
        <a href={`${pathname}.opml`} download>
          OPML
        </a>
      </Row>
      <Row>
        <SelectOne
          label={t('mailIn')}
          value={language}
          options={LANGUAGES.map((l) => ({ value: l, text: NAMES.of(l)! }))}
          onChange={(to) => (mail === null ? setLanguage(to) : void write(to))}
        />
        <Button onPress={() => void write(language)}>
          <Mail aria-hidden="true" /> {t('writeMail')}
        </Button>
        {mail !== null && <CopyButton what={t('mailText')} text={mail} />}
      </Row>
      {trouble && <Notice>{trouble}</Notice>}
      {mail !== null && <Text readOnly aria-label={t('textOfMail')} value={mail} />}
      {problem && <ProblemNotice problem={problem} />}
      <Row>
        <Button
          isDisabled={turning.isLoading}
          onPress={() => {
            setMail(null);
            void turn(sheet.id).then(({ data }) => data && onTurned(data));
          }}
        >
          <RefreshCw aria-hidden="true" /> {t('replaceAddress')}
        </Button>
        <Faded>{t('replaceAddressHint')}</Faded>
      </Row>
    </Box>
  );
}
