/** A row of stops driven one after another: the rotors by the heat model beside what was read, and the bite from stop to stop. */
import type { RowView } from '../../api/types';
import { BedHeat } from '../../charts/BedHeat';
import { DataTable } from '../../ui/DataTable';
import { Mark } from '../../ui/Mark';
import { Panel } from '../../ui/Panel';
import { useWidth } from '../../ui/useWidth';
import { heatOf, speedOf, written } from '../../units/display';
import { inChosenUnits } from '../../units/sentences';

const degrees = (value: number | null | undefined) => (value == null ? '' : written(heatOf(value)));

export function Row({ row }: { row: RowView }) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const read = row.stops.some((s) => row.stations.some((name) => s.rotors[name]?.read_c != null));
  return (
    <Panel ref={ref}>
      {row.sentence !== '' && (
        <p className="said">
          <Mark state={row.level} size={18} />
          <span>{inChosenUnits(row.sentence)}</span>
        </p>
      )}
      {row.needs !== '' && <p>{row.needs}</p>}
      {row.stations.length > 0 && (
        <BedHeat
          slowDowns={row.stops.map((s) => ({ ...s, driven: true, fits: true }))}
          stations={row.stations.map((name, i) => ({
            name,
            low: null,
            high: null,
            cooled: null,
            as: i === 0 ? 'plan-thin' : 'edge',
          }))}
          wholeS={row.whole_s}
          width={width}
          height={260}
          description={`Rotor temperatures over the row: ${row.sentence}`}
        />
      )}
      {row.stops.length > 0 && (
        <DataTable
          caption={`The row ${row.set}`}
          head={[
            'stop',
            'from',
            'bite, first = 100',
            ...row.stations.flatMap((s) => [`${s} hottest, model`, ...(read ? [`${s} read`] : [])]),
          ]}
          rows={row.stops.map((s) => [
            String(s.number),
            written(speedOf(s.from_kmh)),
            s.bite === null ? 'not known' : String(Math.round(100 * s.bite)),
            ...row.stations.flatMap((name) => [
              degrees(s.rotors[name]?.peak_c),
              ...(read ? [degrees(s.rotors[name]?.read_c)] : []),
            ]),
          ])}
        />
      )}
    </Panel>
  );
}
