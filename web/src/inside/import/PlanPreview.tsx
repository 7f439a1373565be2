import { MERGE_KINDS, type MergeKind } from '@zonal/core/forms';
import type { Demand } from '@zonal/core/glass';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { Button, MainButton } from '../../ui/Button';
import { ChoiceStrip } from '../../ui/Choice';
import { Faded, Row, Stack } from '../../ui/layout';
import type { RehearsalLines } from '../../workers/questions';
import { Confirmations, useConfirming } from '../../rehearsal/Confirmations';
import { RehearsalView } from '../../rehearsal/RehearsalView';
import { Loading } from '../../ui/Notice';
import type { PlanLine } from './fileTypes';
import { t } from '../../texts/inside';

const Frame = styled.div`
  overflow: auto;
  height: min(28rem, 50vh);
  border: 1px solid var(--line);
  background: var(--sheet);
  font-size: 0.88rem;
`;

const Line = styled.div`
  display: grid;
  grid-template-columns: 6.5rem 11rem 1fr;
  gap: 0 0.7rem;
  padding: 0.3rem 0.6rem;
  border-bottom: 1px solid var(--hair);
  > small,
  > div {
    grid-column: 3;
  }
  &[data-kind='conflict'] > b {
    color: var(--warn);
  }
`;

const Apart = styled.table`
  font-size: 0.82rem;
  border-collapse: collapse;
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 0.05rem 0.7rem 0.05rem 0;
    font-weight: 400;
    overflow-wrap: anywhere;
  }
  thead th,
  tbody th {
    color: var(--faded);
  }
`;

const KIND_WORDS: Record<MergeKind, string> = {
  new: t('planNew'),
  changed: t('planChanged'),
  conflict: t('planConflict'),
  same: t('planSame'),
  'left-out': t('planLeftOut'),
};

interface PlanPreviewProps {
  plan: { readonly lines: readonly PlanLine[]; readonly notes: readonly string[] };
  /** The name of the calendar that it would go into. */
  calendar: string;
  /** Whether nothing can be imported yet. */
  isBlocked: boolean;
  onApply: (take: readonly number[]) => void;
  outside: readonly RehearsalLines[] | 'working' | null;
  /** Works out what readers outside would see, and goes on where nothing of it is large; null where no window shows the calendar. */
  onRehearse: ((take: readonly number[], goOn: boolean) => void) | null;
  onForget: () => void;
  onClose: () => void;
}

