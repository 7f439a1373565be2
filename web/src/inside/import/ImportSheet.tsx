import { FileInput } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { useWatchQuery, useWindowsQuery } from '../../api/zonalApi';
import { NOTHING_WATCHED } from '@zonal/core/glass';
import type { Calendar } from '@zonal/core/api';
import { inFull } from '../../rehearsal/inFull';
import { rehearsedWindow } from '@zonal/core/glass';
import { Button, MainButton } from '../../ui/Button';
import { SelectOne } from '../../ui/Choice';
import { Faded, Row, Stack } from '../../ui/layout';
import { Notice } from '../../ui/Notice';
import { Sheet } from '../../ui/Sheet';
import { ColumnMatch } from './ColumnMatch';
import { PlanPreview } from './PlanPreview';
import { useFiles } from './useFiles';

const Progress = styled.progress`
  width: 100%;
  accent-color: var(--ink);
`;

/** Brings a file into a calendar: first what would come of it, entry by entry, then the step itself. */
export function ImportSheet({ calendars, onClose }: { calendars: readonly Calendar[]; onClose: () => void }) {
  const [calendarId, setCalendarId] = useState(calendars[0]!.id);
  const [file, setFile] = useState<File | null>(null);
  const files = useFiles();
  const { state, problem } = files;
  const { data: watch } = useWatchQuery();
  const { data: all = [] } = useWindowsQuery();
  const windows = inFull(all, calendars).filter(
    (w) => !w.closedAt && w.sources.some((s) => s.calendarId === calendarId),
  );
  const calendar = calendars.find((c) => c.id === calendarId)!;
  const label = `Brought ${file?.name ?? 'a file'} into ${calendar.name}`;
  const open = (chosen: File, id: string) => {
    setFile(chosen);
    files.open(chosen, id, calendars.find((c) => c.id === id)!.zone);
  };

  return (
    <Sheet title="Bring in a file" onClose={onClose} wide>
      <Stack>
        <p>
          An iCalendar file (.ics) or a table (.csv) from any program, up to 20 MB or 20,000 entries. First
          you see what would come of it; nothing is saved until you say so, and then the whole file or
          nothing.
        </p>
        <SelectOne
          label="Into calendar"
          value={calendarId}
          isDisabled={state.step === 'working'}
          options={calendars.map((c) => ({ value: c.id, text: `${c.plate} ${c.name}` }))}
          onChange={(id) => {
            setCalendarId(id);
            if (file && state.step !== 'applied') open(file, id);
            else files.reset();
          }}
        />
        <Row>
          <FileTrigger
            acceptedFileTypes={['.ics', '.csv', 'text/calendar', 'text/csv']}
            onSelect={(list) => list?.[0] && open(list[0], calendarId)}
          >
            <Button isDisabled={state.step === 'working'}>
              <FileInput aria-hidden="true" /> Choose a file
            </Button>
          </FileTrigger>
          <span>{file?.name}</span>
        </Row>
        {problem && <Notice>{problem}</Notice>}
        {state.step === 'working' && (
          <div role="status">
            <p>{state.what} …</p>
            <Progress aria-label={state.what} max={1} {...(state.share > 0 ? { value: state.share } : {})} />
            <Button onPress={files.stop}>Stop</Button>
          </div>
        )}
        {state.step === 'stopped' && <p role="status">Stopped. Nothing was brought in.</p>}
        {state.step === 'table' && <ColumnMatch table={state} onGo={files.map} />}
        {state.step === 'plan' && (
          <PlanPreview
            plan={state}
            calendar={calendar}
            onApply={(take) => files.apply(label, take)}
            outside={files.outside}
            onRehearse={
              windows.length
                ? (take, goOn) =>
                    files.rehearse(
                      windows.map((w) => rehearsedWindow(w, w, Date.now())),
                      watch ?? NOTHING_WATCHED,
                      take,
                      goOn ? label : null,
                    )
                : null
            }
            onForget={files.forgetOutside}
            onClose={onClose}
          />
        )}
        {state.step === 'applied' && (
          <>
            <p role="status">
              <strong>
                {state.size} {state.size === 1 ? 'entry was' : 'entries were'} brought into {calendar.name}.
              </strong>
            </p>
            <Faded>One Undo takes all of it back.</Faded>
            <Row>
              <MainButton onPress={onClose}>Done</MainButton>
            </Row>
          </>
        )}
      </Stack>
    </Sheet>
  );
}
