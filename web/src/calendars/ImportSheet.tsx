import { FileInput } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { problemOf, useImportFileMutation } from '../api/zonalApi';
import type { Calendar, ImportReport } from '../api/types';
import { Button, MainButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { Faded, Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Sheet } from '../ui/Sheet';

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: 0.88rem;
  th {
    text-align: left;
    font-weight: 400;
    color: var(--faded);
  }
  th,
  td {
    padding: 0.25rem 0.5rem 0.25rem 0;
    border-bottom: 1px solid var(--hair);
    vertical-align: top;
  }
`;

const OUTCOME_WORDS = { read: 'read', changed: 'read, with changes', 'left-out': 'left out' } as const;

/** Brings a file into a calendar: first the report of what would happen, then the step itself. */
export function ImportSheet({ calendars, onClose }: { calendars: readonly Calendar[]; onClose: () => void }) {
  const [calendarId, setCalendarId] = useState(calendars[0]!.id);
  const [file, setFile] = useState<File | null>(null);
  const [bring, { data: report, error, isLoading, reset }] = useImportFileMutation();
  const send = (to: string, chosen: File, tryOnly: boolean) =>
    void bring({ calendarId: to, file: chosen, tryOnly });
  const calendar = calendars.find((c) => c.id === calendarId)!;

  return (
    <Sheet title="Bring in a file" onClose={onClose} wide>
      <Stack>
        <p>
          An iCalendar file (.ics) from any program. First you see what would come of it; nothing is saved
          until you say so, and then the whole file or nothing.
        </p>
        <SelectOne
          label="Into calendar"
          value={calendarId}
          options={calendars.map((c) => ({ value: c.id, text: `${c.plate} ${c.name}` }))}
          onChange={(id) => {
            setCalendarId(id);
            if (file) send(id, file, true);
            else reset();
          }}
        />
        <Row>
          <FileTrigger
            acceptedFileTypes={['.ics', 'text/calendar']}
            onSelect={(files) => {
              const chosen = files?.[0];
              if (!chosen) return;
              setFile(chosen);
              send(calendarId, chosen, true);
            }}
          >
            <Button>
              <FileInput aria-hidden="true" /> Choose a file
            </Button>
          </FileTrigger>
          <span>{file?.name}</span>
        </Row>
        {isLoading && <p role="status">Reading …</p>}
        {error && <Notice>{problemOf(error)?.message}</Notice>}
        {report && file && (
          <>
            <Report report={report} calendar={calendar} />
            {report.saved ? (
              <MainButton onPress={onClose}>Done</MainButton>
            ) : (
              <Row>
                <MainButton
                  isDisabled={isLoading || report.added + report.updated === 0}
                  onPress={() => send(calendarId, file, false)}
                >
                  Bring in {report.added + report.updated}{' '}
                  {report.added + report.updated === 1 ? 'entry' : 'entries'}
                </MainButton>
                <Button onPress={onClose}>Leave it</Button>
              </Row>
            )}
          </>
        )}
      </Stack>
    </Sheet>
  );
}

function Report({ report, calendar }: { report: ImportReport; calendar: Calendar }) {
  const { added, updated, unchanged, saved, items, notes } = report;
  const left = items.filter((i) => i.outcome === 'left-out').length;
  return (
    <Stack role="status">
      <p>
        <strong>{saved ? `Brought into ${calendar.name}:` : `For ${calendar.name}:`}</strong> {added} new,{' '}
        {updated} updated, {unchanged} the same, {left} left out.
      </p>
      {notes.map((note) => (
        <p key={note}>{note}</p>
      ))}
      <Table>
        <thead>
          <tr>
            <th scope="col">Line</th>
            <th scope="col">Entry</th>
            <th scope="col">What came of it</th>
          </tr>
        </thead>
        <tbody>
          {items.map((item) => (
            <tr key={item.line}>
              <td>{item.line}</td>
              <td>{item.title || 'Untitled'}</td>
              <td>
                {OUTCOME_WORDS[item.outcome]}
                {item.notes.map((note) => (
                  <div key={note}>
                    <Faded>{note}</Faded>
                  </div>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Stack>
  );
}