/** What bringing the file in would do, each entry with the reason; for a conflict it is chosen which version stays. */
export function PlanPreview(props: PlanPreviewProps) {
  const { plan, calendar, isBlocked, onApply, outside, onRehearse, onForget, onClose } = props;
  const { lines, notes } = plan;
  const counts = useMemo(() => {
    const all = new Map<MergeKind, number>();
    for (const { kind } of lines) all.set(kind, (all.get(kind) ?? 0) + 1);
    return all;
  }, [lines]);
  const [kind, setKind] = useState<MergeKind | 'all'>('all');
  const [take, setTake] = useState<ReadonlySet<number>>(new Set());
  const shown = useMemo(() => (kind === 'all' ? lines : lines.filter((l) => l.kind === kind)), [lines, kind]);
  const frame = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => frame.current,
    estimateSize: (i) => 34 + (shown[i]!.reason ? 18 : 0) + shown[i]!.apart.length * 20,
    getItemKey: (i) => shown[i]!.at,
    overscan: 8,
  });
  const count = (k: MergeKind) => counts.get(k) ?? 0;
  const total = count('new') + count('changed') + take.size;
  const conflicts = lines.filter((l) => l.kind === 'conflict');
  const rows = virtual.getVirtualItems();
  const told = outside === 'working' ? null : outside;
  const demands = told?.flatMap((r): readonly Demand[] => r.demands) ?? [];
  const confirming = useConfirming(demands, calendar, t('calendarsName'));
  const choose = (at: number, file: boolean) => {
    const next = new Set(take);
    if (file) next.add(at);
    else next.delete(at);
    setTake(next);
    onForget();
  };

  const chooseAll = (all: readonly number[]) => {
    setTake(new Set(all));
    onForget();
  };

  return (
    <Stack>
      <p role="status">
        <strong>{t('planFor', { calendar })}</strong>{' '}
        {MERGE_KINDS.map((k) => `${count(k)} ${KIND_WORDS[k]}`).join(', ')}.
      </p>
      {notes.map((note) => (
        <p key={note}>{note}</p>
      ))}
      <ChoiceStrip
        label={t('list')}
        hideLabel
        value={kind}
        options={[
          { value: 'all' as const, text: t('planAll', { count: lines.length }) },
          ...MERGE_KINDS.filter(count).map((k) => ({ value: k, text: `${count(k)} ${KIND_WORDS[k]}` })),
        ]}
        onChange={setKind}
      />
      {conflicts.length > 1 && (
        <Row>
          <span>{t('allConflicts', { count: conflicts.length })}</span>
          <Button onPress={() => chooseAll([])}>{t('keepHere')}</Button>
          <Button onPress={() => chooseAll(conflicts.map((c) => c.at))}>{t('useFile')}</Button>
        </Row>
      )}
      <Frame ref={frame} tabIndex={0} role="list" aria-label={t('planLines')}>
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          <div style={{ position: 'absolute', insetInline: 0, top: rows[0]?.start ?? 0 }}>
            {rows.map(({ index, key }) => {
              const line = shown[index]!;
              return (
                <Line
                  key={key}
                  role="listitem"
                  data-index={index}
                  data-kind={line.kind}
                  ref={virtual.measureElement}
                >
                  <b>{KIND_WORDS[line.kind]}</b>
                  <span>{line.when}</span>
                  <span>{line.title}</span>
                  {line.reason && <small>{line.reason}</small>}
                  {line.apart.length > 0 && (
                    <div>
                      <Apart>
                        <thead>
                          <tr>
                            <th scope="col">{t('field')}</th>
                            <th scope="col">{t('hereNow')}</th>
                            <th scope="col">{t('inFile')}</th>
                          </tr>
                        </thead>
                        <tbody>
                          {line.apart.map((a) => (
                            <tr key={a.field}>
                              <th scope="row">{a.field}</th>
                              <td>{a.here || '–'}</td>
                              <td>{a.file || '–'}</td>
                            </tr>
                          ))}
                        </tbody>
                      </Apart>
                      {line.kind === 'conflict' && (
                        <ChoiceStrip
                          label={t('keepWhich', { title: line.title })}
                          hideLabel
                          value={take.has(line.at) ? 'file' : 'here'}
                          options={[
                            { value: 'here', text: t('keepHereWord') },
                            { value: 'file', text: t('useFileWord') },
                          ]}
                          onChange={(way) => choose(line.at, way === 'file')}
                        />
                      )}
                    </div>
                  )}
                </Line>
              );
            })}
          </div>
        </div>
      </Frame>
      <Row>
        <MainButton
          isDisabled={total === 0 || isBlocked || outside === 'working' || !confirming.ready}
          onPress={() => (onRehearse && !outside ? onRehearse([...take], true) : onApply([...take]))}
        >
          {t('importEntries', { count: total })}
        </MainButton>
        {onRehearse && total > 0 && (
          <Button isDisabled={outside === 'working'} onPress={() => onRehearse([...take], false)}>
            {t('outsideChanges')}
          </Button>
        )}
        <Button onPress={onClose}>{t('cancel')}</Button>
        {total === 0 && <Faded>{t('nothingNew')}</Faded>}
      </Row>
      {outside === 'working' && <Loading what={t('computingOutside')} />}
      {told && <RehearsalView rehearsals={told} />}
      <Confirmations {...confirming} />
    </Stack>
  );
}
