import { plainName } from '@zonal/core/forms';
import { useState } from 'react';
import type { Calendar } from '@zonal/core/api';
import { MainButton } from '../ui/Button';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { Faded, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Sheet } from '../ui/Sheet';
import type { DeskItem } from './deskDays';
import { useFiles } from './import/useFiles';
import type { FileForm } from './import/fileTypes';
import { t } from '../texts/inside';

const FORMS: readonly { value: FileForm; text: string; help: string }[] = [
  {
    value: 'ics',
    text: t('formIcs'),
    help: t('formIcsSay'),
  },
  { value: 'json', text: t('formJcal'), help: t('formJcalSay') },
  {
    value: 'csv',
    text: t('formCsv'),
    help: t('formCsvSay'),
  },
];

interface ExportSheetProps {
  calendars: readonly Calendar[];
  items: readonly DeskItem[];
  onClose: () => void;
}

/** Takes a calendar, or the entries that are shown now, out as a file. */
export function ExportSheet({ calendars, items, onClose }: ExportSheetProps) {
  const [what, setWhat] = useState('shown');
  const [form, setForm] = useState<FileForm>('ics');
  const files = useFiles();
  const entries = [...new Map(items.map((i) => [i.entry.id, i.entry])).values()];
  const calendar = calendars.find((c) => c.id === what);

  const take = () => {
    const name = calendar?.name ?? t('selection');
    const zone = calendar?.zone ?? calendars[0]!.zone;
    files.take(
      { form, name, zone, now: Date.now(), ...(calendar ? { calendarId: calendar.id } : { entries }) },
      `${plainName(name, 'calendar')}.${form}`,
    );
  };

  return (
    <Sheet title={t('exportTitle')} onClose={onClose}>
      <Stack>
        <Notice>{t('exportHint')}</Notice>
        <SelectOne
          label={t('exportWhat')}
          value={what}
          options={[
            { value: 'shown', text: t('exportShown', { count: entries.length }) },
            ...calendars.map((c) => ({
              value: c.id,
              text: t('exportAll', { name: c.name, count: c.entryCount }),
            })),
          ]}
          onChange={setWhat}
        />
        <div>
          <ChoiceStrip
            label={t('exportForm')}
            value={form}
            options={FORMS.map(({ value, text }) => ({ value, text }))}
            onChange={setForm}
          />
          <Faded>{FORMS.find((f) => f.value === form)!.help}</Faded>
        </div>
        {files.problem && <Notice>{files.problem}</Notice>}
        {files.state.step === 'taken' && <p role="status">{t('exported', { name: files.state.name })}</p>}
        <MainButton
          isDisabled={files.state.step === 'working' || (!calendar && !entries.length)}
          onPress={take}
        >
          {t('exportNow')}
        </MainButton>
      </Stack>
    </Sheet>
  );
}
