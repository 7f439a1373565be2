import {
  AUDIENCES,
  CUT_FIELDS,
  SOURCE_GLASSES,
  atLeast,
  glassOfSource,
  type Audience,
  type SourceGlass,
  type SourceRule,
  type WindowInput,
} from '@zonal/core/glass';
import { Plus, X } from 'lucide-react';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import type { AllCeilings, Calendar, House, Label } from '@zonal/core/api';
import { Button, QuietButton } from '../ui/Button';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { LazyDateField } from '../ui/LazyDateField';
import { Field } from '../ui/Field';
import { GlassMark } from '../ui/GlassMark';
import { Faded, Pair, Row, Stack } from '../ui/layout';
import { Plate } from '../ui/Plate';
import { Tick } from '../ui/Tick';
import { CeilingNote } from './CeilingNote';
import { sourceOf } from './draft';
import { FilterBuilder } from './FilterBuilder';
import { isFound } from './windowSettings';
import { useFocusAdded } from '../ui/useFocusAdded';
import { t } from '../texts/glass';
import { GLASS_WORDS, partWord } from '../texts/glassWords';

const Source = styled.div`
  border-top: 1px solid var(--hair);
  padding-top: 0.6rem;
  display: grid;
  gap: 0.4rem;
  &[hidden] {
    display: none;
  }
  [role='radiogroup'] label {
    padding-inline: 0.3rem;
    gap: 0.25rem;
    font-size: 0.8rem;
  }
`;

const Picks = styled.fieldset`
  border: 1px solid var(--hair);
  margin: 0;
  padding: 0.4rem 0.6rem;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.1rem 0.6rem;
  font-size: 0.9rem;
  legend {
    font-size: 0.85rem;
    color: var(--faded);
  }
`;

const Shelf = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  button {
    width: 100%;
    justify-content: start;
    white-space: normal;
    text-align: start;
    min-height: 1.9rem;
    padding-block: 0.15rem;
  }
