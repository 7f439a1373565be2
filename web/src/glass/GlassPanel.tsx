import {
  AUDIENCE_WORDS,
  SWITCH_WORDS,
  SWITCHED_FIELDS,
  FIELD_RULES,
  AUDIENCES,
  COLOURS,
  ROUNDINGS,
  TITLE_PARTS,
  fieldsOfFilter,
  fieldsOfSource,
  glassOfSource,
  readPattern,
  type Glass,
  type EntryField,
  type Rounding,
  type WindowInput,
  LETTING_GO,
  PUBLIC_ADDRESS_GRACE_DAYS,
  REMINDERS,
} from '@zonal/core/glass';
import { Plus, X } from 'lucide-react';
import styled from 'styled-components';
import type { Label } from '@zonal/core/api';
import { LabelHolds } from '../inside/LabelHolds';
import { QuietButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Faded, Pair, Row, Stack } from '../ui/layout';
import { Tick } from '../ui/Tick';
import { ZoneSelect } from '../ui/ZoneSelect';

const Part = styled.details`
  border-top: 1px solid var(--hair);
  padding-top: 0.5rem;
  > summary {
    cursor: pointer;
    font-weight: 700;
    margin-bottom: 0.5rem;
  }
`;

/** From which glass on a field goes out where it is switched on. */
const THROUGH: Readonly<Record<Glass, string>> = {
  shut: '',
  frosted: '',
  tinted: 'from tinted glass on',
  clear: 'through clear glass only',
};

interface GlassPanelProps {
  draft: WindowInput;
  set: (part: Partial<WindowInput>) => void;
  isNew: boolean;
  labels: readonly Label[];
  /** Some titles as they go out. */
  titles: readonly string[] | null;
}

/** Returns what is wrong with a pattern, or undefined. */
function patternProblem(pattern: string): string | undefined {
  try {
    readPattern(pattern);
    return undefined;
  } catch (error) {
    return (error as Error).message;
  }
}

/** Returns the fields that the filter looks at though no reader gets them. */
export function hiddenFilterFields(draft: WindowInput): string[] {
  const out = new Set(
    draft.sources.flatMap((s) => fieldsOfSource(s, glassOfSource(s), { switches: draft.switches })),
  );
  return fieldsOfFilter(draft.filter).filter((f) => !out.has(f as EntryField));
}

function reminderWords(minutes: number): string {
  if (minutes < 60) return `${minutes} minutes before`;
  const hours = minutes / 60;
  return hours === 24 ? 'a day before' : `${hours} ${hours === 1 ? 'hour' : 'hours'} before`;
}

