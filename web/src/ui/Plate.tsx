import type { Colour } from '@zonal/core/glass';
import styled from 'styled-components';

/** A pattern a colour, so that plates can be told apart without colour as well. */
const PATTERNS: Record<Colour, string> = {
  steelblue: 'repeating-linear-gradient(90deg, #fff6 0 2px, #fff0 2px 6px)',
  teal: 'repeating-linear-gradient(0deg, #fff6 0 2px, #fff0 2px 6px)',
  seagreen: 'repeating-linear-gradient(45deg, #fff6 0 2px, #fff0 2px 6px)',
  olive: 'repeating-linear-gradient(135deg, #fff6 0 2px, #fff0 2px 6px)',
  darkgoldenrod: 'radial-gradient(#fff7 1px, #fff0 1.5px) 0 0 / 5px 5px',
  sienna: 'repeating-linear-gradient(90deg, #fff6 0 1px, #fff0 1px 3px)',
  firebrick: 'linear-gradient(#fff6, #fff6) 0 100% / 100% 35% no-repeat',
  mediumvioletred: 'linear-gradient(#fff6, #fff6) 0 0 / 35% 100% no-repeat',
  slateblue: 'linear-gradient(135deg, #fff6 50%, #fff0 50%)',
  slategray: 'none',
};

/** Outlines by the plate's first letter: the shape stays with the calendar when its colour changes. */
const SHAPES = ['0', '0 0.7em 0.7em 0', '0.7em 0.7em 0 0', '0.7em'];

const Look = styled.span<{ $colour: Colour; $shape: string }>`
  display: inline-flex;
  flex: none;
  align-items: stretch;
  border: 1px solid var(--ink);
  border-radius: ${(p) => p.$shape};
  overflow: hidden;
  background: var(--sheet);
  font:
    700 0.72rem/1.35rem 'B612 Mono',
    monospace;
  letter-spacing: 0.04em;
  color: var(--ink);
  &::before {
    content: '';
    width: 0.7rem;
    background: ${(p) => PATTERNS[p.$colour]}, ${(p) => p.$colour};
    background-color: ${(p) => p.$colour};
  }
  > span {
    padding: 0 0.35rem;
  }
`;

/** The code plate of a calendar: letters first, then shape and pattern, colour last. */
export function Plate({ plate, colour }: { plate: string; colour: Colour }) {
  const shape = SHAPES[plate.charCodeAt(0) % SHAPES.length]!;
  return (
    <Look $colour={colour} $shape={shape}>
      <span>{plate}</span>
    </Look>
  );
}
