import { FileInput } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { useCalendarsQuery, useHouseQuery, useWatchQuery, useWindowsQuery } from '../../api/zonalApi';
import { NOTHING_WATCHED } from '@zonal/core/glass';
import type { Calendar } from '@zonal/core/api';
import { inFull } from '../../rehearsal/inFull';
import { rehearsedWindow } from '@zonal/core/glass';
import { Button, MainButton } from '../../ui/Button';
import { SelectOne } from '../../ui/Choice';
import { Field } from '../../ui/Field';
import { ProgressBar } from '../../ui/ProgressBar';
import { Faded, Row, Stack } from '../../ui/layout';
import { Notice } from '../../ui/Notice';
import { Sheet } from '../../ui/Sheet';
import { plateFrom, plateLook } from '../plateFrom';
import { ColumnMatch } from './ColumnMatch';
import { PlanPreview } from './PlanPreview';
import { useFiles } from './useFiles';
import { t } from '../../texts/inside';

const MAX_NAME_LETTERS = 120;

/** The value of the choice for a calendar that the import makes. */
const NEW_CALENDAR = '';

interface ImportSheetProps {
  /** Calendars in which the person may write. */
  readonly calendars: readonly Calendar[];
  readonly onClose: () => void;
}

/**
 * Imports a file into a calendar, or into a new one that gets the file's own name unless another is typed: first what would come
 * of it, entry by entry, then the step itself. Nothing is saved before that step.
 */
export function ImportSheet({ calendars, onClose }: ImportSheetProps) {
  const [calendarId, setCalendarId] = useState(calendars[0]?.id ?? NEW_CALENDAR);
  const [file, setFile] = useState<File | null>(null);
  const [typedName, setTypedName] = useState<string | null>(null);
  const files = useFiles();
  const { state, problem } = files;
  const { data: house } = useHouseQuery();
  const { data: allCalendars = [] } = useCalendarsQuery();
  const { data: watch } = useWatchQuery();
  const { data: all = [] } = useWindowsQuery();
  const windows = inFull(all, calendars).filter(
    (w) => !w.closedAt && w.sources.some((s) => s.calendarId === calendarId),
  );
  const calendar = calendars.find((c) => c.id === calendarId);
  const zone = house?.zone ?? 'UTC';
  const ownName = (state.step === 'plan' && state.name) || (file?.name.replace(/\.\w+$/, '') ?? '');
  const newName = (typedName ?? ownName).slice(0, MAX_NAME_LETTERS);
  const name = calendar?.name ?? newName.trim();
  const label = t('importedLabel', { file: file?.name ?? t('aFile'), calendar: name });
  const open = (chosen: File, id: string) => {
    setFile(chosen);
    setTypedName(null);
    files.open(chosen, id || null, calendars.find((c) => c.id === id)?.zone ?? zone);
  };
  const apply = (take: readonly number[]) => {
    if (calendar) return files.apply(label, take);
    const plates = allCalendars.map((c) => c.plate);
    const plate = plateFrom(name, plates);
    files.apply(label, take, { name, description: '', zone, plate, ...plateLook(allCalendars) });
  };

  return (
    <Sheet title={t('importFile')} onClose={onClose} wide>
      <Stack>
        <p>{t('importHint')}</p>
        <SelectOne
          label={t('intoCalendar')}
          value={calendarId}
          isDisabled={state.step === 'working'}
          options={[
            ...calendars.map((c) => ({ value: c.id, text: `${c.plate} ${c.name}` })),
            { value: NEW_CALENDAR, text: t('aNewCalendar') },
          ]}
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
            <Button isDisabled={state.step === 'working' || !house}>
              <FileInput aria-hidden="true" /> {t('chooseFile')}
            </Button>
          </FileTrigger>
          <span>{file?.name}</span>
        </Row>
        {problem && <Notice>{problem}</Notice>}
        {state.step === 'working' && (
          <div role="status">
            <p>{state.what} …</p>
            <ProgressBar
              aria-label={state.what}
              max={1}
              {...(state.share > 0 ? { value: state.share } : {})}
            />
            <Button onPress={files.stop}>{t('stop')}</Button>
          </div>
        )}
        {state.step === 'stopped' && <p role="status">{t('importStopped')}</p>}
        {state.step === 'table' && <ColumnMatch table={state} onGo={files.map} />}
        {state.step === 'plan' && !calendar && (
          <Field
            label={t('newCalendarName')}
            value={newName}
            onChange={setTypedName}
            isRequired
            maxLength={MAX_NAME_LETTERS}
            help={t('newCalendarHelp')}
          />
        )}
        {state.step === 'plan' && (
          <PlanPreview
            plan={state}
            calendar={name}
            isBlocked={!name}
            onApply={apply}
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
              <strong>{t('entriesImported', { count: state.size, calendar: name })}</strong>
            </p>
            <Faded>{calendar ? t('oneUndo') : t('undoEntriesOnly')}</Faded>
            <Row>
              <MainButton onPress={onClose}>{t('done')}</MainButton>
            </Row>
          </>
        )}
      </Stack>
    </Sheet>
  );
}
