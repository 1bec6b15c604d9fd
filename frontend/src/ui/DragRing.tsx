/** A ring in a drawing that is dragged along it: it asks the core as it goes, and one drag is one step to undo. */
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import { useCoalesced, type Take } from './useCoalesced';

const Handle = styled.div`
  position: absolute;
  width: 26px;
  height: 26px;
  margin: -13px 0 0 -13px;
  cursor: ns-resize;
  &[aria-orientation='horizontal'] {
    cursor: ew-resize;
  }
  touch-action: none;
  display: grid;
  place-items: center;
  &::before {
    content: '';
    width: 11px;
    height: 11px;
    border: var(--r-handle) solid var(--plan);
    border-radius: 50%;
    background: var(--paper);
  }
  @media (pointer: coarse) {
    width: var(--target);
    height: var(--target);
    margin: calc(var(--target) / -2) 0 0 calc(var(--target) / -2);
  }
  &:focus {
    outline: none;
  }
  &:focus-visible {
    outline: var(--r-heavy) solid var(--ink);
  }
  span {
    position: absolute;
    left: 24px;
    top: 2px;
    background: var(--paper);
    color: var(--plan);
    font: var(--w-strong) var(--t-text) / var(--snug) var(--letter);
    white-space: nowrap;
    padding: 0 var(--s4);
  }
  @media print {
    display: none;
  }
`;

export interface Ring {
  label: string;
  value: number;
  least: number;
  most: number;
  step: number;
  /** The way it goes; up and down when not said. */
  along?: 'x' | 'y';
  /** Value for each pixel that the ring is moved right or down. */
  perPixel: number;
  /** Place in the drawing. */
  left: string;
  top: string;
  text: (value: number) => string;
  /** The drawing itself says the value while it is moved. */
  quiet?: boolean;
  onTake: Take;
}

let gestures = 0;
export function DragRing(p: Ring) {
  const along = p.along ?? 'y';
  const { moved, move: take } = useCoalesced(p.value, p.onTake);
  const drag = useRef<{ from: number; value: number; gesture: string } | null>(null);
  const held = (v: number) => Math.min(p.most, Math.max(p.least, Math.round(v / p.step) * p.step));
  const now = moved ?? p.value;
  const down = (event: PointerEvent<HTMLDivElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    gestures += 1;
    drag.current = {
      from: along === 'x' ? event.clientX : event.clientY,
      value: p.value,
      gesture: `drag-${Date.now()}-${gestures}`,
    };
  };
  const move = (event: PointerEvent<HTMLDivElement>) => {
    if (!drag.current) return;
    const by =
      ((along === 'x' ? event.clientX : event.clientY) - drag.current.from) / event.currentTarget.currentCSSZoom;
    const next = held(drag.current.value + by * p.perPixel);
    if (next !== now) void take(next, drag.current.gesture);
  };
  const up = () => {
    drag.current = null;
  };
  const keys = (event: KeyboardEvent) => {
    const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    const next = held(now + by * p.step * (event.shiftKey ? 10 : 1));
    if (next !== now) void take(next, `keys-${p.label}`);
  };
  return (
    <Handle
      role="slider"
      tabIndex={0}
      aria-label={p.label}
      title={`${p.label}: ${p.text(now)}`}
      aria-valuemin={p.least}
      aria-valuemax={p.most}
      aria-valuenow={Math.round(now * 100) / 100}
      aria-valuetext={p.text(now)}
      aria-orientation={along === 'x' ? 'horizontal' : 'vertical'}
      style={{ left: p.left, top: p.top }}
      onKeyDown={keys}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
    >
      {moved !== null && !p.quiet && <span>{p.text(moved)}</span>}
    </Handle>
  );
}
