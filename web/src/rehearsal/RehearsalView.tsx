import { ArrowRight, Minus, PencilLine, Plus, TriangleAlert } from 'lucide-react';
import styled from 'styled-components';
import { Rings } from '../ui/GlassMark';
import { Faded, Row, Stack } from '../ui/layout';
import { ExposureList } from './ExposureList';
import type { FieldLine, ItemLine, RehearsalLines, ViewLines } from '../workers/questions';
import { t } from '../texts/rehearsal';
import { AUDIENCE_WORDS, GLASS_WORDS } from '../texts/glassWords';

const Card = styled.section`
  border: 1px solid var(--line);
  background: var(--sheet);
  padding: 0.7rem 0.9rem;
  display: grid;
  gap: 0.6rem;
`;

const Lines = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 22rem;
  overflow: auto;
  border: 1px solid var(--hair);
  background: var(--sheet);
  li {
    display: grid;
    grid-template-columns: 6.5rem 12rem minmax(0, 1fr);
    gap: 0.1rem 0.6rem;
    padding: 0.3rem 0.6rem;
    border-bottom: 1px solid var(--hair);
    align-items: baseline;
    overflow-wrap: anywhere;
  }
  li > :nth-child(n + 4) {
    grid-column: 3;
  }
  svg {
    width: 0.9rem;
    height: 0.9rem;
    vertical-align: -0.12em;
  }
  del {
    color: var(--faded);
  }
  ins {
    text-decoration: none;
    font-weight: 700;
  }
  @media (max-width: 40rem) {
    li {
      grid-template-columns: 1fr;
    }
    li > :nth-child(n + 4) {
      grid-column: 1;
    }
  }
`;

const Warning = styled.div`
  border-left: 5px solid var(--outside);
  background: var(--outside-wash);
  padding: 0.5rem 0.8rem;
`;

const MARKS = {
  appears: { icon: <Plus aria-hidden="true" />, word: t('appears') },
  vanishes: { icon: <Minus aria-hidden="true" />, word: t('vanishes') },
  changes: { icon: <PencilLine aria-hidden="true" />, word: t('changes') },
};

/** What readers of windows would see differently, window by window and audience by audience. */
export function RehearsalView({ rehearsals }: { rehearsals: readonly RehearsalLines[] }) {
  const loud = rehearsals.filter((r) => !r.quiet);
  if (!loud.length) return <p role="status">{t('nothingOutside')}</p>;
  return (
    <Stack>
      {loud.map((r) => (
        <Card key={r.windowId} aria-label={t('changesIn', { name: r.name })}>
          <h3>{r.name}</h3>
          {r.views.map((view) => (
            <View key={`${view.audience}|${view.cap}`} view={view} />
          ))}
        </Card>
      ))}
    </Stack>
  );
}

/** The difference of one view. */
export function View({ view, plain = false }: { view: ViewLines; plain?: boolean }) {
  const { times, wording, items, more, exposed, moreExposed } = view;
  const silent = !items.length && !wording.length;
  return (
    <Stack style={{ gap: '0.5rem' }}>
      {!plain && (
        <Row>
          <Rings audience={view.audience} />
          <strong>{AUDIENCE_WORDS[view.audience].word}</strong>
          <Faded>
            {view.keys.map((k) => k.madeOutTo).join(', ')}
            {view.cap ? t('viewAtMost', { cap: GLASS_WORDS[view.cap].word.toLowerCase() }) : ''}
          </Faded>
        </Row>
      )}
      <p role="status">{silent ? t('nothingForThese') : t('timesChange', { ...times })}</p>
      {wording.length > 0 && (
        <Lines aria-label={t('wordingChanges')}>
          {wording.map((line) => (
            <li key={line.field}>
              <span>
                {MARKS.changes.icon} {MARKS.changes.word}
              </span>
              <span>{line.field}</span>
              <Change line={line} />
            </li>
          ))}
        </Lines>
      )}
      {items.length > 0 && (
        <Lines aria-label={t('entriesThatChange')} tabIndex={0}>
          {items.map((item) => (
            <Item key={item.uid} item={item} />
          ))}
          {more > 0 && <li>{t('moreEntries', { count: more })}</li>}
        </Lines>
      )}
      {exposed.length > 0 && (
        <Warning>
          <strong>
            <TriangleAlert aria-hidden="true" size={16} />{' '}
            {t('newlyExposed', { count: exposed.length + moreExposed })}
          </strong>
          <ExposureList groups={exposed} more={moreExposed} />
        </Warning>
      )}
    </Stack>
  );
}

function Item({ item }: { item: ItemLine }) {
  const { icon, word } = MARKS[item.kind];
  return (
    <li>
      <span>
        {icon} {word}
      </span>
      <span>{item.when}</span>
      <strong>{item.title}</strong>
      {item.fields.map((line) => (
        <span key={line.field}>
          {line.field}: <Change line={line} />
        </span>
      ))}
      {item.fetchedBy.length > 0 && (
        <Faded>{t('alreadyFetched', { places: item.fetchedBy.join(', ') })}</Faded>
      )}
    </li>
  );
}

function Change({ line: { before, after } }: { line: FieldLine }) {
  return (
    <span>
      <del>{before || t('nothing')}</del> <ArrowRight aria-label={t('becomes')} />{' '}
      <ins>{after || t('nothing')}</ins>
    </span>
  );
}
