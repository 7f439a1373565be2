import { AUDIENCES, COLOURS, ROUNDINGS, type Rounding } from '@zonal/core/glass';
import type { WindowInput } from '../api/types';
import { SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { AUDIENCE_WORDS } from '../ui/GlassMark';
import { Pair, Stack } from '../ui/layout';
import { Tick } from '../ui/Tick';
import { ZoneSelect } from '../ui/ZoneSelect';

interface GlassPanelProps {
  draft: WindowInput;
  set: (part: Partial<WindowInput>) => void;
  isNew: boolean;
}

const days = (text: string) => Math.min(1830, Math.max(0, Math.round(Number(text) || 0)));

/** The wording and the rules that hold for the whole window. */
export function GlassPanel({ draft, set, isNew }: GlassPanelProps) {
  const { switches, horizon } = draft;
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
      <Pair>
        <SelectOne
          label="Colour"
          value={draft.colour}
          options={COLOURS.map((c) => ({ value: c, text: c }))}
          onChange={(colour) => set({ colour })}
        />
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
            { value: 'all-day', text: 'All-day entries: every program shows them' },
            { value: 'task', text: 'Tasks: for programs with a task list' },
          ]}
          onChange={(dueAs) => set({ dueAs })}
        />
        <Field
          label="Days back"
          type="number"
          value={String(horizon.pastDays)}
          onChange={(text) => set({ horizon: { ...horizon, pastDays: days(text) } })}
        />
        <Field
          label="Days ahead"
          type="number"
          value={String(horizon.nextDays)}
          onChange={(text) => set({ horizon: { ...horizon, nextDays: days(text) } })}
        />
      </Pair>
      <ZoneSelect
        label="Host’s time zone"
        value={draft.hostZone}
        onChange={(hostZone) => set({ hostZone })}
      />
      <SelectOne
        label="Frosted times are widened to full"
        value={String(draft.rounding)}
        options={ROUNDINGS.map((r) => ({ value: String(r), text: r ? `${r} minutes` : 'minutes: exact' }))}
        onChange={(r) => set({ rounding: Number(r) as Rounding })}
      />
      <Tick isSelected={draft.tellTentative} onChange={(tellTentative) => set({ tellTentative })}>
        Mark frosted times that are tentative
      </Tick>
      <Tick isSelected={switches.people} onChange={(people) => set({ switches: { ...switches, people } })}>
        Let people’s names out <small>through clear glass only</small>
      </Tick>
      <Tick isSelected={switches.contact} onChange={(contact) => set({ switches: { ...switches, contact } })}>
        Let the contact out <small>through clear glass only</small>
      </Tick>
      <Tick
        isSelected={switches.joinLink}
        onChange={(joinLink) => set({ switches: { ...switches, joinLink } })}
      >
        Let joining links out <small>through clear glass only; whoever has one can join</small>
      </Tick>
      <Tick isSelected={draft.listed} onChange={(listed) => set({ listed })}>
        Let search engines list the page <small>otherwise only people with the address find it</small>
      </Tick>
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
  );
}
