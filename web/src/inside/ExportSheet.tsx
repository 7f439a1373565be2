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

const FORMS: readonly { value: FileForm; text: string; help: string }[] = [
  {
    value: 'ics',
    text: 'iCalendar (.ics)',
    help: 'Everything, for any calendar program. It can be imported here again without loss.',
  },
  { value: 'json', text: 'jCal (.json)', help: 'The same as iCalendar, for programs that read JSON.' },
  {
    value: 'csv',
    text: 'Table (.csv)',
    help: 'One row an entry, for spreadsheets. Dates left out of a series are not in it.',
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
    const name = calendar?.name ?? 'Selection';
    const zone = calendar?.zone ?? calendars[0]!.zone;
    files.take(
      { form, name, zone, now: Date.now(), ...(calendar ? { calendarId: calendar.id } : { entries }) },
      `${plainName(name, 'calendar')}.${form}`,
    );
  };

  return (
    <Sheet title="Take entries out as a file" onClose={onClose}>
      <Stack>
        <Notice>
          The file holds everything that is known inside: descriptions, people, joining links and what is held
          back. It is for you and your colleagues. What outsiders get stands under Windows.
        </Notice>
        <SelectOne
          label="What"
          value={what}
          options={[
            { value: 'shown', text: `The ${entries.length} entries that are shown now` },
            ...calendars.map((c) => ({ value: c.id, text: `All of ${c.name} (${c.entryCount})` })),
          ]}
          onChange={setWhat}
        />
        <div>
          <ChoiceStrip
            label="Form"
            value={form}
            options={FORMS.map(({ value, text }) => ({ value, text }))}
            onChange={setForm}
          />
          <Faded>{FORMS.find((f) => f.value === form)!.help}</Faded>
        </div>
        {files.problem && <Notice>{files.problem}</Notice>}
        {files.state.step === 'taken' && <p role="status">{files.state.name} was written.</p>}
        <MainButton
          isDisabled={files.state.step === 'working' || (!calendar && !entries.length)}
          onPress={take}
        >
          Write the file
        </MainButton>
      </Stack>
    </Sheet>
  );
}
