import { Archive, CalendarPlus, FileInput, FileOutput, Plus } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { ToggleButton } from 'react-aria-components';
import { Link } from 'react-router';
import styled, { css } from 'styled-components';
import type { Calendar } from '@zonal/core/api';
import { Button, MainButton, QuietButton } from '../ui/Button';
import { Row } from '../ui/layout';
import { Named } from '../ui/Named';
import { Plate } from '../ui/Plate';
import { t } from '../texts/inside';

const Bar = styled.div`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  align-items: center;
  gap: 0.4rem 1rem;
  @media (max-width: 44rem) {
    grid-template-columns: minmax(0, 1fr);
  }
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

/** On a narrow screen the tools make room for the calendar until they are asked for. */
const whereOpen = css<{ $open: boolean }>`
  @media (max-width: 44rem) {
    ${(p) => !p.$open && 'display: none;'}
  }
`;

const Tools = styled.div<{ $open: boolean }>`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(9rem, 15rem) auto;
  align-items: center;
  gap: 0.4rem 0.7rem;
  @media (max-width: 60rem) {
    grid-template-columns: minmax(0, 1fr);
  }
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
  /** Whether the tools are shown on a narrow screen. */
  tools: boolean;
  onTools: (open: boolean) => void;
  onSwitch: (id: string) => void;
  onCalendar: (calendar: Calendar | null) => void;
  onImport: () => void;
  onExport: () => void;
  onWrite: () => void;
  /** What writes a line, and what finds entries. */
  fields: ReactNode;
}

/** The calendars as plates that switch them on and off, and what brings entries in and out. */
export function PlateBar(props: PlateBarProps) {
  const { calendars, archived, hidden } = props;
  const [away, setAway] = useState(false);
  return (
    <Bar>
      <Row role="group" aria-label={t('calendarsShown')}>
        {calendars.map((c) => (
          <Named key={c.id} name={c.name}>
            <Switch
              aria-label={t('showCalendar', { name: c.name })}
              isSelected={!hidden.includes(c.id)}
              onChange={() => props.onSwitch(c.id)}
            >
              <Plate {...c} />
            </Switch>
          </Named>
        ))}
        <Named name={t('newCalendar')}>
          <QuietButton aria-label={t('newCalendar')} onPress={() => props.onCalendar(null)}>
            <CalendarPlus aria-hidden="true" />
          </QuietButton>
        </Named>
        <Link to="/calendars/directory">{t('directory')}</Link>
        {archived.length > 0 && (
          <QuietButton aria-expanded={away} onPress={() => setAway(!away)}>
            <Archive aria-hidden="true" /> {t('putAwayCount', { count: archived.length })}
          </QuietButton>
        )}
        {away &&
          archived.map((c) => (
            <QuietButton key={c.id} onPress={() => props.onCalendar(c)}>
              <Plate {...c} /> {c.name}
            </QuietButton>
          ))}
      </Row>
      <Narrow>
        <Button aria-expanded={props.tools} onPress={() => props.onTools(!props.tools)}>
          {props.tools ? t('fewerTools') : t('moreTools')}
        </Button>
      </Narrow>
      <Tools $open={props.tools}>
        {props.fields}
        <Row style={{ flexWrap: 'nowrap' }}>
          <Named name={t('importFile')}>
            <QuietButton aria-label={t('importFile')} onPress={props.onImport}>
              <FileInput aria-hidden="true" />
            </QuietButton>
          </Named>
          <Named name={t('exportToFile')}>
            <QuietButton aria-label={t('exportFile')} isDisabled={!calendars.length} onPress={props.onExport}>
              <FileOutput aria-hidden="true" />
            </QuietButton>
          </Named>
          <MainButton isDisabled={!props.canWrite} onPress={props.onWrite}>
            <Plus aria-hidden="true" /> {t('newEntry')}
          </MainButton>
        </Row>
      </Tools>
    </Bar>
  );
}
