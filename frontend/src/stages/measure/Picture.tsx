/** The drawing of one section with its fields in it: an entry stands where it is measured, the rest below. */
import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { Entry } from '../../api/types';
import { EntryField } from '../../page/EntryField';

/** Where a field stands in a drawing: its left or right edge, its top, and its width, in the drawing's own units. */
export interface Slot {
  x: number;
  y: number;
  w: number;
  end?: boolean;
}
export interface Drawn {
  width: number;
  height: number;
  svg: ReactNode;
  slots: Record<string, Slot>;
  description: string;
}

const Frame = styled.div`
  position: relative;
  flex: none;
  .at {
    position: absolute;
  }
`;

/** On a wide sheet the fields lie in the drawing. */
export function PictureWithFields({ drawn, entries }: { drawn: Drawn; entries: readonly Entry[] }) {
  return (
    <Frame style={{ width: drawn.width, height: drawn.height }}>
      <svg width={drawn.width} height={drawn.height} role="img" aria-label={drawn.description}>
        {drawn.svg}
      </svg>
      {entries.map((entry) => {
        const slot = drawn.slots[entry.key];
        if (!slot) return null;
        const left = slot.end ? slot.x - slot.w : slot.x;
        return (
          <div key={entry.path} className="at" style={{ left, top: slot.y, width: slot.w }}>
            <EntryField entry={entry} />
          </div>
        );
      })}
    </Frame>
  );
}

const Small = styled.div`
  svg {
    width: 100%;
    height: auto;
    max-height: 44vh;
  }
  svg .num {
    font-size: 28px;
    font-weight: var(--w-most);
  }
`;
/** On a phone the drawing carries numbers, and the fields stand below it under the same numbers. */
export function PictureWithNumbers({ drawn, entries }: { drawn: Drawn; entries: readonly Entry[] }) {
  return (
    <Small>
      <svg viewBox={`0 0 ${drawn.width} ${drawn.height}`} role="img" aria-label={drawn.description}>
        {drawn.svg}
        {entries.map((entry, i) => {
          const slot = drawn.slots[entry.key];
          if (!slot) return null;
          const x = (slot.end ? slot.x - slot.w : slot.x) + slot.w / 2;
          return (
            <g key={entry.path}>
              <circle cx={x} cy={slot.y + 28} r={21} className="edge paper" />
              <text x={x} y={slot.y + 37} textAnchor="middle" className="num">
                {i + 1}
              </text>
            </g>
          );
        })}
      </svg>
    </Small>
  );
}

/** Entries in the order they are drawn, those without a place in the drawing after them. */
export function inOrder(entries: readonly Entry[], drawn: Drawn | null): { placed: Entry[]; rest: Entry[] } {
  const placed = entries.filter((e) => drawn?.slots[e.key] !== undefined && !e.more);
  return { placed, rest: entries.filter((e) => !placed.includes(e)) };
}
