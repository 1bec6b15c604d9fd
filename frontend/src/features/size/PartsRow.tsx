/** The parts under the line, as fields: what each link is, what it was, and what a person can change about it. */
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import type { Step } from '../../api/jobs';
import type { Bore, Solved, StateView, StationParts } from '../../api/types';
import { Field } from '../../ui/Field';
import { asTyped, grouped, newtons, poundsForce, psi, size } from '../../units/format';
import { kneeStep, nextBore, typed, valueAt, type Place } from './edits';
import type { Figures } from './figures';
import { ENDS, onAxle, type FoundLine } from './ForceLine';
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
const Own = styled.p`
  font: var(--w-firm) var(--t-name) / var(--snug) var(--letter);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
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
const Pair = styled.div`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  column-gap: var(--s4);
  row-gap: var(--s2);
  align-items: baseline;
  > * {
    grid-column: 1 / 3;
    display: grid;
    grid-template-columns: subgrid;
  }
`;
const Steps = styled.span`
  display: inline-flex;
  button {
    width: var(--s24);
    height: var(--s24);
    border: 0;
    padding: 0;
    background: none;
    color: var(--plan);
    display: grid;
    place-items: center;
  }
  button[data-disabled] {
    color: var(--rule);
  }
  @media (pointer: coarse) {
    button {
      width: var(--target);
      height: var(--target);
    }
  }
`;
const BoreLine = styled.div`
  display: flex;
  align-items: center;
  gap: var(--s6);
  > :first-child {
    flex: 1;
    max-width: 110px;
  }
