/** The parts under the line, as fields: what each link is, what it was, and what a person can change about it. */
import { memo, useMemo, useState, type ReactNode } from 'react';
import styled from 'styled-components';
import type { PathView, StateView } from '../api/types';
import { grouped, size } from '../units/format';
import { dimension, force, lengthOf, otherForce, otherPressure, written } from '../units/display';
import { Choose } from '../ui/Choose';
import { placeOf } from './place';
import type { Figures } from './figures';
import { ENDS, figuresFor, onAxle, partsOf, type FoundLine } from './geometry';
import {
  CylinderFields,
  Own,
  PedalFields,
  PistonFields,
  RotorFields,
  side,
  ValveFields,
  type FieldsProps,
} from './PartFields';
import { firstLock, gripUsed, lighter, sliding } from './words';

const columns = ENDS.slice(1).map((end, i) => `minmax(0, ${end - (ENDS[i] ?? 0)}fr)`);

const Row = styled.div`
  display: grid;
  grid-template-columns: ${columns.join(' ')};
  border-top: var(--r-hair) solid var(--rule);
  > div {
    padding: var(--s3) var(--s5) var(--s4) var(--s6);
    border-left: var(--r-hair) solid var(--rule);
    min-width: 0;
  }
  > div:first-child {
    border-left: 0;
    padding-left: 0;
  }
`;
const Small = styled.p`
  font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
  color: var(--ink-2);
  &[data-was] {
    color: var(--found);
  }
  &[data-danger] {
    color: var(--danger);
  }
`;
const Whose = styled.div`
  > * {
    max-width: 100%;
  }
  .react-aria-Button {
    min-height: var(--s24);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .react-aria-Button[data-focus-visible] {
    outline-offset: calc(0px - var(--s2));
  }
`;
export interface PartsProps extends FieldsProps {
  state: StateView;
  now: Figures;
  found: FoundLine | null;
  against: string;
}

export const wasPistons = (was: PathView) =>
  was.parts.stations
    .map((s) => `${side(s)} ${s.disc ? grouped(s.disc.pistons_mm) : `drum ${size(s.drum?.wheel_cylinder_mm ?? 0)}`}`)
    .join(', ')
    .replaceAll(' mm', '');
export const wasRotors = (was: PathView) =>
  was.parts.stations
    .map((s) => `${side(s)} ${s.disc ? size(s.disc.rotor_diameter_mm) : `drum ${size(s.drum?.drum_diameter_mm ?? 0)}`}`)
    .join(', ');
/** Its kind as a mechanic says it: a tandem cylinder of a diagonal car is crossed. */
export const cylinderKind = ({ cylinder }: PathView['parts']) =>
  cylinder.crossed ? `${cylinder.kind}, crossed` : cylinder.kind;
export const boreName = (parts: PathView['parts']) =>
  parts.cylinder.bore_name ?? `${written(dimension(parts.cylinder.bore_mm))}`;
export const caliperWords = (solved: PathView) =>
  solved.parts.stations
    .map((s) => `${side(s)} ${s.disc ? (s.disc.fixed ? 'fixed, a side' : 'floating') : 'drum'}`)
    .join(', ');
export const rotorWords = (solved: PathView) =>
  solved.parts.stations.map((s) => `${side(s)} ${s.disc ? (s.disc.vented ? 'vented' : 'solid') : 'drum'}`).join(', ');

interface CellsProps extends FieldsProps {
  /** What stands behind: it does not move with the push. */
  was: PathView | null;
}
const PedalToCylinder = memo(function PedalToCylinder({ was, ...fields }: CellsProps) {
  const { parts } = fields.solved;
  const twin = parts.cylinder.kind === 'twin';
  return (
    <>
      <div>
        <PedalFields {...fields} />
        {was && (
          <Small
            data-was
          >{`was ${dimension(was.parts.pedal.pivot_to_pad_mm).v} : ${dimension(was.parts.pedal.pivot_to_pin_mm).v}`}</Small>
        )}
      </div>
      <div>
        <Own>{parts.booster ? parts.booster.kind : 'none'}</Own>
        {was && was.parts.booster?.kind !== parts.booster?.kind && (
          <Small data-was>{`was ${was.parts.booster?.kind ?? 'none'}`}</Small>
        )}
      </div>
      <div>
        <CylinderFields {...fields} />
        {!twin && <Small>{`${cylinderKind(parts)}, ${written(dimension(parts.cylinder.bore_mm))}`}</Small>}
        {was && !twin && (
          <Small data-was>{`was ${boreName(was.parts)}, ${written(dimension(was.parts.cylinder.bore_mm))}`}</Small>
        )}
      </div>
    </>
  );
});
const PistonsToTyre = memo(function PistonsToTyre({ was, ...fields }: CellsProps) {
  const { solved } = fields;
  const tyre = solved.parts.stations[0];
  const wasTyre = was?.parts.stations[0]?.tyre;
  return (
    <>
      <div>
        <PistonFields {...fields} />
        {was ? <Small data-was>{`was ${wasPistons(was)}`}</Small> : <Small>{caliperWords(solved)}</Small>}
      </div>
      <div>
        <RotorFields {...fields} />
        {was ? <Small data-was>{`was ${wasRotors(was)}`}</Small> : <Small>{rotorWords(solved)}</Small>}
      </div>
      <div>
        <Own>{tyre?.tyre ?? 'by radius'}</Own>
        <Small>{`rolls on ${written(lengthOf(tyre?.rolling_radius_mm ?? 0))}`}</Small>
        {was && <Small data-was>{`was ${wasTyre === tyre?.tyre ? 'the same' : (wasTyre ?? 'by radius')}`}</Small>}
      </div>
    </>
  );
});

