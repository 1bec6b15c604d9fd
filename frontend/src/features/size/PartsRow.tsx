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

export const wasPistons = (found: FoundLine) =>
  found.solved.parts.stations
    .map((s) => `${side(s)} ${s.disc ? grouped(s.disc.pistons_mm) : `drum ${size(s.drum?.wheel_cylinder_mm ?? 0)}`}`)
    .join(', ')
    .replaceAll(' mm', '');
export const wasRotors = (found: FoundLine) =>
  found.solved.parts.stations
    .map((s) => `${side(s)} ${s.disc ? size(s.disc.rotor_diameter_mm) : `drum ${size(s.drum?.drum_diameter_mm ?? 0)}`}`)
    .join(', ');
export const boreName = (parts: Solved['parts']) => parts.cylinder.bore_name ?? `${size(parts.cylinder.bore_mm)} mm`;
export const caliperWords = (solved: Solved) =>
  solved.parts.stations
    .map((s) => `${side(s)} ${s.disc ? (s.disc.fixed ? 'fixed, a side' : 'floating') : 'drum'}`)
    .join(', ');
export const rotorWords = (solved: Solved) =>
  solved.parts.stations.map((s) => `${side(s)} ${s.disc ? (s.disc.vented ? 'vented' : 'solid') : 'drum'}`).join(', ');

export const PartsRow = memo(function PartsRow(props: PartsProps) {
  const { place, solved, bores, onStep, state, now, found } = props;
  const { parts } = solved;
  const fields: FieldsProps = { place, solved, bores, onStep };
  const tyre = parts.stations[0];
  const slides = sliding(now);
  const rear = onAxle(parts, 'rear');
  return (
    <Row>
      <div>
        <Own>
          {written(force(now.push))}, {written(otherForce(now.push))}
        </Own>
        <Small>{lighter(state && found ? (solved.against_found[0] ?? null) : null)}</Small>
        {solved.lines.length > 1 && <Small>the {solved.system.replace(/_/g, ' ')}’s parts:</Small>}
      </div>
      <div>
        <PedalFields {...fields} />
        {found && (
          <Small data-was>
            was {size(found.solved.parts.pedal.pivot_to_pad_mm)} : {size(found.solved.parts.pedal.pivot_to_pin_mm)}
          </Small>
        )}
      </div>
      <div>
        <Own>{parts.booster ? parts.booster.kind : 'none'}</Own>
        {found && found.solved.parts.booster?.kind !== parts.booster?.kind && (
          <Small data-was>was {found.solved.parts.booster?.kind ?? 'none'}</Small>
        )}
      </div>
      <div>
        <CylinderFields {...fields} />
        {parts.cylinder.kind !== 'twin' && (
          <Small>
            {parts.cylinder.kind}, {size(parts.cylinder.bore_mm)} mm
          </Small>
        )}
        {found && parts.cylinder.kind !== 'twin' && (
          <Small data-was>
            was {boreName(found.solved.parts)}, {size(found.solved.parts.cylinder.bore_mm)} mm
          </Small>
        )}
      </div>
      <div>
        <ValveFields {...fields} />
        {rear && <Small>{written(otherPressure(now.stations[rear.name]?.outlet ?? 0))} at the rear</Small>}
      </div>
      <div>
        <PistonFields {...fields} />
        {found ? <Small data-was>was {wasPistons(found)}</Small> : <Small>{caliperWords(solved)}</Small>}
      </div>
      <div>
        <RotorFields {...fields} />
        {found ? <Small data-was>was {wasRotors(found)}</Small> : <Small>{rotorWords(solved)}</Small>}
      </div>
      <div>
        <Own>{tyre?.tyre ?? 'by radius'}</Own>
        <Small>rolls on {Math.round(tyre?.rolling_radius_mm ?? 0)} mm</Small>
        {found && (
          <Small data-was>
            was{' '}
            {found.solved.parts.stations[0]?.tyre === tyre?.tyre ? 'the same' : found.solved.parts.stations[0]?.tyre}
          </Small>
        )}
      </div>
      <div>
        <Own>{firstLock(state)}</Own>
        {slides ? <Small data-danger>{slides}</Small> : <Small>{gripUsed(state)}</Small>}
        {found && <Small data-was>was {firstLock(found.state)}</Small>}
      </div>
    </Row>
  );
});
