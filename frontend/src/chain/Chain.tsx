/** The figures under the drawing: what stands behind, and the factor of every link. */
import type { PathView } from '../api/types';
import { Dimension, Line, Words } from '../drawings/ink';
import { decel } from '../units/format';
import { force, great, pressure, torque, written, type Displayed } from '../units/display';
import type { Figures } from './figures';
import { factors } from './words';
import { ENDS, rowsOf, WIDTH, type FoundLine, type Row } from './geometry';

export const CHAIN = 46;

/** What stands behind the plan, in figures of its own. */
export function AsFound({ found, words, y }: { found: FoundLine; words: string; y: number }) {
  const { now, solved } = found;
  const rows = rowsOf(solved);
  const own = (row: Row | undefined) => (row ? now.lines[row.system]?.stations[row.station.name] : undefined);
  const first = own(rows[0]);
  const drums = rows.filter((r) => r.station.drum).map((r) => `${r.station.axle} drum`);
  const both = (of: (row: Row) => Displayed) => {
    const all = rows.map(of);
    return `${all.map((s) => s.v).join(', ')} ${all[0]?.unit ?? ''}`;
  };
  const after = (i: number) => (ENDS[i] ?? 0) + 12;
  const texts: [number, string][] = [
    [0, `${words} ${written(force(now.push))}`],
    [after(1), written(force(now.rod))],
    [after(3), written(pressure(first?.inlet ?? 0))],
    [after(5), [first?.clamp != null ? written(great(first.clamp)) : '', ...drums].filter(Boolean).join(', ')],
    [after(6), both((r) => torque(own(r)?.torque ?? 0))],
    [after(7), both((r) => great(((own(r)?.torque ?? 0) * r.station.wheels * 1000) / r.station.rolling_radius_mm))],
  ];
  return (
    <>
      {texts.map(([x, text]) => (
        <Words key={x} x={x} y={y} as="figure-found">
          {text}
        </Words>
      ))}
      <Words x={WIDTH} y={y} as="figure-found" at="end">
        {decel(now.decel)} g
      </Words>
    </>
  );
}

interface ChainProps {
  solved: PathView;
  now: Figures;
  weight: number;
  top: number;
}
/** What each link does to what comes in, between arrows: in times factor is out. */
export function Chain({ solved, now, weight, top }: ChainProps) {
  const rows = factors(solved, now, weight);
  return (
    <>
      {ENDS.map((x) => (
        <Line key={x} a={[x, top]} b={[x, top + CHAIN]} />
      ))}
      {rows.map((texts, i) => {
        const x1 = (ENDS[i] ?? 0) + 1;
        const x2 = (ENDS[i + 1] ?? 0) - 1;
        const gap = (t: string) => Math.min(t.length * 6.7 + 10, x2 - x1 - 16);
        return texts.map((text, row) => (
          <Dimension
            key={row}
            x1={x1}
            x2={x2}
            y={texts.length > 1 ? top + 14 + row * 20 : top + 24}
            label={text}
            gap={gap(text)}
          />
        ));
      })}
    </>
  );
}
