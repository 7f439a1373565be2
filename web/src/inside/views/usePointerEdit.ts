import { useCallback, useEffect, useRef, useState, type PointerEvent } from 'react';
import type { DeskItem } from '../deskDays';
import type { Drag, Place } from './viewTypes';

/** Fewer pixels than this are a click. */
const SLACK = 5;

type Grip = { readonly kind: 'draw' } | { readonly kind: 'move' | 'start' | 'end'; readonly item: DeskItem };

interface Hold {
  readonly grip: Grip;
  readonly from: Place;
  readonly x: number;
  readonly y: number;
}

/**
 * Drawing, moving and stretching with a mouse or a pen; a finger scrolls and taps instead. `locate` tells the place
 * under a point of the screen. Escape lets go without doing anything; Ctrl or Alt held at the end makes a copy.
 */
export function usePointerEdit(
  locate: (x: number, y: number) => Place | null,
  onDone: (gesture: Drag) => void,
): {
  gesture: Drag | null;
  hold: (grip: Grip) => (event: PointerEvent) => void;
  /** Returns true once after a gesture: the click that ends it is none. */
  wasGesture: () => boolean;
} {
  const [gesture, setGesture] = useState<Drag | null>(null);
  const held = useRef<Hold | null>(null);
  const latest = useRef<Drag | null>(null);
  const ended = useRef(false);
  const calls = useRef({ locate, onDone });
  useEffect(() => {
    calls.current = { locate, onDone };
  });

  useEffect(() => {
    const show = (next: Drag | null) => {
      latest.current = next;
      setGesture(next);
    };
    const move = (event: globalThis.PointerEvent) => {
      const hold = held.current;
      if (!hold) return;
      if (!latest.current && Math.hypot(event.clientX - hold.x, event.clientY - hold.y) < SLACK) return;
      const to = calls.current.locate(event.clientX, event.clientY);
      if (to) show(gestureOf(hold, to, event.ctrlKey || event.altKey));
    };
    const up = () => {
      const done = latest.current;
      held.current = null;
      if (!done) return;
      show(null);
      ended.current = true;
      setTimeout(() => {
        ended.current = false;
      });
      calls.current.onDone(done);
    };
    const key = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || !held.current) return;
      held.current = null;
      show(null);
    };
    const lost = () => {
      held.current = null;
      show(null);
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up);
    window.addEventListener('pointercancel', lost);
    window.addEventListener('keydown', key);
    return () => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
      window.removeEventListener('pointercancel', lost);
      window.removeEventListener('keydown', key);
    };
  }, []);

  // These stay the same functions, so that what uses them is not drawn anew.
  const hold = useCallback(
    (grip: Grip) => (event: PointerEvent) => {
      if (event.button !== 0 || event.pointerType === 'touch') return;
      const from = calls.current.locate(event.clientX, event.clientY);
      if (!from) return;
      event.stopPropagation();
      held.current = { grip, from, x: event.clientX, y: event.clientY };
    },
    [],
  );
  const wasGesture = useCallback(() => ended.current, []);
  return { gesture, hold, wasGesture };
}

function gestureOf({ grip, from }: Hold, to: Place, copy: boolean): Drag {
  if (grip.kind === 'draw') return { kind: 'draw', from, to };
  return grip.kind === 'move'
    ? { ...grip, kind: 'move', from, to, copy }
    : { ...grip, kind: grip.kind, from, to };
}
