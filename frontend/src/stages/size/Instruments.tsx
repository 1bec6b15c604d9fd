/** The strip of instruments: which three are looked at, each large when wanted; findings always beside them. */
import { memo, useReducer, type ComponentType } from 'react';
import { Choose } from '../../ui/Choose';
import { AsTable } from '../../ui/DataTable';
import { HeatView } from './opened';
import { Panel, Tool } from './Panel';
import { AdhesionView, BalanceView, FeelView, RatioView, TravelView, ValveView } from './views';
import { INSTRUMENTS, putInSlot, useInstrumentChoice, type Instrument } from './instrumentChoice';
import type { Reading } from './useSize';

/** Each takes of a reading what it shows. */
export const VIEWS: Record<Instrument, ComponentType<Reading & { height: number }>> = {
  feel: FeelView,
  balance: BalanceView,
  travel: TravelView,
  valve: ValveView,
  adhesion: AdhesionView,
  ratio: RatioView,
  heat: HeatView,
};

/** What a person chose to look at besides: which slot is large, which instruments stand as tables. */
interface Chosen {
  large: number | null;
  tables: readonly Instrument[];
}
type Choice = { type: 'large'; slot: number } | { type: 'table'; id: Instrument };
function choosing(state: Chosen, choice: Choice): Chosen {
  const { large, tables } = state;
  switch (choice.type) {
    case 'large':
      return { ...state, large: large === choice.slot ? null : choice.slot };
    case 'table':
      return {
        ...state,
        tables: tables.includes(choice.id) ? tables.filter((t) => t !== choice.id) : [...tables, choice.id],
      };
  }
}

interface HeadProps {
  id: Instrument;
  slot: number;
}
/** The heads do not move with the push. */
const Title = memo(function Title({ id, slot }: HeadProps) {
  return (
    <span className="title">
      <Choose
        quiet
        label={`Instrument ${slot + 1}`}
        value={id}
        options={INSTRUMENTS}
        onChange={(next) => putInSlot(slot, next as Instrument)}
      />
    </span>
  );
});
interface ToolsProps extends HeadProps {
  choose: (choice: Choice) => void;
  table: boolean;
  large: boolean;
  onWorking: () => void;
}
const Tools = memo(function Tools({ id, slot, choose, table, large, onWorking }: ToolsProps) {
  return (
    <span className="tools">
      {id === 'travel' && <Tool onPress={onWorking}>working</Tool>}{' '}
      <Tool aria-pressed={table} onPress={() => choose({ type: 'table', id })}>
        {table ? 'plot' : 'table'}
      </Tool>{' '}
      <Tool aria-pressed={large} onPress={() => choose({ type: 'large', slot })}>
        {large ? 'smaller' : 'large'}
      </Tool>
    </span>
  );
});

/** Where one axle brakes there is no balance to look at: something else stands there. */
const meant = (id: Instrument, chosen: readonly Instrument[], oneAxle: boolean): Instrument =>
  oneAxle && (id === 'balance' || id === 'adhesion')
    ? ((['heat', 'valve', 'ratio'] as const).find((other) => !chosen.includes(other)) ?? 'heat')
    : id;

interface StripProps {
  reading: Reading;
  height: number;
  onWorking: () => void;
}
export const InstrumentStrip = memo(function InstrumentStrip({ reading, height, onWorking }: StripProps) {
  const chosen = useInstrumentChoice();
  const [{ large, tables }, choose] = useReducer(choosing, { large: null, tables: [] });
  return (
    <>
      {chosen.map((wanted, i) => {
        const id = meant(wanted, chosen, reading.solved.one_axle);
        const known = INSTRUMENTS.find((k) => k.id === id);
        const View = VIEWS[id];
        if (!known || (large !== null && large !== i)) return null;
        const head = { id, slot: i };
        return (
          <Panel
            key={id}
            id={id}
            name={known.label}
            note={large === i ? known.note() : ''}
            large={large === i}
            title={<Title {...head} />}
            tools={
              <Tools {...head} choose={choose} table={tables.includes(id)} large={large === i} onWorking={onWorking} />
            }
          >
            <AsTable value={tables.includes(id)}>
              <View {...reading} height={height} />
            </AsTable>
          </Panel>
        );
      })}
    </>
  );
});
