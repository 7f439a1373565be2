import {
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
} from 'react';
import styled from 'styled-components';
import type { DeskItem } from '../deskDays';
import { ghostOf, type GhostSpan } from './gestures';
import { isPut } from './keys';
import { reveal, type Rectangle, type ViewFrame } from './useFrame';
import { usePointerEdit } from './usePointerEdit';
import type { Drag, Place, ViewProps } from './viewTypes';

const Frame = styled.div`
  position: relative;
  overflow: auto;
  border: 1px solid var(--line);
  background: var(--sheet);
  height: max(22rem, calc(100dvh - var(--above)));
`;

/** A point of the screen, and where it lies in what the box holds; both in pixels. */
export interface Point {
  readonly screenX: number;
  readonly screenY: number;
  readonly x: number;
  readonly y: number;
}

/** Where places and entries lie in a view: all that one view knows and the others do not. */
export interface Geometry {
  readonly placeAt: (point: Point) => Place | null;
  /** Where the cursor first stands. */
  readonly first: () => Place;
  readonly step: (from: Place, right: number, down: number) => Place;
  readonly words: (place: Place) => string;
  /** The last place of what is written at a place; the place itself unless set. */
  readonly until?: (place: Place) => Place;
  /** Another object whenever entries stand elsewhere. */
  readonly layout: unknown;
  readonly boxOfPlace?: (place: Place) => Rectangle | null;
  readonly boxOfItem?: (key: string) => Rectangle | null;
  /** What stays in sight at the left and at the top, in pixels. */
  readonly heads: { readonly left: number; readonly top: number };
}

/** What the blocks of all views are given besides their place. */
export interface BlockTools {
  readonly onOpen: (item: DeskItem) => void;
  readonly onChoose: (key: string) => void;
  readonly wasGesture: () => boolean;
  readonly onHold: (kind: 'move' | 'start' | 'end', item: DeskItem) => (event: PointerEvent) => void;
}

export interface Shell {
  readonly cursor: Place | null;
  /** Where what is dragged or drawn would stand, or null. */
  readonly ghost: GhostSpan | null;
  /** The key of the entry that is being dragged, or null. */
  readonly lifted: string | null;
  /** Empty ground is drawn on. */
  readonly onGround: (event: PointerEvent) => void;
  readonly tools: BlockTools;
  readonly onKeyDown: (event: KeyboardEvent) => void;
  readonly leave: () => void;
  readonly status: string;
}

const STEPS: Readonly<Record<string, readonly [right: number, down: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Cursor, keys, pointer, ghost and status of a view: the same for all, over the geometry of each. */
export function useViewShell(frame: ViewFrame, props: ViewProps, geometry: Geometry): Shell {
  const { chosen, onGesture, onOpen, onChoose } = props;
  const { ref } = frame;
  const [cursor, setCursor] = useState<Place | null>(null);

  const locate = (screenX: number, screenY: number): Place | null => {
    const el = ref.current;
    if (!el) return null;
    const box = el.getBoundingClientRect();
    const [x, y] = [screenX - box.left + el.scrollLeft, screenY - box.top + el.scrollTop];
    return geometry.placeAt({ screenX, screenY, x, y });
  };
  const { gesture, hold, wasGesture } = usePointerEdit(locate, onGesture);

  const onKeyDown = (event: KeyboardEvent) => {
    if (event.target !== ref.current || event.altKey) return;
    const step = STEPS[event.key];
    if (step) {
      event.preventDefault();
      const next = cursor ? geometry.step(cursor, ...step) : geometry.first();
      setCursor(next);
      const box = geometry.boxOfPlace?.(next);
      if (box) reveal(ref.current, box, geometry.heads);
    } else if (cursor && isPut(event)) {
      event.preventDefault();
      if (event.key === 'Enter')
        onGesture({ kind: 'draw', from: cursor, to: geometry.until?.(cursor) ?? cursor });
      else onGesture({ kind: 'paste', at: cursor });
    }
  };

  const latest = useRef(geometry);
  useEffect(() => {
    latest.current = geometry;
  });
  const { layout } = geometry;
  useEffect(() => {
    // What was chosen from the keyboard is brought into sight.
    const el = ref.current;
    if (!chosen || !el || el.querySelector(`[data-key="${CSS.escape(chosen)}"]`)) return;
    const box = latest.current.boxOfItem?.(chosen);
    if (box) reveal(el, box, latest.current.heads);
  }, [chosen, layout, ref]);
  const tools = useMemo(
    (): BlockTools => ({ onOpen, onChoose, wasGesture, onHold: (kind, item) => hold({ kind, item }) }),
    [onOpen, onChoose, wasGesture, hold],
  );

  return {
    cursor,
    ghost: gesture && ghostOf(gesture),
    lifted: liftedBy(gesture),
    onGround: hold({ kind: 'draw' }),
    tools,
    onKeyDown,
    leave: () => setCursor(null),
    status: cursor ? geometry.words(cursor) : '',
  };
}

function liftedBy(gesture: Drag | null): string | null {
  return gesture && gesture.kind !== 'draw' ? gesture.item.key : null;
}

interface ViewBoxProps {
  box: ViewFrame['ref'];
  shell: Shell;
  label: string;
  className?: string;
  children: ReactNode;
}

/** The box of a view, with its cursor told to screen readers. */
export function ViewBox({ box, shell, label, className, children }: ViewBoxProps) {
  return (
    <>
      <Frame
        ref={box}
        tabIndex={0}
        role="region"
        aria-label={label}
        onKeyDown={shell.onKeyDown}
        onBlur={(e) => e.target === e.currentTarget && shell.leave()}
        {...(className ? { className } : {})}
      >
        {children}
      </Frame>
      <span role="status" className="unseen">
        {shell.status}
      </span>
    </>
  );
}

/** Returns a number that is no less and no more than told. */
export function within(n: number, least: number, most: number): number {
  return Math.min(most, Math.max(least, n));
}
