import { GLASSES, type Glass } from '@zonal/core/glass';
import { Plus, X } from 'lucide-react';
import styled from 'styled-components';
import type { Calendar, WindowInput } from '../api/types';
import { QuietButton } from '../ui/Button';
import { ChoiceStrip } from '../ui/Choice';
import { GLASS_WORDS, GlassMark } from '../ui/GlassMark';
import { Faded, Row, Stack } from '../ui/layout';
import { Plate } from '../ui/Plate';

const Source = styled.div`
  border-top: 1px solid var(--hair);
  padding-top: 0.6rem;
  display: grid;
  gap: 0.4rem;
  [role='radiogroup'] label {
    padding-inline: 0.5rem;
    font-size: 0.9rem;
  }
`;

interface InsidePanelProps {
  calendars: readonly Calendar[];
  draft: WindowInput;
  set: (part: Partial<WindowInput>) => void;
}

/** Which calendars the window is cut from, and the glass before each. */
export function InsidePanel({ calendars, draft, set }: InsidePanelProps) {
  const rest = calendars.filter((c) => !draft.sources.some((s) => s.calendarId === c.id));
  const setGlass = (calendarId: string, glass: Glass) =>
    set({ sources: draft.sources.map((s) => (s.calendarId === calendarId ? { ...s, glass } : s)) });
  return (
    <Stack>
      <h2 id="inside">Inside: calendars</h2>
      {!draft.sources.length && <Faded>No calendar is chosen yet, so nothing is let out.</Faded>}
      {draft.sources.map(({ calendarId, glass }) => {
        const calendar = calendars.find((c) => c.id === calendarId);
        return (
          <Source key={calendarId}>
            <Row style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
              <Row style={{ flexWrap: 'nowrap' }}>
                {calendar && <Plate {...calendar} />}
                <strong>{calendar?.name ?? 'A deleted calendar'}</strong>
              </Row>
              <QuietButton
                aria-label={`Take ${calendar?.name ?? 'this calendar'} out`}
                onPress={() => set({ sources: draft.sources.filter((s) => s.calendarId !== calendarId) })}
              >
                <X aria-hidden="true" />
              </QuietButton>
            </Row>
            <ChoiceStrip
              label={`Glass before ${calendar?.name ?? 'this calendar'}`}
              hideLabel
              value={glass}
              options={GLASSES.map((g) => ({
                value: g,
                text: (
                  <>
                    <GlassMark glass={g} /> {GLASS_WORDS[g].word}
                  </>
                ),
              }))}
              onChange={(g) => setGlass(calendarId, g)}
            />
            <Faded>Readers see: {GLASS_WORDS[glass].plain}.</Faded>
          </Source>
        );
      })}
      {rest.length > 0 && (
        <Source>
          <Faded>Add a calendar; it starts frosted.</Faded>
          <Row>
            {rest.map((c) => (
              <QuietButton
                key={c.id}
                aria-label={`Add ${c.name}`}
                onPress={() => set({ sources: [...draft.sources, { calendarId: c.id, glass: 'frosted' }] })}
              >
                <Plus aria-hidden="true" />
                <Plate {...c} />
              </QuietButton>
            ))}
          </Row>
        </Source>
      )}
      {!calendars.length && <Faded>There are no calendars yet. Make one under Calendars first.</Faded>}
    </Stack>
  );
}
