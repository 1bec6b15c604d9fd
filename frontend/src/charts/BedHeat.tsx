/**
 * Rotor temperatures over the clock of a bedding recipe or of a row of stops, the slow-downs as a comb below: solid where driven,
 * phantom where predicted; a ring where a temperature was read.
 */
import { Box, Line, Path, Ring, Words, poly, type Point } from '../drawings/ink';
import { heatOf, shownHeat } from '../units/display';

interface Braked {
  number: number;
  starts_at_s: number;
  from_kmh: number;
  driven: boolean;
  fits: boolean;
  rotors: Readonly<Record<string, { start_c: number; peak_c: number; read_c?: number | null } | null>>;
}
interface BedHeatProps {
  slowDowns: readonly Braked[];
  stations: readonly {
    name: string;
    low: number | null;
    high: number | null;
    cooled: number | null;
    as: 'plan-thin' | 'edge';
  }[];
  wholeS: number;
  width: number;
  height: number;
  description: string;
}
const STEP_C = [20, 50, 100, 200];
const STEP_S = [30, 60, 120, 300, 600, 1200];

export function BedHeat({ slowDowns, stations, wholeS, width, height, description }: BedHeatProps) {
  const peaks = slowDowns.flatMap((s) => Object.values(s.rotors).flatMap((r) => (r ? [r.peak_c, r.read_c ?? 0] : [])));
  const highs = stations.flatMap((s) => (s.high === null ? [] : [s.high]));
  const top = Math.max(60, ...peaks, ...highs) * 1.08;
  const [left, foot, comb] = [40, height - 66, height - 28];
  const most = Math.max(1, wholeS);
  const x = (s: number) => left + (s / most) * (width - left - 12);
  const y = (c: number) => 8 + (1 - c / top) * (foot - 8);
  const shown = [shownHeat(0), shownHeat(top)] as const;
  const stepC = STEP_C.find((s) => (shown[1] - shown[0]) / s <= 5) ?? 400;
  const firstC = Math.ceil(shown[0] / stepC);
  const yOf = (degrees: number) => y(((degrees - shown[0]) / (shown[1] - shown[0])) * top);
  const stepS = STEP_S.find((s) => most / s <= 7) ?? 3600;
  const fast = Math.max(1, ...slowDowns.map((s) => s.from_kmh));
  return (
    <svg width={width} height={height} role="img" aria-label={description}>
      {Array.from({ length: Math.floor(shown[1] / stepC) - firstC + 1 }, (_, i) => (firstC + i) * stepC).map((c) => (
        <g key={c}>
          <Line a={[left, yOf(c)]} b={[width - 12, yOf(c)]} as="scale-line" />
          <Words x={left - 6} y={yOf(c) + 4} at="end">
            {c}
          </Words>
        </g>
      ))}
      <Words x={left + 4} y={12} as="label-quiet">
        {`rotor, ${heatOf(0).unit}`}
      </Words>
      {stations.map(({ name, low, high }) =>
        low !== null && high !== null ? (
          <Box key={name} x={left} y={y(high)} w={width - left - 12} h={y(low) - y(high)} as="comfort" />
        ) : null,
      )}
      {stations.map(({ name, cooled, as }) => {
        const driven: Point[] = slowDowns.flatMap((s, i) => {
          const rotor = s.rotors[name];
          if (!rotor) return [];
          const next = slowDowns[i + 1]?.starts_at_s ?? wholeS;
          const hot = s.starts_at_s + Math.min(8, (next - s.starts_at_s) / 3);
          return [[x(s.starts_at_s), y(rotor.start_c)] as const, [x(hot), y(rotor.peak_c)] as const];
        });
        const [end] = driven.slice(-1);
        const points: Point[] = end && cooled !== null ? [...driven, [x(wholeS), y(cooled)]] : driven;
        return (
          <g key={name}>
            <Path d={poly(points)} as={as} />
            {slowDowns.map((s) => {
              const read = s.rotors[name]?.read_c;
              return read == null ? null : <Ring key={s.number} x={x(s.starts_at_s)} y={y(read)} r={4} as={as} />;
            })}
            {end && (
              <Words x={Math.min(width - 40, end[0] + 4)} y={end[1] - 4} as={as === 'edge' ? 'label' : 'label-plan'}>
                {name}
              </Words>
            )}
          </g>
        );
      })}
      <Line a={[left, comb]} b={[width - 12, comb]} as="edge" />
      {slowDowns.map((s) => {
        const high = 26 * (s.from_kmh / fast);
        return (
          <Box
            key={s.number}
            x={x(s.starts_at_s)}
            y={comb - high}
            w={Math.max(3, (width / Math.max(1, slowDowns.length)) * 0.12)}
            h={high}
            as={s.driven ? 'solid' : s.fits ? 'edge' : 'found'}
          />
        );
      })}
      {Array.from({ length: Math.floor(most / stepS) + 1 }, (_, i) => i * stepS).map((s) => (
        <Words key={s} x={x(s)} y={comb + 16} at="middle">
          {stepS < 60 ? s : s / 60}
        </Words>
      ))}
      <Words x={width - 12} y={height - 1} as="label-quiet" at="end">
        {stepS < 60 ? 'seconds' : 'minutes'}
      </Words>
    </svg>
  );
}
