import { createGlobalStyle, css } from 'styled-components';

const light = css`
  --paper: #f7f2e6;
  --sheet: #fdfaf2;
  --shade: #efe7d5;
  --ink: #1d2a33;
  --faded: #56616a;
  --hair: #cbbfa6;
  --line: #8d8674;
  --outside: #b8351c;
  --outside-wash: #f9e4da;
  --warn: #7a4a00;
  --focus: #17506f;
  color-scheme: light;
`;

const dark = css`
  --paper: #141c22;
  --sheet: #1a242b;
  --shade: #222e36;
  --ink: #ece4d2;
  --faded: #a9b0ae;
  --hair: #3c4a52;
  --line: #71807f;
  --outside: #ff8a6b;
  --outside-wash: #3a211b;
  --warn: #e0bd7c;
  --focus: #8cc3e0;
  color-scheme: dark;
`;

/** Warm paper and ink; one vermilion, kept for what is visible outside. */
export const GlobalStyle = createGlobalStyle`
  :root { ${light} }
  @media (prefers-color-scheme: dark) { :root:not([data-theme='light']) { ${dark} } }
  :root[data-theme='dark'] { ${dark} }

  * { box-sizing: border-box; }
  html { background: var(--paper); color: var(--ink); font: 400 15px/1.45 'B612', 'DejaVu Sans', sans-serif; }
  body { margin: 0; }
  h1, h2, h3 { font-family: 'Literata Variable', Georgia, serif; font-weight: 600; line-height: 1.2; margin: 0; }
  h1 { font-size: 1.45rem; }
  h2 { font-size: 1.1rem; }
  h3 { font-size: 1rem; }
  p { margin: 0; }
  a { color: inherit; text-underline-offset: 0.15em; }
  button, input, select, textarea { font: inherit; color: inherit; }
  :focus-visible, [data-focus-visible] { outline: 2px solid var(--focus); outline-offset: 2px; }
  .unseen { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
  @media (prefers-reduced-motion: reduce) { * { transition: none !important; } }
`;
