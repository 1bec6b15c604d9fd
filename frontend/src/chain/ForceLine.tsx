/** The force line: one push drawn unbroken from foot to road, what stood before beneath it. */
import { memo, useMemo } from 'react';
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import type { PathView, StateView } from '../api/types';
import { Balloon, Figure, r2, Words } from '../drawings/ink';
import { BoosterShell } from '../drawings/pedal';
import { useWidth } from '../ui/useWidth';

import { dimension, force, written } from '../units/display';
import type { Figures } from './figures';
import { Band, BAND } from './Band';
import type { BandSide, Gain, Match } from './gains';
import { BrakeRow } from './BrakeRow';
import { AsFound, Chain, CHAIN } from './Chain';
import { DragRing } from '../ui/DragRing';
import { FootAndPedal, standing } from './Foot';
import { AXIS, BODY, drawnLines, ENDS, FORCE, OVER, rotorScale, rowsOf, WIDTH, type FoundLine } from './geometry';
import { Cylinder, Lines } from './Hydraulics';
import { Road, type Kind } from './Road';
import { BAR_X, BAR_Y, BarLines, LeverLines } from './TwoLines';
import { linkNames } from './words';

const DRAWN = 218;

interface ForceLineProps {
  solved: PathView;
  state: StateView;
  now: Figures;
  found: FoundLine | null;
  /** What the figures behind are: as found, or the setup in use while another is tried. */
  behind: string;
  /** What each change bought at this push; null where the two cannot be compared. */
  gains: readonly Gain[] | null;
  match: Match;
  side: BandSide;
  onSide: (side: BandSide) => void;
  name: string;
  kind: Kind;
  on: number | null;
  onLink: (link: number) => void;
  /** The pin moved to so many mm from the pivot, the bar's share set: absent where it cannot be. */
  onPin: ((mm: number, gesture: string) => Promise<unknown>) | null;
  onBar: ((share: number, gesture: string) => Promise<unknown>) | null;
  description: string;
  /** Without what each link does to the push: a laptop of little height. */
  short?: boolean;
}

