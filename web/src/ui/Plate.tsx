import type { Colour, PlatePattern, PlateShape } from '@zonal/core/glass';
import styled from 'styled-components';

const PATTERNS: Record<PlatePattern, string> = {
  solid: 'none',
  stripes: 'repeating-linear-gradient(45deg, #fff9 0 2px, #fff0 2px 5px)',
  dots: 'radial-gradient(#fffb 1px, #fff0 1.5px) 0 0 / 4px 4px',
  checks: 'repeating-conic-gradient(#fff9 0 25%, #fff0 0 50%) 0 0 / 6px 6px',
  rails: 'repeating-linear-gradient(0deg, #fff9 0 2px, #fff0 2px 5px)',
};

const SHAPES: Record<PlateShape, string> = {
  square: 'none',
  barrel: 'inset(0 round 0.7em)',
  pennant: 'polygon(0 0, calc(100% - 7px) 0, 100% 50%, calc(100% - 7px) 100%, 0 100%)',
  chamfer: 'polygon(6px 0, calc(100% - 6px) 0, 100% 6px, 100% 100%, 0 100%, 0 6px)',
  arch: 'inset(0 round 0.8em 0.8em 0 0)',
};

// The outline is a second shape behind the first: a border would be cut off with the corners.
const Look = styled.span<{ $colour: Colour; $pattern: PlatePattern; $shape: PlateShape }>`
  /* Shape and pattern say which calendar it is, also where colours are forced. */
  forced-color-adjust: none;
  display: inline-flex;
  flex: none;
  padding: 1px;
  background: var(--ink);
  clip-path: ${(p) => SHAPES[p.$shape]};
  font:
    700 0.72rem/1.35rem 'B612 Mono',
    monospace;
  letter-spacing: 0.04em;
  color: var(--ink);
  vertical-align: middle;
  > span {
    display: inline-flex;
    background: var(--sheet);
    clip-path: ${(p) => SHAPES[p.$shape]};
    padding-right: 0.5rem;
  }
  > span::before {
    content: '';
    width: 0.8rem;
    margin-right: 0.3rem;
    background: ${(p) => PATTERNS[p.$pattern]};
    background-color: ${(p) => p.$colour};
  }
`;

interface PlateProps {
  plate: string;
  colour: Colour;
  shape: PlateShape;
  pattern: PlatePattern;
}

/** The code plate of a calendar: letters first, then outline and pattern, colour last. */
export function Plate({ plate, colour, shape, pattern }: PlateProps) {
  return (
    <Look $colour={colour} $pattern={pattern} $shape={shape}>
      <span>{plate}</span>
    </Look>
  );
}
