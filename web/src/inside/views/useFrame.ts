import { useEffect, useRef, useState, type RefObject } from 'react';
import { useViewport, type Viewport } from './useViewport';

/** The box that a view is drawn in. */
export interface ViewFrame {
  readonly ref: RefObject<HTMLDivElement | null>;
  readonly viewport: Viewport;
  /** Width in pixels of what stays in sight at its left: the element marked `data-corner`. */
  readonly headWidth: number;
}

/** Returns the box of a view; `usual` is the width of its head until it is measured. */
export function useFrame(usual: number): ViewFrame {
  const ref = useRef<HTMLDivElement>(null);
  const viewport = useViewport(ref);
  const [headWidth, setHeadWidth] = useState(usual);
  useEffect(() => {
    const corner = ref.current?.querySelector<HTMLElement>('[data-corner]');
    if (corner) setHeadWidth(corner.offsetWidth);
  }, [viewport.width]);
  return { ref, viewport, headWidth };
}

/** A rectangle of what a box holds, in pixels from its top left. */
export interface Rectangle {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** Scrolls a box so that a rectangle of its content is in sight, and not under its heads. */
export function reveal(
  box: HTMLElement | null,
  { left, top, width, height }: Rectangle,
  heads: { readonly left: number; readonly top: number },
): void {
  if (!box) return;
  if (left - heads.left < box.scrollLeft) box.scrollLeft = left - heads.left - 20;
  else if (left + width > box.scrollLeft + box.clientWidth)
    box.scrollLeft = left + width - box.clientWidth + 20;
  if (top - heads.top < box.scrollTop) box.scrollTop = top - heads.top - 10;
  else if (top + height > box.scrollTop + box.clientHeight)
    box.scrollTop = top + height - box.clientHeight + 10;
}
