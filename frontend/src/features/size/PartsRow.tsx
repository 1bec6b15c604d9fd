/** The parts under the line, as fields: what each link is, what it was, and what a person can change about it. */
import { memo } from 'react';
import styled from 'styled-components';
import type { Solved, StateView } from '../../api/types';
import { grouped, size } from '../../units/format';
import { force, otherForce, otherPressure, written } from '../../units/shown';
import type { Figures } from './figures';
import { ENDS, onAxle, type FoundLine } from './line/geometry';
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
export interface PartsProps extends FieldsProps {
  state: StateView;
  now: Figures;
  found: FoundLine | null;
  against: string;
}

export const wasPistons = (was: Solved) =>
  was.parts.stations
    .map((s) => `${side(s)} ${s.disc ? grouped(s.disc.pistons_mm) : `drum ${size(s.drum?.wheel_cylinder_mm ?? 0)}`}`)
    .join(', ')
    .replaceAll(' mm', '');
export const wasRotors = (was: Solved) =>
  was.parts.stations
    .map((s) => `${side(s)} ${s.disc ? size(s.disc.rotor_diameter_mm) : `drum ${size(s.drum?.drum_diameter_mm ?? 0)}`}`)
    .join(', ');
export const boreName = (parts: Solved['parts']) => parts.cylinder.bore_name ?? `${size(parts.cylinder.bore_mm)} mm`;
export const caliperWords = (solved: Solved) =>
  solved.parts.stations
    .map((s) => `${side(s)} ${s.disc ? (s.disc.fixed ? 'fixed, a side' : 'floating') : 'drum'}`)
    .join(', ');
export const rotorWords = (solved: Solved) =>
  solved.parts.stations.map((s) => `${side(s)} ${s.disc ? (s.disc.vented ? 'vented' : 'solid') : 'drum'}`).join(', ');

interface CellsProps extends FieldsProps {
  /** What stands behind: it does not move with the push. */
  was: Solved | null;
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
          >{`was ${size(was.parts.pedal.pivot_to_pad_mm)} : ${size(was.parts.pedal.pivot_to_pin_mm)}`}</Small>
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
        {!twin && <Small>{`${parts.cylinder.kind}, ${size(parts.cylinder.bore_mm)} mm`}</Small>}
        {was && !twin && <Small data-was>{`was ${boreName(was.parts)}, ${size(was.parts.cylinder.bore_mm)} mm`}</Small>}
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
        <Small>{`rolls on ${Math.round(tyre?.rolling_radius_mm ?? 0)} mm`}</Small>
        {was && <Small data-was>{`was ${wasTyre === tyre?.tyre ? 'the same' : (wasTyre ?? 'by radius')}`}</Small>}
      </div>
    </>
  );
});

export const PartsRow = memo(function PartsRow(props: PartsProps) {
  const { place, solved, bores, onStep, state, now, found } = props;
  const cells: CellsProps = { place, solved, bores, onStep, was: found?.solved ?? null };
  const slides = sliding(now);
  const rear = onAxle(solved.parts, 'rear');
  return (
    <Row>
      <div>
        <Own>{`${written(force(now.push))}, ${written(otherForce(now.push))}`}</Own>
        <Small>{lighter(found ? (solved.against_found[0] ?? null) : null)}</Small>
        {solved.lines.length > 1 && <Small>{`the ${solved.system.replace(/_/g, ' ')}’s parts:`}</Small>}
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