`;

export interface PartsProps {
  place: Place;
  solved: Solved;
  state: StateView;
  now: Figures;
  found: FoundLine | null;
  against: string;
  bores: readonly Bore[];
  onStep: (step: Step) => Promise<unknown>;
}

const Triangle = ({ left = false }: { left?: boolean }) => (
  <svg width="8" height="10" viewBox="0 0 8 10" aria-hidden="true">
    <path d={left ? 'M8,0L8,10L0,5Z' : 'M0,0L0,10L8,5Z'} fill="currentColor" style={{ fill: 'currentColor' }} />
  </svg>
);

/** The bore: typed, or stepped through the standard sizes by keys and triangles. */
export function BoreField({ place, solved, bores, onStep }: Pick<PartsProps, 'place' | 'solved' | 'bores' | 'onStep'>) {
  const path = `${place.root}.systems.0.cylinder.bore_mm`;
  const now = solved.parts.cylinder.bore_mm;
  const step = (direction: 1 | -1) => {
    const next = nextBore(bores, now, direction);
    if (next) void onStep({ label: `bore ${next.name}`, edits: [{ path, value: next.name }] }).catch(() => undefined);
  };
  return (
    <BoreLine>
      <Field
        label="Cylinder bore"
        shown={false}
        value={asTyped(valueAt(place.document, path), 'mm')}
        onCommit={(text) => onStep(typed('bore', path, text))}
        onStep={step}
      />
      <Steps>
        <Button aria-label="Next smaller standard bore" isDisabled={!nextBore(bores, now, -1)} onPress={() => step(-1)}>
          <Triangle left />
        </Button>
        <Button aria-label="Next larger standard bore" isDisabled={!nextBore(bores, now, 1)} onPress={() => step(1)}>
          <Triangle />
        </Button>
      </Steps>
    </BoreLine>
  );
}

/** A length that steps by one millimetre. */
function Length({
  props,
  label,
  shown,
  path,
  mm,
}: {
  props: PartsProps;
  label: string;
  shown: string;
  path: string;
  mm: number;
}) {
  const { place, onStep } = props;
  const stepped = (direction: 1 | -1) => `${size(Math.round((mm + direction) * 100) / 100)} mm`;
  return (
    <Field
      label={shown || label}
      shown={shown !== ''}
      value={asTyped(valueAt(place.document, path), 'mm')}
      onCommit={(text) => onStep(typed(label, path, text))}
      onStep={(direction) =>
        void onStep({ label, gesture: `step-${path}`, edits: [{ path, value: stepped(direction) }] }).catch(
          () => undefined,
        )
      }
    />
  );
}

export function PedalFields(props: PartsProps) {
  const path = `${props.place.root}.systems.0.control`;
  const { pedal } = props.solved.parts;
  return (
    <Pair>
      <Length
        props={props}
        label="Pivot to pad"
        shown="pad"
        path={`${path}.pivot_to_pad_mm`}
        mm={pedal.pivot_to_pad_mm}
      />
      <Length
        props={props}
        label="Pivot to pin"
        shown="pin"
        path={`${path}.pivot_to_pin_mm`}
        mm={pedal.pivot_to_pin_mm}
      />
    </Pair>
  );
}

const stationPath = (place: Place, index: number) => `${place.root}.systems.0.stations.${index}`;
const side = (s: StationParts) => (s.axle === 'front' ? 'F' : 'R');

export function ValveFields({ place, solved, onStep }: PartsProps) {
  const index = solved.parts.stations.findIndex((s) => s.axle === 'rear');
  const station = solved.parts.stations[index];
  if (!station) return <Own>no rear line</Own>;
  const path = `${stationPath(place, index)}.devices`;
  const knee =
    station.valve_place === null
      ? ''
      : asTyped(valueAt(place.document, `${path}.${station.valve_place}.knee_kpa`), 'kPa');
  return (
    <Pair>
      <Field
        label="knee"
        value={knee}
        placeholder="no valve"
        onCommit={(text) => onStep(kneeStep(place, station, index, text))}
      />
      {station.valve_place !== null && (
        <Field
          label="slope"
          value={size(station.valve?.slope ?? 0)}
          onCommit={(text) => onStep(typed('valve slope', `${path}.${station.valve_place}.slope`, text))}
        />
      )}
    </Pair>
  );
}

export function PistonFields({ place, solved, onStep }: PartsProps) {
  return (
    <Pair>
      {solved.parts.stations.map((s, i) => {
        const path = `${stationPath(place, i)}.brake.${s.disc ? 'pistons_mm' : 'wheel_cylinder_mm'}`;
        const own = valueAt(place.document, path);
        return (
          <Field
            key={s.name}
            label={s.disc ? side(s) : `${side(s)} drum`}
            value={Array.isArray(own) ? grouped(own as (string | number)[]) : asTyped(own, 'mm')}
            onCommit={(text) => onStep(typed(`${s.name} pistons`, path, text))}
          />
        );
      })}
    </Pair>
  );
}

export function RotorFields(props: PartsProps) {
  return (
    <Pair>
      {props.solved.parts.stations.map((s, i) => (
        <Length
          key={s.name}
          props={props}
          label={`${s.name} ${s.disc ? 'rotor' : 'drum'} diameter`}
          shown={s.disc ? side(s) : `${side(s)} drum`}
          path={`${stationPath(props.place, i)}.brake.${s.disc ? 'rotor_diameter_mm' : 'drum_diameter_mm'}`}
          mm={s.disc?.rotor_diameter_mm ?? s.drum?.drum_diameter_mm ?? 0}
        />
      ))}
    </Pair>
  );
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

export function PartsRow(props: PartsProps) {
  const { solved, state, now, found } = props;
  const { parts } = solved;
  const tyre = parts.stations[0];
  const slides = sliding(now);
  const rear = onAxle(parts, 'rear');
  return (
    <Row>
      <div>
        <Own>
          {newtons(now.push)} N, {poundsForce(now.push)} lbf
        </Own>
        <Small>{lighter(state && found ? (solved.against_found[0] ?? null) : null)}</Small>
      </div>
      <div>
        <PedalFields {...props} />
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
        <BoreField {...props} />
        <Small>
          {parts.cylinder.kind}, {size(parts.cylinder.bore_mm)} mm
        </Small>
        {found && (
          <Small data-was>
            was {boreName(found.solved.parts)}, {size(found.solved.parts.cylinder.bore_mm)} mm
          </Small>
        )}
      </div>
      <div>
        <ValveFields {...props} />
        {rear && <Small>{psi(now.stations[rear.name]?.outlet ?? 0)} psi at the rear</Small>}
      </div>
      <div>
        <PistonFields {...props} />
        {found ? <Small data-was>was {wasPistons(found)}</Small> : <Small>{caliperWords(solved)}</Small>}
      </div>
      <div>
        <RotorFields {...props} />
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
}
