import { dayFromText, dayToText, type Day } from '@zonal/core/zones';
import { ChevronLeft, ChevronRight, Clock, Redo2, SlidersHorizontal, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { ToggleButton } from 'react-aria-components';
import styled from 'styled-components';
import type { Edits } from './useEdits';
import { DateField } from '../ui/DateFields';
import { Button, QuietButton } from '../ui/Button';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { Row } from '../ui/layout';
import type { DayRange } from './deskDays';
import { WEEKS, type Desk, type DeskView } from './deskSlice';
import { t } from '../texts/inside';
import { dayText, monthText } from '../texts/formWords';

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 0.4rem 1.2rem;
`;

const Toggle = styled(ToggleButton)`
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
  min-height: 2.1rem;
  padding: 0.35rem 0.8rem;
  border: 1px solid var(--ink);
  background: none;
  cursor: pointer;
  &[data-selected] {
    background: var(--shade);
    box-shadow: inset 0 -3px 0 var(--ink);
  }
  svg {
    width: 1rem;
    height: 1rem;
  }
`;

/** What a phone folds until it is asked for. */
const Folded = styled(Row)`
  @media (max-width: 44rem) {
    &:not([data-open]) {
      display: none;
    }
  }
`;

const FoldButton = styled(Button)`
  display: none;
  @media (max-width: 44rem) {
    display: inline-flex;
  }
`;

const VIEW_WORDS: Record<DeskView, string> = {
  lanes: t('lanes'),
  week: t('week'),
  month: t('month'),
  list: t('list'),
};
const WEEK_WORDS = { 1: t('oneWeek'), 2: t('twoWeeks'), 4: t('fourWeeks'), 13: t('quarter') } as const;

interface DeskBarProps {
  desk: Desk;
  range: DayRange;
  day: Day;
  set: (part: Partial<Desk>) => void;
  onGo: (day: Day) => void;
  onStep: (way: 1 | -1) => void;
  onToday: () => void;
  onView: (view: DeskView) => void;
  edits: Edits;
}

/** Which days are shown and how, and the way back of what was done. */
export function DeskBar({ desk, range, day, set, onGo, onStep, onToday, onView, edits }: DeskBarProps) {
  const { from, to } = range;
  const [isOpen, setIsOpen] = useState(false);
  const { undo, redo } = edits.next;
  return (
    <Bar>
      <Row>
        <h1 className="unseen">{t('calendars')}</h1>
        <QuietButton aria-label={t('earlier')} onPress={() => onStep(-1)}>
          <ChevronLeft aria-hidden="true" />
        </QuietButton>
        <Button onPress={onToday}>{t('today')}</Button>
        <QuietButton aria-label={t('later')} onPress={() => onStep(1)}>
          <ChevronRight aria-hidden="true" />
        </QuietButton>
        <strong>
          {desk.view === 'month'
            ? monthText(from + 10)
            : t('dayRange', { from: dayText(from), to: dayText(to - 1) })}
        </strong>
        <DateField
          hideLabel
          label={t('goToDay')}
          value={dayToText(day)}
          onChange={(text) => /^[12]\d{3}-/.test(text) && onGo(dayFromText(text))}
        />
      </Row>
      <FoldButton aria-expanded={isOpen} aria-controls="desk-controls" onPress={() => setIsOpen(!isOpen)}>
        <SlidersHorizontal aria-hidden="true" /> {t('viewNow', { view: VIEW_WORDS[desk.view] })}
      </FoldButton>
      <Folded id="desk-controls" {...(isOpen ? { 'data-open': '' } : {})}>
        <QuietButton
          aria-label={undo ? t('undoStep', { step: undo }) : t('undoNothing')}
          isDisabled={!undo || edits.busy}
          onPress={() => void edits.undo()}
        >
          <Undo2 aria-hidden="true" />
        </QuietButton>
        <QuietButton
          aria-label={redo ? t('redoStep', { step: redo }) : t('redoNothing')}
          isDisabled={!redo || edits.busy}
          onPress={() => void edits.redo()}
        >
          <Redo2 aria-hidden="true" />
        </QuietButton>
        <Toggle isSelected={desk.clocksOpen} onChange={(clocksOpen) => set({ clocksOpen })}>
          <Clock aria-hidden="true" /> {t('clocksAndLayers')}
        </Toggle>
        {(desk.view === 'lanes' || desk.view === 'list') && (
          <SelectOne
            hideLabel
            label={t('span')}
            value={String(desk.weeks)}
            options={WEEKS.map((w) => ({ value: String(w), text: WEEK_WORDS[w] }))}
            onChange={(w) => set({ weeks: Number(w) as Desk['weeks'] })}
          />
        )}
        <ChoiceStrip
          label={t('view')}
          hideLabel
          value={desk.view}
          options={(['lanes', 'week', 'month', 'list'] as const).map((v) => ({
            value: v,
            text: VIEW_WORDS[v],
          }))}
          onChange={onView}
        />
      </Folded>
    </Bar>
  );
}
