/** A tape laid on the length being entered: inches above, millimetres below; the ring is dragged or stepped. */
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { Box, Line, Path, Ring, Words } from '../../drawings/ink';
import { useWidth } from '../../ui/useWidth';
import { size } from '../../units/format';

const INCH = 25.4;
const HEIGHT = 58;
const QUARTERS = ['', ' 1/4', ' 1/2', ' 3/4'];

interface TapeProps {
  label: string;
  mm: number;
  plusMinus: number;
  /** Whether it was read in inches: a step is then a sixteenth, else a millimetre. */
  inches: boolean;
  least: number;
  most: number;
  onTake: (text: string) => void;
}

const sixteenths = (mm: number) => {
  const n = Math.max(0, Math.round((mm / INCH) * 16));
  const whole = Math.floor(n / 16);
  let top = n % 16;
  let bottom = 16;
  while (top > 0 && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  return top === 0 ? `${whole} in` : `${whole > 0 ? `${whole} ` : ''}${top}/${bottom} in`;
};

export function Tape({ label, mm, plusMinus, inches, least, most, onTake }: TapeProps) {
  const [ref, width] = useWidth<HTMLDivElement>(420);
  const [moved, setMoved] = useState<number | null>(null);
  const from = useRef<{ x: number; mm: number } | null>(null);
  const seen = Math.max(45, Math.min(120, mm * 0.6));
  const scale = width / seen;
  const centre = mm;
  const at = moved ?? mm;
  const X = (v: number) => width / 2 + (v - centre) * scale;
  const text = (v: number) => (inches ? sixteenths(v) : `${size(Math.round(v * 2) / 2)} mm`);
  const held = (v: number) => Math.min(most, Math.max(least, v));
  const step = inches ? INCH / 16 : 1;
  const keys = (event: KeyboardEvent) => {
    const by = { ArrowRight: step, ArrowUp: step, ArrowLeft: -step, ArrowDown: -step }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onTake(text(held(at + by * (event.shiftKey ? 10 : 1))));
  };
  const down = (event: PointerEvent<SVGGElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    from.current = { x: event.clientX, mm: at };
  };
  const move = (event: PointerEvent) => {
    if (from.current) setMoved(held(from.current.mm + (event.clientX - from.current.x) / scale));
  };
  const up = () => {
    from.current = null;
    if (moved !== null && Math.abs(moved - mm) > step / 4) onTake(text(moved));
    setMoved(null);
  };
  const first = centre - seen / 2;
  const last = centre + seen / 2;
  const ticks16 = Array.from(
    { length: Math.floor((last / INCH) * 16) - Math.ceil((first / INCH) * 16) + 1 },
    (_, i) => Math.ceil((first / INCH) * 16) + i,
  );
  const ticksMm = Array.from({ length: Math.floor(last) - Math.ceil(first) + 1 }, (_, i) => Math.ceil(first) + i);
  const top = 22;
  const long = (i: number) => (i % 16 === 0 ? 26 : i % 8 === 0 ? 20 : i % 4 === 0 ? 15 : i % 2 === 0 ? 10 : 6);
  return (
    <div ref={ref} style={{ touchAction: 'none' }}>
      <svg width={width} height={top + HEIGHT + 14}>
        {plusMinus > 0 && <Box x={X(at - plusMinus)} y={top} w={2 * plusMinus * scale} h={HEIGHT} as="tint" />}
        {ticks16
          .filter((i) => i >= 0)
          .map((i) => (
            <g key={i}>
              <Line a={[X((i / 16) * INCH), top]} b={[X((i / 16) * INCH), top + long(i)]} />
              {(scale > 4 ? i % 4 === 0 : i % 16 === 0) && X((i / 16) * INCH) < width - 34 && (
                <Words x={X((i / 16) * INCH) + 4} y={top + 25} as={i % 16 === 0 ? 'inch' : ''}>
                  {`${Math.floor(i / 16)}${QUARTERS[(i % 16) / 4] ?? ''}`}
                </Words>
              )}
            </g>
          ))}
        {ticksMm
          .filter((m) => m >= 0)
          .map((m) => (
            <g key={m}>
              <Line a={[X(m), top + HEIGHT]} b={[X(m), top + HEIGHT - (m % 10 === 0 ? 12 : m % 5 === 0 ? 9 : 5)]} />
              {m % 10 === 0 && X(m) > 30 && (
                <Words x={X(m) - 4} y={top + HEIGHT - 8} at="end">
                  {m}
                </Words>
              )}
            </g>
          ))}
        <Path d={`M0,${top}L${width},${top}M0,${top + HEIGHT}L${width},${top + HEIGHT}`} />
        <g
          role="slider"
          tabIndex={0}
          aria-label={`Tape, ${label}`}
          aria-valuemin={least}
          aria-valuemax={most}
          aria-valuenow={Math.round(at * 10) / 10}
          aria-valuetext={text(at)}
          onKeyDown={keys}
          onPointerDown={down}
          onPointerMove={move}
          onPointerUp={up}
          onPointerCancel={up}
          style={{ cursor: 'ew-resize' }}
        >
          <Box x={X(at) - 22} y={0} w={44} h={top + HEIGHT} as="hit" />
          <Line a={[X(at), 10]} b={[X(at), top + HEIGHT + 10]} as="plan-line" />
          <Ring x={X(at)} y={10} r={6} as="handle" />
        </g>
        {moved !== null && (
          <Words x={X(at) + 12} y={12} as="label-plan">
            {text(moved)}
          </Words>
        )}
      </svg>
    </div>
  );
}
