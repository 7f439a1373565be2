import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { Button, MainButton, QuietButton } from '../ui/Button';
import { Faded, Row } from '../ui/layout';
import { t } from '../texts/glass';

/** What the tour explains: the heading of a part of the studio, and what to do there. */
const STEPS = [
  {
    at: 'inside',
    title: t('tourInside'),
    say: t('tourInsideSay'),
  },
  {
    at: 'glass',
    title: t('tourGlass'),
    say: t('tourGlassSay'),
  },
  {
    at: 'outside',
    title: t('tourOutside'),
    say: t('tourOutsideSay'),
  },
  {
    at: null,
    title: t('tourPublish'),
    say: t('tourPublishSay'),
  },
] as const;

const SEEN = 'studio-tour-seen';

const Bar = styled.section`
  position: fixed;
  inset: auto 1rem 1rem 1rem;
  z-index: 15;
  max-width: 44rem;
  margin: 0 auto;
  display: grid;
  gap: 0.5rem;
  padding: 0.9rem 1.1rem;
  background: var(--sheet);
  border: 2px solid var(--ink);
  box-shadow: 0 6px 20px rgb(0 0 0 / 0.25);
`;

function wasSeen(): boolean {
  try {
    return localStorage.getItem(SEEN) !== null;
  } catch {
    // Where nothing can be kept, the tour is not offered again and again.
    return true;
  }
}

function keepSeen(): void {
  try {
    localStorage.setItem(SEEN, 'yes');
  } catch {
    // As above.
  }
}

/** Offers a tour of the studio, once by itself, and leads through it. Escape ends it. */
export function StudioTour() {
  const [isOffered, setIsOffered] = useState(() => !wasSeen());
  const [at, setAt] = useState<number | null>(null);
  const end = () => {
    keepSeen();
    setIsOffered(false);
    setAt(null);
  };
  if (at !== null) return <Step at={at} onGo={setAt} onEnd={end} />;
  return (
    <Row>
      <QuietButton onPress={() => setAt(0)}>{t('tour')}</QuietButton>
      {isOffered && (
        <>
          <Faded>{t('tourOffer')}</Faded>
          <QuietButton onPress={end}>{t('noThanks')}</QuietButton>
        </>
      )}
    </Row>
  );
}

function Step({ at, onGo, onEnd }: { at: number; onGo: (at: number) => void; onEnd: () => void }) {
  const { at: part, title, say } = STEPS[at]!;
  const bar = useRef<HTMLElement>(null);
  useEffect(() => {
    bar.current?.focus();
    const section = document.getElementById(part ?? '')?.closest('section');
    section?.scrollIntoView({ block: 'nearest' });
    section?.setAttribute('data-shown', '');
    return () => section?.removeAttribute('data-shown');
  }, [part, at]);
  const isLast = at === STEPS.length - 1;
  return (
    <Bar
      ref={bar}
      tabIndex={-1}
      role="dialog"
      aria-label={t('tourStep', { at: at + 1, all: STEPS.length, title })}
      onKeyDown={(event) => event.key === 'Escape' && onEnd()}
    >
      <strong>{title}</strong>
      <p>{say}</p>
      <Row style={{ justifyContent: 'space-between' }}>
        <Faded>{t('stepOf', { at: at + 1, all: STEPS.length })}</Faded>
        <Row>
          {at > 0 && <Button onPress={() => onGo(at - 1)}>{t('back')}</Button>}
          {!isLast && <Button onPress={onEnd}>{t('endTour')}</Button>}
          <MainButton onPress={() => (isLast ? onEnd() : onGo(at + 1))}>
            {isLast ? t('done') : t('next')}
          </MainButton>
        </Row>
      </Row>
    </Bar>
  );
}
