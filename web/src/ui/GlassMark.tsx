import { type Audience, type SourceGlass } from '@zonal/core/glass';
import styled from 'styled-components';
import { AUDIENCE_WORDS } from '../texts/glassWords';

const TEXTURES: Record<SourceGlass, string> = {
  shut: 'linear-gradient(currentColor, currentColor)',
  frosted: 'radial-gradient(currentColor 0.9px, transparent 1.2px) 0 0 / 4px 4px',
  tinted: 'repeating-linear-gradient(135deg, currentColor 0 1px, transparent 1px 5px)',
  clear: 'none',
  cut: 'linear-gradient(currentColor, currentColor) 0 35% / 100% 2px no-repeat, linear-gradient(currentColor, currentColor) 0 65% / 60% 2px no-repeat',
};

const Pane = styled.span<{ $glass: SourceGlass }>`
  forced-color-adjust: none;
  display: inline-block;
  flex: none;
  width: 0.95rem;
  height: 1.15rem;
  border: 1px solid currentColor;
  background: ${(p) => TEXTURES[p.$glass]};
  vertical-align: -0.2em;
`;

/** A pane with the texture of its glass. Always used beside the word. */
export function GlassMark({ glass }: { glass: SourceGlass }) {
  return <Pane $glass={glass} aria-hidden="true" />;
}

/** How far out an audience is: filled rings from the middle. */
export function Rings({ audience }: { audience: Audience }) {
  const { rings } = AUDIENCE_WORDS[audience];
  return (
    <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
      {[8, 6, 4, 2].map((r, i) => (
        <circle
          key={r}
          cx="9"
          cy="9"
          r={r}
          fill="none"
          stroke="currentColor"
          strokeOpacity={4 - i <= rings ? 1 : 0.45}
          strokeWidth={4 - i <= rings ? 1.7 : 0.4}
        />
      ))}
    </svg>
  );
}
