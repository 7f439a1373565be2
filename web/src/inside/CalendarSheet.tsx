import { COLOURS, PLATE_PATTERNS, PLATE_SHAPES } from '@zonal/core/glass';
import { zoneWithOffset, zoneText } from '@zonal/core/forms';
import { may } from '@zonal/core/rights';
import { zoneNamed } from '@zonal/core/zones';
import { Archive, ArchiveRestore, Clock, Trash2, Users } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import {
  problemOf,
  useArchiveCalendarMutation,
  useHouseQuery,
  useSaveCalendarMutation,
} from '../api/zonalApi';
import type { ApiProblem, Calendar } from '@zonal/core/api';
import { Button, MainButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { DiscardDialog } from '../ui/DiscardDialog';
import { Faded, Pair, Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Refusal } from '../ui/Refusal';
import { Plate } from '../ui/Plate';
import { Sheet } from '../ui/Sheet';
import { useChanged } from '../ui/Unsaved';
import { ZoneSelect } from '../ui/ZoneSelect';
import { useNow } from '../ui/useNow';
import { CalendarGlance } from './CalendarGlance';
import { DeleteCalendar } from './DeleteCalendar';
import { PeopleSheet } from './PeopleSheet';
import { plateFrom, plateLook } from './plateFrom';
import { ZoneMove } from './ZoneMove';
import { t } from '../texts/inside';
import { plateShapeName, platePatternName, colourName } from '../texts/glassWords';

const OWN_ZONE = zoneNamed(Intl.DateTimeFormat().resolvedOptions().timeZone) ?? 'UTC';

/** Returns degrees written as `44.65`, null for an empty text, or undefined for anything else. */
function degrees(text: string, most: number): number | null | undefined {
  if (!text.trim()) return null;
  const n = Number(text.replace(',', '.').replace('−', '-'));
  return Number.isFinite(n) && Math.abs(n) <= most ? n : undefined;
}

/** Returns what is wrong with the degrees of a home place, by field; nothing if both or none are given. */
function degreesErrors(form: { readonly latitude: string; readonly longitude: string }) {
  const [latitude, longitude] = [degrees(form.latitude, 90), degrees(form.longitude, 180)];
  return {
    ...(latitude === undefined ? { latitude: t('latitudeInvalid') } : {}),
    ...(longitude === undefined ? { longitude: t('longitudeInvalid') } : {}),
    ...(latitude === null && typeof longitude === 'number' ? { latitude: t('missing') } : {}),
    ...(longitude === null && typeof latitude === 'number' ? { longitude: t('missing') } : {}),
  };
}

const DEGREES_WRONG: ApiProblem = {
  code: 'input-invalid',
  message: t('degreesInvalid'),
  details: {},
};

interface CalendarSheetProps {
  calendar: Calendar | null;
  calendars: readonly Calendar[];
  onClose: () => void;
}

/** Sheets that take the place of this one. */
type More = 'delete' | 'zone' | 'people';

/** Makes a calendar, or changes one. */
export function CalendarSheet({ calendar, calendars, onClose }: CalendarSheetProps) {
  const { data: house, isLoading: unknown } = useHouseQuery();
  const [form, setForm] = useState(() => ({
    name: calendar?.name ?? '',
    description: calendar?.description ?? '',
    /** Null until one is chosen: the house may not be known yet when the sheet opens. */
    zone: calendar?.zone ?? null,
    plate: calendar?.plate ?? '',
    place: calendar?.place ?? '',
    latitude: calendar?.latitude?.toString() ?? '',
    longitude: calendar?.longitude?.toString() ?? '',
    ...(calendar
      ? { colour: calendar.colour, shape: calendar.shape, pattern: calendar.pattern }
      : plateLook(calendars)),
  }));
  const [save, saving] = useSaveCalendarMutation();
  const [archive, archiving] = useArchiveCalendarMutation();
  const [more, setMore] = useState<More | null>(null);
  /** What was asked for while the form held changes. */
  const [wanted, setWanted] = useState<More | null>(null);
  const [degreesWrong, setDegreesWrong] = useState(false);
  const now = useNow();
  const isChanged = useChanged(form);
  const open = (part: More) => (isChanged ? setWanted(part) : setMore(part));
  const set = (part: Partial<typeof form>) => {
    setForm((f) => ({ ...f, ...part }));
    setDegreesWrong(false);
  };
  const letters =
    form.plate ||
    plateFrom(
      form.name,
      calendars.filter((c) => c !== calendar).map((c) => c.plate),
    );
  const problem = degreesWrong ? DEGREES_WRONG : problemOf(saving.error ?? archiving.error);
  const errors = degreesWrong ? degreesErrors(form) : {};
  const zone = form.zone ?? (house?.name ? house.zone : OWN_ZONE);
  const other = house?.name && zone !== house.zone;
  // It was opened before what was written just now was counted.
  const filled = (calendars.find((c) => c.id === calendar?.id)?.entryCount ?? 0) > 0;

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (Object.keys(degreesErrors(form)).length) return setDegreesWrong(true);
    const body = {
      ...form,
      zone,
      name: form.name.trim(),
      place: form.place.trim(),
      plate: letters,
      latitude: degrees(form.latitude, 90) ?? null,
      longitude: degrees(form.longitude, 180) ?? null,
    };
    const result = await save(
      calendar ? { id: calendar.id, body: { ...body, version: calendar.version } } : { body },
    );
    if (!result.error) onClose();
  };

  if (calendar && more === 'zone') return <ZoneMove calendar={calendar} onClose={onClose} />;
  if (calendar && more === 'delete') return <DeleteCalendar calendar={calendar} onClose={onClose} />;

  if (calendar && more === 'people') return <PeopleSheet calendar={calendar} onClose={onClose} />;
  if (calendar && !may('manage', calendar.who))
    return <CalendarGlance calendar={calendar} onClose={onClose} />;

  return (
    <Sheet title={calendar ? calendar.name : t('newCalendar')} onClose={onClose} isChanged={isChanged}>
      <form onSubmit={(e) => void submit(e)}>
        <Stack>
          {calendar && (
            <Row>
              <Button onPress={() => open('people')}>
                <Users aria-hidden="true" /> {t('itsPeople')}
              </Button>
              <Faded>{t('itsPeopleHint')}</Faded>
            </Row>
          )}
          <Field
            label={t('name')}
            value={form.name}
            onChange={(name) => set({ name })}
            isRequired
            autoFocus
            maxLength={120}
          />
          <Field
            label={t('purpose')}
            value={form.description}
            onChange={(description) => set({ description })}
            lines
          />
          {filled ? (
            <div>
              <Row>
                <span>
                  {t.rich('zoneIsStrong', {
                    zone: zoneWithOffset(zone, now),
                    strong: (text) => <strong>{text}</strong>,
                  })}
                </span>
                <Button onPress={() => open('zone')}>
                  <Clock aria-hidden="true" /> {t('changeZone')}
                </Button>
              </Row>
              <Faded>{t('changeZoneHint')}</Faded>
            </div>
          ) : (
            <ZoneSelect label={t('timeZone')} value={zone} onChange={(chosen) => set({ zone: chosen })} />
          )}
          {other && (
            <Notice>{t('otherZoneHint', { house: zoneText(house.zone), own: zoneText(zone) })}</Notice>
          )}
          <Pair>
            <Field
              label={t('plateField')}
              value={form.plate}
              onChange={(text) => set({ plate: text.toUpperCase().replace(/[^A-Z0-9]/g, '') })}
              maxLength={3}
              help={t('plateHelp', { letters })}
            />
            <SelectOne
              label={t('outline')}
              value={form.shape}
              options={PLATE_SHAPES.map((s) => ({ value: s, text: plateShapeName(s) }))}
              onChange={(shape) => set({ shape })}
            />
            <SelectOne
              label={t('pattern')}
              value={form.pattern}
              options={PLATE_PATTERNS.map((p) => ({ value: p, text: platePatternName(p) }))}
              onChange={(pattern) => set({ pattern })}
            />
            <SelectOne
              label={t('colour')}
              value={form.colour}
              options={COLOURS.map((c) => ({ value: c, text: colourName(c) }))}
              onChange={(colour) => set({ colour })}
            />
          </Pair>
          <Row>
            <span>{t('itsPlate')}</span>
            <Plate plate={letters} colour={form.colour} shape={form.shape} pattern={form.pattern} />
          </Row>
          <Field
            label={t('homePlace')}
            value={form.place}
            onChange={(place) => set({ place })}
            maxLength={200}
            help={t('homePlaceHelp')}
          />
          <Pair>
            <Field
              label={t('latitude')}
              inputMode="decimal"
              value={form.latitude}
              onChange={(latitude) => set({ latitude })}
              error={errors.latitude}
            />
            <Field
              label={t('longitude')}
              inputMode="decimal"
              value={form.longitude}
              onChange={(longitude) => set({ longitude })}
              error={errors.longitude}
            />
          </Pair>
          <Refusal problem={problem} />
          <Row>
            <MainButton type="submit" isDisabled={saving.isLoading || unknown || !form.name.trim()}>
              {calendar ? t('save') : t('createCalendar')}
            </MainButton>
            {calendar && (
              <>
                <Button
                  onPress={() =>
                    void archive({ id: calendar.id, archived: !calendar.archivedAt }).then((r) => {
                      if (!r.error) onClose();
                    })
                  }
                >
                  {calendar.archivedAt ? (
                    <ArchiveRestore aria-hidden="true" />
                  ) : (
                    <Archive aria-hidden="true" />
                  )}{' '}
                  {calendar.archivedAt ? t('bringBack') : t('putAway')}
                </Button>
                <Button onPress={() => open('delete')}>
                  <Trash2 aria-hidden="true" /> {t('delete')}
                </Button>
              </>
            )}
          </Row>
          {calendar && <Faded>{t('putAwayHint')}</Faded>}
        </Stack>
      </form>
      {wanted && <DiscardDialog onKeep={() => setWanted(null)} onDiscard={() => setMore(wanted)} />}
    </Sheet>
  );
}