/** Drawn again only when the push or a part has moved. */
export const ForceLine = memo(function ForceLine(props: ForceLineProps) {
  const { solved, state, now, found, behind, kind, description, short = false } = props;
  const { parts } = solved;
  const rows = rowsOf(solved);
  const lines = drawnLines(solved);
  const own = (i: number) => {
    const row = rows[i];
    const at = row ? now.lines[row.system]?.stations[row.station.name] : undefined;
    return row && at ? (at.torque * row.station.wheels) / row.station.rolling_radius_mm : 0;
  };
  const total = own(0) + own(1);
  const share = total > 0 ? own(0) / total : 1;
  const widths = [r2(FORCE * share), r2(FORCE * (1 - share))] as const;
  const wasRows = found ? rowsOf(found.solved) : [];
  const two = lines.length > 1;
  const twin = !two && parts.cylinder.kind === 'twin';
  const band = found !== null && !two;
  const top = DRAWN + (found ? 16 : 0) + (band ? BAND + 4 : 0);
  const height = top + (short ? 0 : CHAIN + 2);
  const names = linkNames(parts.pedal.kind, two);
  const { side, onSide } = props;
  const [ref, wide] = useWidth<HTMLDivElement>(WIDTH);
  const scale = wide / WIDTH;
  const level = twin ? BAR_Y : AXIS.front;
  const { pin, k } = standing(parts, now.travel, level);
  const front = parts.cylinder.chambers.find((c) => c.circuit === 'front')?.share ?? 0.5;
  const pressed = useMemo(() => (band ? { y: DRAWN + 14, side, onSide } : null), [band, side, onSide]);
  return (
    <Over ref={ref}>
      <svg
        width="100%"
        viewBox={`0 0 ${WIDTH} ${height}`}
        role="img"
        aria-label={description}
        style={{ aspectRatio: `${WIDTH} / ${height}`, contain: 'size layout style' }}
      >
        {names.map((link, i) => (
          <LinkHead key={link} x={ENDS[i] ?? 0} n={i} name={link} on={props.on === i} />
        ))}
        {two ? (
          <LeverLines lines={lines} rows={rows} now={now} widths={widths} />
        ) : (
          <>
            <FootAndPedal
              parts={parts}
              now={now}
              found={found}
              y={twin ? BAR_Y : AXIS.front}
              rodTo={twin ? BAR_X - 14 : BODY.x + 14}
            />
            <BoosterShell x={254} y={twin ? BAR_Y : AXIS.front} present={parts.booster !== null} />
            <Words x={269} y={(twin ? BAR_Y : AXIS.front) + 46} as="label-quiet" at="middle">
              {parts.booster ? parts.booster.kind : 'none'}
            </Words>
            <Figure x={213} y={(twin ? BAR_Y : AXIS.front) - OVER} at="middle" {...force(now.rod)} />
            {twin ? (
              <BarLines solved={solved} rows={rows} now={now} widths={widths} />
            ) : (
              <>
                <Lines parts={parts} rows={rows} now={now} />
                <Cylinder parts={parts} now={now} found={found} />
              </>
            )}
          </>
        )}
        {rows.map((row, i) => (
          <BrakeRow
            key={`${row.system} ${row.station.name}`}
            row={row}
            was={wasRows.find((w) => w.station.axle === row.station.axle)?.station ?? null}
            now={now}
            share={i === 0 ? share : 1 - share}
            rotors={rotorScale([...rows, ...wasRows])}
          />
        ))}
        <Road rows={rows} state={state} kind={kind} now={now} widths={widths} />
        {found && <AsFound found={found} words={behind} y={DRAWN + 8} />}
        {band && <Band gains={props.gains} match={props.match} side={props.side} name={props.name} y={DRAWN + 14} />}
        {!short && <Chain solved={solved} now={now} weight={state.balance.weight_n} top={top} />}
      </svg>
      {!two && props.onPin && (
        <DragRing
          label="Pin, from the pivot"
          value={parts.pedal.pivot_to_pin_mm}
          least={Math.max(5, Math.ceil(parts.pedal.pivot_to_pad_mm * 0.05))}
          most={Math.floor(parts.pedal.pivot_to_pad_mm * 0.6)}
          step={1}
          perPixel={1 / (k * scale)}
          left={`${(pin[0] / WIDTH) * 100}%`}
          top={`${(pin[1] / height) * 100}%`}
          text={(mm) => `pin ${written(dimension(mm))}`}
          onTake={props.onPin}
        />
      )}
      {twin && props.onBar && (
        <DragRing
          label="Bar, the front’s share"
          value={front}
          least={0.3}
          most={0.8}
          step={0.005}
          perPixel={-1 / ((AXIS.rear - AXIS.front) * scale)}
          left={`${(BAR_X / WIDTH) * 100}%`}
          top={`${((AXIS.rear - front * (AXIS.rear - AXIS.front)) / height) * 100}%`}
          text={(share) => `front ${(share * 100).toFixed(1)} %`}
          onTake={props.onBar}
        />
      )}
      <Hits links={names} on={props.on} onLink={props.onLink} height={height} band={pressed} />
    </Over>
  );
});

interface HeadProps {
  x: number;
  n: number;
  name: string;
  on: boolean;
}
const LinkHead = memo(function LinkHead({ x, n, name, on }: HeadProps) {
  return (
    <>
      <Balloon x={x + 9} y={13} n={n + 1} on={on} />
      <Words x={x + 23} y={17.5} as="name">
        {name}
      </Words>
    </>
  );
});

const Over = styled.div`
  position: relative;
  .hit {
    position: absolute;
    border: 0;
    padding: 0;
    background: none;
  }
  .hit[data-focus-visible] {
    outline: var(--r-heavy) solid var(--ink);
  }
  @media print {
    .hit {
      display: none;
    }
  }
`;
interface HitsProps {
  links: readonly string[];
  on: number | null;
  onLink: (link: number) => void;
  height: number;
  band: { y: number; side: BandSide; onSide: (side: BandSide) => void } | null;
}
/** What can be pressed in the drawing, laid over it: each link's head opens its working, the band shows another side. */
const Hits = memo(function Hits({ links, on, onLink, height, band }: HitsProps) {
  const across = (x: number) => `${(x / WIDTH) * 100}%`;
  const down = (y: number) => `${(y / height) * 100}%`;
  return (
    <>
      {links.map((name, i) => (
        <Button
          key={name}
          className="hit"
          aria-label={`${name}: working`}
          aria-pressed={on === i}
          style={{ left: across(ENDS[i] ?? 0), width: across(30 + name.length * 7.4), top: 0, height: down(28) }}
          onPress={() => onLink(i)}
        />
      ))}
      {band && (
        <Button
          className="hit"
          aria-label={`What each change bought: ${band.side} brake. Show another side`}
          style={{ left: 0, width: '100%', top: down(band.y), height: down(BAND) }}
          onPress={() => band.onSide(band.side)}
        />
      )}
    </>
  );
});