`;

const INCLUDED_WORDS = {
  free: t('freeEntries'),
  cancelled: t('cancelledEntries'),
  tentative: t('tentativeEntries'),
};

interface InsidePanelProps {
  calendars: readonly Calendar[];
  /** The glass with which a calendar is added. */
  startingGlass: SourceGlass;
  labels: readonly Label[];
  house: House | undefined;
  ceilings: AllCeilings | undefined;
  draft: WindowInput;
  /** Audiences of the window's keys. */
  audiences: readonly Audience[];
  gone: readonly string[];
  /** Entries that are taken, of all there are; null while that is worked out. */
  taken: { taken: number; all: number } | null;
  /** Words by which settings are looked for; empty for all. */
  search: string;
  set: (part: Partial<WindowInput>) => void;
}

/** Which calendars the window is cut from, the glass before each, and which of their entries are taken. */
export function InsidePanel(props: InsidePanelProps) {
  const { calendars, startingGlass, labels, house, ceilings, draft, audiences, gone, taken, search, set } =
    props;
  const isShown = (words: string) => isFound(search, words);
  const list = useRef<HTMLDivElement>(null);
  const focusAdded = useFocusAdded(list);
  const rest = calendars.filter((c) => !c.archivedAt && !draft.sources.some((s) => s.calendarId === c.id));
  /** The first one lends its name where the window has none yet. */
  const add = (calendar: Calendar) => {
    focusAdded();
    set({
      sources: [...draft.sources, sourceOf(calendar, startingGlass)],
      ...(draft.name.trim() || draft.sources.length
        ? {}
        : { name: calendar.name, hostZone: calendar.zone, colour: calendar.colour }),
    });
  };
  const change = (calendarId: string, part: Partial<SourceRule>) =>
    set({ sources: draft.sources.map((s) => (s.calendarId === calendarId ? { ...s, ...part } : s)) });
  return (
    <Stack>
      <h2 id="inside">{t('insideCalendars')}</h2>
      {!draft.sources.length && calendars.length > 0 && <Faded>{t('firstCalendarHint')}</Faded>}
      {isShown(t('searchCalendars')) && (
        <Stack ref={list}>
          {draft.sources.map((source) => (
            <SourceEditor
              key={source.calendarId}
              source={source}
              calendar={calendars.find((c) => c.id === source.calendarId)}
              ceilings={ceilings}
              audiences={audiences}
              onChange={(part) => change(source.calendarId, part)}
              onOut={() => set({ sources: draft.sources.filter((s) => s !== source) })}
            />
          ))}
        </Stack>
      )}
      {rest.length > 0 && isShown(t('searchAddCalendar')) && (
        <Source>
          <Faded>
            {t('addCalendarHint', {
              glass: GLASS_WORDS[startingGlass].word.toLowerCase(),
              plain: GLASS_WORDS[startingGlass].plain,
            })}
          </Faded>
          <Shelf>
            {rest.map((c) => (
              <li key={c.id}>
                <QuietButton aria-label={t('addCalendar', { name: c.name })} onPress={() => add(c)}>
                  <Plus aria-hidden="true" />
                  <Plate {...c} />
                  <span>{c.name}</span>
                </QuietButton>
              </li>
            ))}
          </Shelf>
        </Source>
      )}
      {!calendars.length && <Faded>{t('noCalendars')}</Faded>}
      <Source hidden={!isShown(t('searchFilter'))}>
        <h3>{t('filterTitle')}</h3>
        <FilterBuilder
          filter={draft.filter}
          gone={gone}
          calendars={calendars}
          labels={labels}
          properties={house?.properties ?? []}
          onChange={(filter) => set({ filter })}
        />
        <Faded role="status">
          {taken
            ? t('filterCount', { taken: taken.taken, all: taken.all })
            : draft.sources.length
              ? t('counting')
              : t('countLater')}
        </Faded>
        {(['free', 'cancelled', 'tentative'] as const).map((mark) => (
          <Tick
            key={mark}
            isSelected={draft.include[mark]}
            onChange={(on) => set({ include: { ...draft.include, [mark]: on } })}
          >
            {INCLUDED_WORDS[mark]}
          </Tick>
        ))}
      </Source>
      <Source hidden={!isShown(t('searchHorizon'))}>
        <h3>{t('horizonTitle')}</h3>
        <HorizonEditor draft={draft} set={set} />
      </Source>
    </Stack>
  );
}

const whole = (text: string) => Math.min(1830, Math.max(0, Math.round(Number(text) || 0)));

function HorizonEditor({ draft: { horizon }, set }: Pick<InsidePanelProps, 'draft' | 'set'>) {
  const today = new Date().toISOString().slice(0, 10);
  return (
    <>
      <SelectOne
        label={t('daysShown')}
        value={horizon.kind}
        options={[
          { value: 'rolling', text: t('rolling') },
          { value: 'fixed', text: t('fixed') },
        ]}
        onChange={(kind) =>
          set({
            horizon:
              kind === 'fixed'
                ? { kind, from: today, to: `${Number(today.slice(0, 4)) + 1}${today.slice(4)}` }
                : { kind, pastDays: 30, nextDays: 180 },
          })
        }
      />
      {horizon.kind === 'rolling' ? (
        <Pair>
          <Field
            label={t('daysBack')}
            type="number"
            value={String(horizon.pastDays)}
            onChange={(text) => set({ horizon: { ...horizon, pastDays: whole(text) } })}
          />
          <Field
            label={t('daysAhead')}
            type="number"
            value={String(horizon.nextDays)}
            onChange={(text) => set({ horizon: { ...horizon, nextDays: whole(text) } })}
          />
        </Pair>
      ) : (
        <Pair>
          <LazyDateField
            label={t('firstDay')}
            value={horizon.from}
            onChange={(from) => from && set({ horizon: { ...horizon, from } })}
          />
          <LazyDateField
            label={t('lastDay')}
            value={horizon.to}
            error={horizon.to < horizon.from ? t('beforeFirstDay') : undefined}
            onChange={(to) => to && set({ horizon: { ...horizon, to } })}
          />
        </Pair>
      )}
    </>
  );
}

interface SourceEditorProps {
  source: SourceRule;
  calendar: Calendar | undefined;
  ceilings: AllCeilings | undefined;
  audiences: readonly Audience[];
  onChange: (part: Partial<SourceRule>) => void;
  onOut: () => void;
}

function SourceEditor({ source, calendar, ceilings, audiences, onChange, onOut }: SourceEditorProps) {
  const { glass, fields } = source;
  const [naming, setNaming] = useState(false);
  const name = calendar?.name ?? t('deletedCalendar');
  const above = (ceilings?.ceilings ?? []).filter(
    (c) =>
      (c.calendarId === null || c.calendarId === source.calendarId) &&
      audiences.includes(c.audience) &&
      !atLeast(c.glass, glassOfSource(source)),
  );
  const pick = (next: SourceGlass) =>
    onChange(
      next === 'cut' && !fields.length
        ? { glass: next, fields: ['title', 'place', 'planned'] }
        : { glass: next },
    );
  return (
    <Source>
      <Row style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
        <Row style={{ flexWrap: 'nowrap' }}>
          {calendar && <Plate {...calendar} />}
          <strong>{name}</strong>
        </Row>
        <QuietButton aria-label={t('removeNamed', { name })} onPress={onOut}>
          <X aria-hidden="true" />
        </QuietButton>
      </Row>
      <ChoiceStrip
        label={t('glassOf', { name })}
        hideLabel
        value={glass}
        options={SOURCE_GLASSES.map((g) => ({
          value: g,
          text: (
            <>
              <GlassMark glass={g} /> {GLASS_WORDS[g].word}
            </>
          ),
        }))}
        onChange={pick}
      />
      <Faded>{t('readersSee', { plain: GLASS_WORDS[glass].plain })}</Faded>
      {glass === 'cut' && (
        <Picks>
          <legend>{t('cutHint')}</legend>
          {CUT_FIELDS.map((f) => (
            <Tick
              key={f}
              isSelected={fields.includes(f)}
              onChange={(on) => onChange({ fields: on ? [...fields, f] : fields.filter((x) => x !== f) })}
            >
              {partWord(f)}
            </Tick>
          ))}
        </Picks>
      )}
      {above.map((c) => (
        <CeilingNote key={`${c.calendarId}|${c.audience}`} ceiling={c} wanted={glassOfSource(source)} />
      ))}
      {calendar?.lockedAt && <Faded>{t('lockedDown')}</Faded>}
      {naming ? (
        <Field
          label={t('outwardName')}
          value={source.as}
          onChange={(as) => onChange({ as })}
          maxLength={120}
        />
      ) : (
        <Button style={{ justifySelf: 'start', fontSize: '0.85rem' }} onPress={() => setNaming(true)}>
          {t('outwardNameIs', { name: source.as || name })}
        </Button>
      )}
    </Source>
  );
}

/** Returns the audiences that a window's keys are for. */
export function audiencesOf(
  keys: readonly { readonly audience: Audience }[] | undefined,
  first: Audience,
): Audience[] {
  const own = keys?.map((k) => k.audience) ?? [first];
  return AUDIENCES.filter((a) => own.includes(a));
}
