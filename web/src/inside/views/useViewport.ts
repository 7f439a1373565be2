import { useEffect, useState, type RefObject } from 'react';

/** The part of a scrolled box that is in sight, in pixels of its content. */
export interface Viewport {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  /** Inner width of the box. */
  readonly width: number;
}

/** Scrolling tells of a new part only after so many pixels, so that most frames draw nothing anew. */
const STEP = 120;
/** So much is drawn around what is in sight. */
const MARGIN = STEP + 40;

/** Returns the part of a scrolled box that should be drawn: what is in sight and a margin around it. */
export function useViewport(box: RefObject<HTMLElement | null>): Viewport {
  const [viewport, setViewport] = useState<Viewport>({
    left: 0,
    top: 0,
    right: 2000,
    bottom: 1400,
    width: 0,
  });
  useEffect(() => {
    const el = box.current;
    if (!el) return;
    const measure = () => {
      const left = Math.floor(el.scrollLeft / STEP) * STEP - MARGIN;
      const top = Math.floor(el.scrollTop / STEP) * STEP - MARGIN;
      const next = {
        left,
        top,
        right: left + el.clientWidth + 2 * MARGIN + STEP,
        bottom: top + el.clientHeight + 2 * MARGIN + STEP,
        width: el.clientWidth,
      };
      setViewport((now) =>
        now.left === next.left &&
        now.top === next.top &&
        now.right === next.right &&
        now.bottom === next.bottom &&
        now.width === next.width
          ? now
          : next,
      );
    };
    const observer = new ResizeObserver(measure);
    observer.observe(el);
    el.addEventListener('scroll', measure, { passive: true });
    return () => {
      observer.disconnect();
      el.removeEventListener('scroll', measure);
    };
  }, [box]);
  return viewport;
}
