import type { CSSProperties, ReactNode } from 'react';
import styled from 'styled-components';
import type { Calendar } from '@zonal/core/api';
import type { DeskItem } from '../deskDays';
import { wordsOf } from './marks';
import type { BlockTools } from './ViewShell';

/** Width of what a block is stretched by, in pixels. */
const EDGE = 6;

const Look = styled.button`
  position: absolute;
  display: block;
  margin: 0;
  padding: 0 0.3rem 0 0.45rem;
  text-align: left;
  font-size: 0.78rem;
  line-height: 1.25;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--line);
  border-left: 4px solid var(--edge);
  contain: layout style;
  border-radius: 0;
  cursor: pointer;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  user-select: none;
  z-index: 1;
  touch-action: pan-x pan-y;
  &[data-status='tentative'] {
    border-style: dashed;
    border-left-style: solid;
  }
  &[data-status='cancelled'] .what {
    text-decoration: line-through;
  }
  &[data-status='done'] .what::after {
    content: ' ✓';
  }
  &[data-free] {
    border-left-width: 1px;
    background: var(--sheet);
  }
  &[data-chosen] {
    outline: 2px solid var(--ink);
    outline-offset: 0;
    z-index: 2;
  }
  &[data-lifted] {
    opacity: 0.45;
  }
  &:hover {
    background: var(--shade);
    z-index: 2;
  }
  &:focus-visible {
    z-index: 3;
  }
  /* Where an entry is drawn at its time, with its words in it or beside it. */
  &[data-loose] {
    border: 0;
    padding: 0;
    background: none;
  }
  .box {
    position: absolute;
    inset-block: 0;
    background: var(--paper);
    border: 1px solid var(--line);
    border-left: 4px solid var(--edge);
  }
  &[data-status='tentative'] .box {
    border-style: dashed;
    border-left-style: solid;
  }
  &[data-free] .box {
    border-left-width: 1px;
    background: var(--sheet);
  }
  &:hover .box {
    background: var(--shade);
  }
  .words {
    position: absolute;
    inset-block: 0;
    line-height: 1.6;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  time {
    color: var(--faded);
    font-variant-numeric: tabular-nums;
  }
  svg {
    width: 0.8rem;
    height: 0.8rem;
    vertical-align: -0.12em;
    margin-right: 0.15rem;
  }
  .edge {
    position: absolute;
    inset-block: 0;
    width: ${EDGE}px;
    cursor: ew-resize;
  }
`;

interface BlockProps {
  item: DeskItem;
  calendar: Calendar;
  zone: string;
  chosen: boolean;
  lifted: boolean;
  style: CSSProperties;
  tools: BlockTools;
  children: ReactNode;
  /** Where in it its time is, where that is not all of it. */
  box?: { readonly left: number; readonly width: number } | null;
  /** Whether its ends can be dragged sideways. */
  stretches: boolean;
}

/** An entry as a block that can be opened, moved and stretched. */
export function Block({
  item,
  calendar,
  zone,
  chosen,
  lifted,
  style,
  tools,
  children,
  box,
  stretches,
}: BlockProps) {
  const { content } = item.one;
  const { onOpen, onChoose, wasGesture, onHold } = tools;
  const words = wordsOf(item, calendar.name, zone);
  return (
    <Look
      type="button"
      style={{ ...style, '--edge': calendar.colour } as CSSProperties}
      title={words}
      data-key={item.key}
      data-status={content.status}
      {...(content.shows === 'free' ? { 'data-free': '' } : {})}
      {...(box ? { 'data-loose': '' } : {})}
      {...(chosen ? { 'data-chosen': '' } : {})}
      {...(lifted ? { 'data-lifted': '' } : {})}
      onPointerDown={onHold('move', item)}
      onFocus={() => onChoose(item.key)}
      onClick={() => {
        if (!wasGesture()) onOpen(item);
      }}
    >
      {box && <span className="box" style={box} />}
      {children}
      <span className="unseen">, {calendar.name}</span>
      {stretches && (
        <>
          <span className="edge" style={{ left: box?.left ?? 0 }} onPointerDown={onHold('start', item)} />
          <span
            className="edge"
            style={box ? { left: box.left + box.width - EDGE } : { right: 0 }}
            onPointerDown={onHold('end', item)}
          />
        </>
      )}
    </Look>
  );
}

/** Where a dragged or drawn entry would stand. */
export const Ghost = styled.div`
  position: absolute;
  border: 2px dashed var(--ink);
  background: color-mix(in srgb, var(--shade) 70%, transparent);
  pointer-events: none;
  z-index: 4;
  font-size: 0.78rem;
  padding: 0 0.3rem;
  white-space: nowrap;
`;
