import { COLOURS, type Colour } from '@zonal/core/glass';
import { zoneNamed } from '@zonal/core/zones';
import { Trash2 } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import { problemOf, useDeleteCalendarMutation, useSaveCalendarMutation } from '../api/zonalApi';
import type { Calendar } from '../api/types';
import { Button, MainButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Pair, Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Plate } from '../ui/Plate';
import { Sheet } from '../ui/Sheet';
import { ZoneSelect } from '../ui/ZoneSelect';
import { plateFrom } from './plateFrom';

const OWN_ZONE = zoneNamed(Intl.DateTimeFormat().resolvedOptions().timeZone) ?? 'UTC';

/** Makes a calendar, or changes one. */
export function CalendarSheet({ calendar, onClose }: { calendar: Calendar | null; onClose: () => void }) {
  const [name, setName] = useState(calendar?.name ?? '');
  const [description, setDescription] = useState(calendar?.description ?? '');
  const [zone, setZone] = useState(calendar?.zone ?? OWN_ZONE);
  const [plate, setPlate] = useState(calendar?.plate ?? '');
  const [colour, setColour] = useState<Colour>(calendar?.colour ?? 'steelblue');
  const [save, saving] = useSaveCalendarMutation();
  const [remove, removing] = useDeleteCalendarMutation();
  const [sure, setSure] = useState(false);
  const letters = plate || plateFrom(name);
  const problem = problemOf(saving.error ?? removing.error);

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const body = { name: name.trim(), description, zone, plate: letters, colour };
    const result = await save(
      calendar ? { id: calendar.id, body: { ...body, version: calendar.version } } : { body },
    );
    if (!result.error) onClose();
  };

  return (
    <Sheet title={calendar ? calendar.name : 'New calendar'} onClose={onClose}>
      <form onSubmit={(e) => void submit(e)}>
        <Stack>
          {problem && <Notice>{problem.message}</Notice>}
          <Field label="Name" value={name} onChange={setName} isRequired autoFocus maxLength={120} />
          <Field label="What it is for" value={description} onChange={setDescription} lines />
          <ZoneSelect label="Time zone" value={zone} onChange={setZone} />
          <Pair>
            <Field
              label="Code plate: two or three letters"
              value={plate}
              onChange={(text) => setPlate(text.toUpperCase().replace(/[^A-Z0-9]/g, ''))}
              maxLength={3}
              help={`Left empty: ${letters}`}
            />
            <div>
              <SelectOne
                label="Colour and pattern"
                value={colour}
                options={COLOURS.map((c) => ({ value: c, text: c }))}
                onChange={setColour}
              />
              <Plate plate={letters} colour={colour} />
            </div>
          </Pair>
          <Row>
            <MainButton type="submit" isDisabled={saving.isLoading || !name.trim()}>
              {calendar ? 'Save' : 'Make the calendar'}
            </MainButton>
            {calendar && !sure && (
              <Button onPress={() => setSure(true)}>
                <Trash2 aria-hidden="true" /> Delete
              </Button>
            )}
          </Row>
          {calendar && sure && (
            <Notice>
              <p>
                This deletes the calendar with its {calendar.entryCount} entries, for everybody. It cannot be
                taken back.
              </p>
              <Row>
                <Button
                  onPress={() =>
                    void remove(calendar.id).then((result) => {
                      if (!result.error) onClose();
                    })
                  }
                >
                  Delete “{calendar.name}”
                </Button>
                <Button onPress={() => setSure(false)}>Keep it</Button>
              </Row>
            </Notice>
          )}
        </Stack>
      </form>
    </Sheet>
  );
}
