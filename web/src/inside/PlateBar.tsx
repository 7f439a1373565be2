import { Archive, CalendarPlus, FileInput, FileOutput, Plus } from 'lucide-react';
import { useState } from 'react';
import { ToggleButton } from 'react-aria-components';
import styled, { css } from 'styled-components';
import type { Calendar } from '@zonal/core/api';
import { Button, MainButton, QuietButton } from '../ui/Button';
import { Row } from '../ui/layout';
import { Named } from '../ui/Named';
import { Plate } from '../ui/Plate';

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  justify-content: space-between;
  gap: 0.4rem 1.2rem;
`;

const Switch = styled(ToggleButton)`
  display: inline-flex;
  align-items: center;
  padding: 0.15rem 0.1rem;
  border: 0;
  border-bottom: 3px solid var(--ink);
  background: none;
  cursor: pointer;
  &:not([data-selected]) {
    opacity: 0.45;
    border-color: transparent;
  }
`;

const Said = styled.span`
  flex: 1;
  min-width: 8rem;
  &:empty {
    min-width: 0;
  }
  color: var(--faded);
  font-size: 0.85rem;
  align-self: center;
  text-align: end;
  /* Titles can be long; screen readers get all of it. */
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
  overflow-wrap: anywhere;
`;

/** On a narrow screen the tools make room for the calendar until they are asked for. */
export const whereOpen = css<{ $open: boolean }>`
  @media (max-width: 44rem) {
    ${(p) => !p.$open && 'display: none;'}
  }
`;

const Tools = styled(Row)<{ $open: boolean }>`
  ${whereOpen}
`;

const Narrow = styled.div`
  display: none;
  @media (max-width: 44rem) {
    display: block;
  }
`;

interface PlateBarProps {
  calendars: readonly Calendar[];
  archived: readonly Calendar[];
  hidden: readonly string[];
  canWrite: boolean;
  /** What was done last. */
  said: string;
  /** Whether the tools are shown on a narrow screen. */
  tools: boolean;
  onTools: (open: boolean) => void;
  onSwitch: (id: string) => void;
  onCalendar: (calendar: Calendar | null) => void;
  onImport: () => void;
  onExport: () => void;
  onWrite: () => void;
}

/** The calendars as plates that switch them on and off, and what brings entries in and out. */
export function PlateBar(props: PlateBarProps) {
  const { calendars, archived, hidden } = props;
  const [away, setAway] = useState(false);
  return (
    <Bar>
      <Row role="group" aria-label="Calendars shown">
        {calendars.map((c) => (
          <Named key={c.id} name={c.name}>
            <Switch
              aria-label={`Show ${c.name}`}
              isSelected={!hidden.includes(c.id)}
              onChange={() => props.onSwitch(c.id)}
            >
              <Plate {...c} />
            </Switch>
          </Named>
        ))}
        <QuietButton onPress={() => props.onCalendar(null)}>
          <CalendarPlus aria-hidden="true" /> New calendar
        </QuietButton>
        {archived.length > 0 && (
          <QuietButton aria-expanded={away} onPress={() => setAway(!away)}>
            <Archive aria-hidden="true" /> {archived.length} put away
          </QuietButton>
        )}
        {away &&
          archived.map((c) => (
            <QuietButton key={c.id} onPress={() => props.onCalendar(c)}>
              <Plate {...c} /> {c.name}
            </QuietButton>
          ))}
      </Row>
      <Said role="status">{props.said}</Said>
      <Narrow>
        <Button aria-expanded={props.tools} onPress={() => props.onTools(!props.tools)}>
          {props.tools ? 'Fewer tools' : 'Write, find, files'}
        </Button>
      </Narrow>
      <Tools $open={props.tools}>
        <Button isDisabled={!calendars.length} onPress={props.onImport}>
          <FileInput aria-hidden="true" /> Bring in a file
        </Button>
        <Button isDisabled={!calendars.length} onPress={props.onExport}>
          <FileOutput aria-hidden="true" /> Take out
        </Button>
        <MainButton isDisabled={!props.canWrite} onPress={props.onWrite}>
          <Plus aria-hidden="true" /> Write an entry
        </MainButton>
      </Tools>
    </Bar>
  );
}