/** The wording and the rules that hold for the whole window. */
export function GlassPanel({ draft, set, isNew, labels, titles }: GlassPanelProps) {
  const { switches, labelHolds, translations } = draft;
  const hidden = hiddenFilterFields(draft);
  const setSwitch = (part: Partial<typeof switches>) => set({ switches: { ...switches, ...part } });
  return (
    <Stack>
      <h2 id="glass">Glass: what readers get</h2>
      <Field
        label="Name that readers see"
        value={draft.name}
        onChange={(name) => set({ name })}
        maxLength={120}
      />
      <Field
        label="Description that readers see"
        value={draft.description}
        onChange={(description) => set({ description })}
        lines
      />
      <Part open>
        <summary>Titles</summary>
        <Stack>
          <Field
            label="Pattern of titles"
            value={draft.titlePattern}
            onChange={(titlePattern) => set({ titlePattern })}
            maxLength={200}
            error={patternProblem(draft.titlePattern)}
            help={`Parts: ${Object.keys(TITLE_PARTS)
              .map((p) => `{${p}}`)
              .join(
                ' ',
              )} {property:Name}. {label|calendar} takes the first that is there and goes out; what stands in [ ] goes where none is.`}
          />
          <Faded style={{ minHeight: '4.4em' }}>
            So they read:{' '}
            {titles
              ? titles.map((t) => `“${t}”`).join(', ') || 'no title goes out; busy times have one word.'
              : '…'}
          </Faded>
          <Stack>
            <Field
              label="Word for frosted entries"
              value={draft.busyWord}
              onChange={(busyWord) => set({ busyWord })}
              maxLength={60}
            />
            <SelectOne
              label="Due items go out as"
              value={draft.dueAs}
              options={[
                { value: 'all-day', text: 'All-day entries' },
                { value: 'task', text: 'Tasks' },
              ]}
              onChange={(dueAs) => set({ dueAs })}
            />
            <SelectOne
              label="Suggest a reminder"
              value={String(draft.remind)}
              options={REMINDERS.map((r) => ({ value: String(r), text: r ? reminderWords(r) : 'none' }))}
              onChange={(remind) => set({ remind: Number(remind) })}
            />
            <Faded>Every program shows all-day entries; tasks need a program with a task list.</Faded>
          </Stack>
        </Stack>
      </Part>
      <Part open>
        <summary>Fields that are switched apart</summary>
        <Stack style={{ gap: '0.4rem' }}>
          {SWITCHED_FIELDS.map((field) => (
            <Tick key={field} isSelected={switches[field]} onChange={(on) => setSwitch({ [field]: on })}>
              {SWITCH_WORDS[field].word}{' '}
              <small>
                {[THROUGH[FIELD_RULES[field].from], SWITCH_WORDS[field].plain].filter(Boolean).join('; ')}
              </small>
            </Tick>
          ))}
          {draft.sources.some((s) => s.glass === 'cut') && (
            <Faded>Where the glass is cut, what was picked there counts instead.</Faded>
          )}
        </Stack>
      </Part>
      <Part open={labelHolds.length > 0}>
        <summary>Labels that hold entries back ({labelHolds.length})</summary>
        <LabelHolds labels={labels} value={labelHolds} onChange={(held) => set({ labelHolds: held })} />
      </Part>
      <Part>
        <summary>Busy times</summary>
        <Stack style={{ gap: '0.4rem' }}>
          <SelectOne
            label="Frosted times are widened to full"
            value={String(draft.rounding)}
            options={ROUNDINGS.map((r) => ({
              value: String(r),
              text: r ? `${r} minutes` : 'minutes: exact',
            }))}
            onChange={(r) => set({ rounding: Number(r) as Rounding })}
          />
          <Tick isSelected={draft.tellTentative} onChange={(tellTentative) => set({ tellTentative })}>
            Mark frosted times that are tentative
          </Tick>
        </Stack>
      </Part>
      <Part>
        <summary>What has left</summary>
        <Stack style={{ gap: '0.4rem' }}>
          <SelectOne
            label="Programs are told of it"
            value={String(draft.lettingGo)}
            options={LETTING_GO.map((d) => ({
              value: String(d),
              text: d ? `for ${d} days` : 'not at all',
            }))}
            onChange={(days) => set({ lettingGo: Number(days) })}
          />
          <Faded>
            Programs that keep what they once read let go of an entry only when they are told that it is
            cancelled. A feed tells that it has left, and nothing else of it.
          </Faded>
        </Stack>
      </Part>
      <Part>
        <summary>Change notices by mail</summary>
        <Stack style={{ gap: '0.4rem' }}>
          <Tick isSelected={draft.notices} onChange={(notices) => set({ notices })}>
            Readers may leave a mail address to hear of changes
          </Tick>
          <Faded>
            Who leaves one confirms it first. The mails tell what changed as this window shows it, at once or
            daily; under Reach stands how many get them.
          </Faded>
        </Stack>
      </Part>
      <Part>
        <summary>Topic, place, contact, colour, languages</summary>
        <Stack>
          <Pair>
            <Field label="Topic" value={draft.topic} onChange={(topic) => set({ topic })} maxLength={120} />
            <Field
              label="Place that it is about"
              value={draft.place}
              onChange={(place) => set({ place })}
              maxLength={120}
            />
            <SelectOne
              label="Colour"
              value={draft.colour}
              options={COLOURS.map((c) => ({ value: c, text: c }))}
              onChange={(colour) => set({ colour })}
            />
            <Field
              label="Whom readers can ask"
              value={draft.contact}
              onChange={(contact) => set({ contact })}
              maxLength={300}
            />
            <Field
              label="Language of the texts"
              value={draft.language}
              onChange={(language) => set({ language })}
              placeholder="en"
              maxLength={35}
            />
          </Pair>
          {translations.map((t, i) => {
            const change = (part: Partial<typeof t>) =>
              set({ translations: translations.map((x, k) => (k === i ? { ...x, ...part } : x)) });
            return (
              <Stack key={i} role="group" aria-label={`Language ${t.language || i + 2}`}>
                <Pair>
                  <Field
                    label="Language"
                    value={t.language}
                    onChange={(language) => change({ language })}
                    placeholder="fr"
                    maxLength={35}
                  />
                  <Field label="Name" value={t.name} onChange={(name) => change({ name })} maxLength={120} />
                </Pair>
                <Field
                  label="Description"
                  value={t.description}
                  onChange={(description) => change({ description })}
                  lines
                />
                <Row>
                  <Field label="Topic" value={t.topic} onChange={(topic) => change({ topic })} />
                  <QuietButton
                    aria-label={`Take language ${t.language} out`}
                    onPress={() => set({ translations: translations.filter((_, k) => k !== i) })}
                  >
                    <X aria-hidden="true" />
                  </QuietButton>
                </Row>
              </Stack>
            );
          })}
          <QuietButton
            onPress={() =>
              set({ translations: [...translations, { language: '', name: '', description: '', topic: '' }] })
            }
          >
            <Plus aria-hidden="true" /> Add a language
          </QuietButton>
        </Stack>
      </Part>
      <Part open={isNew}>
        <summary>Zone, search engines{isNew ? ', first key' : ''}</summary>
        <Stack>
          <ZoneSelect
            label="Host’s time zone"
            value={draft.hostZone}
            onChange={(hostZone) => set({ hostZone })}
          />
          <Tick isSelected={draft.listed} onChange={(listed) => set({ listed })}>
            List the window{' '}
            <small>search engines too may find it; otherwise only people with the address</small>
          </Tick>
          <SelectOne
            label="If it is unlisted, its public address keeps working"
            value={String(draft.publicGraceDays)}
            options={PUBLIC_ADDRESS_GRACE_DAYS.map((d) => ({
              value: String(d),
              text: d ? `for ${d} days, with a notice` : 'not at all',
            }))}
            onChange={(days) => set({ publicGraceDays: Number(days) })}
          />
          {isNew && (
            <SelectOne
              label="First key is for"
              value={draft.audience ?? 'street'}
              options={AUDIENCES.map((a) => ({
                value: a,
                text: `${AUDIENCE_WORDS[a].word}: ${AUDIENCE_WORDS[a].plain}`,
              }))}
              onChange={(audience) => set({ audience })}
            />
          )}
        </Stack>
      </Part>
      {hidden.length > 0 && (
        <Faded role="note">
          The filter asks for {hidden.join(', ')}, which readers do not get. From which entries stand here
          they can still tell which of them fit: a filter is a disclosure by itself.
        </Faded>
      )}
    </Stack>
  );
}