type RowProps = Omit<PartsProps, 'against'> & { whose?: ReactNode };
const PartsRow = memo(function PartsRow({ place, solved, bores, onStep, state, now, found, whose }: RowProps) {
  const cells: CellsProps = { place, solved, bores, onStep, was: found?.solved ?? null };
  const slides = sliding(now);
  const rear = onAxle(solved.parts, 'rear');
  return (
    <Row>
      <div>
        <Own>{`${written(force(now.push))}, ${written(otherForce(now.push))}`}</Own>
        <Small>{lighter(found ? (solved.against_found[0] ?? null) : null)}</Small>
        {whose}
      </div>
      <PedalToCylinder {...cells} />
      <div>
        <ValveFields place={place} solved={solved} bores={bores} onStep={onStep} />
        {rear && <Small>{`${written(otherPressure(now.stations[rear.name]?.outlet ?? 0))} at the rear`}</Small>}
      </div>
      <PistonsToTyre {...cells} />
      <div>
        <Own>{firstLock(state)}</Own>
        {slides ? <Small data-danger>{slides}</Small> : <Small>{gripUsed(state)}</Small>}
        {found && <Small data-was>{`was ${firstLock(found.state)}`}</Small>}
      </div>
    </Row>
  );
});

type OfProps = Omit<PartsProps, 'against'>;
/** Of several controls one has its parts in the row: the one that is chosen there. */
function PartsOfOne(props: OfProps) {
  const { solved, now, found, place } = props;
  const [chosen, choose] = useState('');
  const system = solved.lines.some((l) => l.system === chosen) ? chosen : solved.system;
  const own = useMemo(() => partsOf(solved, system) ?? solved, [solved, system]);
  const figures = useMemo(() => figuresFor(solved, now, system), [solved, now, system]);
  const behind = useMemo(() => {
    const was = found && partsOf(found.solved, system);
    return found && was && { ...found, solved: was };
  }, [found, system]);
  const line = solved.lines.find((l) => l.system === system);
  const where = useMemo(() => placeOf(line, place.setup, place.document), [line, place]);
  const whose = useMemo(() => {
    const options = solved.lines.map((l) => ({ id: l.system, label: `${l.system.replace(/_/g, ' ')}’s parts` }));
    return (
      <Whose>
        <Choose quiet label="Whose parts the row shows" value={system} options={options} onChange={choose} />
      </Whose>
    );
  }, [solved.lines, system]);
  return <PartsRow {...props} place={where} solved={own} now={figures} found={behind} whose={whose} />;
}

const InOne = styled(Row)`
  > div {
    display: flex;
    align-items: center;
    gap: var(--s6);
    white-space: nowrap;
    overflow: hidden;
  }
  p:first-child {
    flex: none;
    max-width: 100%;
  }
  p {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  > div:nth-last-child(2) {
    justify-content: space-between;
  }
`;
/** The parts in one line, where there is no height for their fields. */
export const PartsInOne = memo(function PartsInOne({
  solved,
  state,
  now,
  found,
  children,
}: OfProps & { children: ReactNode }) {
  const { parts } = solved;
  const was = found?.solved ?? null;
  const several = solved.lines.length > 1;
  const rear = onAxle(parts, 'rear');
  const wasPin = was && dimension(was.parts.pedal.pivot_to_pin_mm).v;
  const pin = dimension(parts.pedal.pivot_to_pin_mm).v;
  const rotors = parts.stations.map(
    (s) => `${side(s)} ${s.disc ? size(s.disc.rotor_diameter_mm) : `drum ${size(s.drum?.drum_diameter_mm ?? 0)}`}`,
  );
  return (
    <InOne>
      <div>
        <Own>{lighter(found ? (solved.against_found[0] ?? null) : null) || written(force(now.push))}</Own>
      </div>
      <div>
        <Own>
          {several ? `${solved.lines.length} controls` : `${dimension(parts.pedal.pivot_to_pad_mm).v} : ${pin}`}
        </Own>
        {!several && wasPin && wasPin !== pin && <Small data-was title={wasPin}>{`was ${wasPin}`}</Small>}
      </div>
      <div>
        <Own>{parts.booster ? parts.booster.kind : 'none'}</Own>
      </div>
      <div>
        <Own>{parts.cylinder.kind === 'twin' ? 'two, on a bar' : boreName(parts)}</Own>
        {was && boreName(was.parts) !== boreName(parts) && <Small data-was>{`was ${boreName(was.parts)}`}</Small>}
      </div>
      <div>
        <Own>{rear ? `${written(otherPressure(now.stations[rear.name]?.outlet ?? 0))} rear` : ''}</Own>
      </div>
      <div>
        <Own>{wasPistons(solved)}</Own>
      </div>
      <div>
        <Own>{rotors.join(', ')}</Own>
      </div>
      <div>
        <Own>{parts.stations[0]?.tyre ?? 'by radius'}</Own>
        {children}
      </div>
      <div>
        <Own>{firstLock(state)}</Own>
      </div>
    </InOne>
  );
});

/** The row of a path's parts. */
export const PartsOf = (props: OfProps) =>
  props.solved.lines.length > 1 ? <PartsOfOne {...props} /> : <PartsRow {...props} />;
