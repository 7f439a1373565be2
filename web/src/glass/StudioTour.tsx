import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { Button, MainButton, QuietButton } from '../ui/Button';
import { Faded, Row } from '../ui/layout';

/** What the tour explains: the heading of a part of the studio, and what to do there. */
const STEPS = [
  {
    at: 'inside',
    title: 'Inside: what readers can see at all',
    say: 'Add the calendars that readers are to see. Choose the glass in front of each, filter the entries, and set which days are shown.',
  },
  {
    at: 'glass',
    title: 'Glass: how they see it',
    say: 'Name the window and choose how entries read. Settings in use come first; the others are under “More”. “Find a setting” searches all of them.',
  },
  {
    at: 'outside',
    title: 'Outside: the true view',
    say: 'This is exactly what readers get, in every form. Choose another reader, another clock or a phone to see what changes.',
  },
  {
    at: null,
    title: 'Nothing changes outside until you say so',
    say: 'What you change is kept as a draft. “Show this outside” first lists every difference that it makes, then publishes it.',
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
      <QuietButton onPress={() => setAt(0)}>Tour of the studio</QuietButton>
      {isOffered && (
        <>
          <Faded>Is this your first time here? It takes a minute.</Faded>
          <QuietButton onPress={end}>No, thanks</QuietButton>
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
      aria-label={`Tour, step ${at + 1} of ${STEPS.length}: ${title}`}
      onKeyDown={(event) => event.key === 'Escape' && onEnd()}
    >
      <strong>{title}</strong>
      <p>{say}</p>
      <Row style={{ justifyContent: 'space-between' }}>
        <Faded>
          {at + 1} of {STEPS.length}
        </Faded>
        <Row>
          {at > 0 && <Button onPress={() => onGo(at - 1)}>Back</Button>}
          {!isLast && <Button onPress={onEnd}>End the tour</Button>}
          <MainButton onPress={() => (isLast ? onEnd() : onGo(at + 1))}>
            {isLast ? 'Done' : 'Next'}
          </MainButton>
        </Row>
      </Row>
    </Bar>
  );
}
