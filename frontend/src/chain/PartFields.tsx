/** The parts as fields: what a person can change about each link, typed or stepped. */
import { memo } from 'react';
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import type { Bore, PathView, StationParts, Step } from '../api/types';
import { Field } from '../ui/Field';
import { asTyped, grouped, size } from '../units/format';
import { kneeStep, nextBore, stationPath, typedStep, valueAt, valueStep, type Place } from './place';

export const Own = styled.p`
  font: var(--w-firm) var(--t-name) / var(--snug) var(--letter);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
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

/** What the fields need: nothing that moves with the push, so that a scrub does not draw them again. */
export interface FieldsProps {
  place: Place;
  solved: PathView;
  bores: readonly Bore[];
  onStep: (step: Step) => Promise<unknown>;
}

const Triangle = ({ left = false }: { left?: boolean }) => (
  <svg width="8" height="10" viewBox="0 0 8 10" aria-hidden="true">
    <path d={left ? 'M8,0L8,10L0,5Z' : 'M0,0L0,10L8,5Z'} fill="currentColor" style={{ fill: 'currentColor' }} />
  </svg>
);

/** Two cylinders on a bar: each bore, and the bar's share. */
const TwinFields = memo(function TwinFields({ place, onStep }: FieldsProps) {
  const inCylinder = (path: string) => `${place.control}.cylinder.${path}`;
  const rows = [
    ['F', 'front bore', inCylinder('front.bore_mm'), 'mm'],
    ['R', 'rear bore', inCylinder('rear.bore_mm'), 'mm'],
    ['bar', 'front’s share of the bar', inCylinder('bar.front_share'), ''],
  ] as const;
  return (
    <Pair>
      {rows.map(([letter, label, path, unit]) => {
        const own = valueAt(place.document, path);
        if (own === undefined) return null;
        return (
          <Field
            key={path}
            label={letter}
            name={label}
            value={asTyped(own, unit)}
            onCommit={(text) => onStep(typedStep(place, label, path, text))}
          />
        );
      })}
    </Pair>
  );
});

export function CylinderFields(props: FieldsProps) {
  return props.solved.parts.cylinder.kind === 'twin' ? <TwinFields {...props} /> : <BoreField {...props} />;
}

/** The bore: typed, or stepped through the standard sizes by keys and triangles. */
const BoreField = memo(function BoreField({ place, solved, bores, onStep }: FieldsProps) {
  const path = `${place.control}.cylinder.bore_mm`;
  const now = solved.parts.cylinder.bore_mm;
  const step = (direction: 1 | -1) => {
    const next = nextBore(bores, now, direction);
    if (next) void onStep(valueStep(place, `bore ${next.name}`, path, next.name)).catch(() => undefined);
  };
  return (
    <BoreLine>
      <Field
        label="Cylinder bore"
        shown={false}
        value={asTyped(valueAt(place.document, path), 'mm')}
        onCommit={(text) => onStep(typedStep(place, 'bore', path, text))}
        onStep={step}
      />
      <Steps className="noprint">
        <Button aria-label="Next smaller standard bore" isDisabled={!nextBore(bores, now, -1)} onPress={() => step(-1)}>
          <Triangle left />
        </Button>
        <Button aria-label="Next larger standard bore" isDisabled={!nextBore(bores, now, 1)} onPress={() => step(1)}>
          <Triangle />
        </Button>
      </Steps>
    </BoreLine>
  );
});

/** A length that steps by one millimetre. */
function Length({
  props,
  label,
  shown,
  named = false,
  path,
  mm,
}: {
  props: FieldsProps;
  label: string;
  shown: string;
  /** Whether it is called by its whole label: what is shown is only a letter. */
  named?: boolean;
  path: string;
  mm: number;
}) {
  const { place, onStep } = props;
  const stepped = (direction: 1 | -1) => `${size(Math.round((mm + direction) * 100) / 100)} mm`;
  return (
    <Field
      label={shown}
      name={named ? label : undefined}
      value={asTyped(valueAt(place.document, path), 'mm')}
      onCommit={(text) => onStep(typedStep(place, label, path, text))}
      onStep={(direction) =>
        void onStep(valueStep(place, label, path, stepped(direction), `step-${path}`)).catch(() => undefined)
      }
    />
  );
}

export const PedalFields = memo(function PedalFields(props: FieldsProps) {
  const path = `${props.place.control}.control`;
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
});

export const pistonsName = (s: StationParts) => `${s.name} ${s.disc ? 'pistons' : 'wheel cylinder'}`;
export const rotorName = (s: StationParts) => `${s.name} ${s.disc ? 'rotor' : 'drum'} diameter`;
export const side = (s: StationParts) => (s.axle === 'front' ? 'F' : 'R');

export const ValveFields = memo(function ValveFields({ place, solved, onStep }: FieldsProps) {
  const station = solved.parts.stations.find((s) => s.axle === 'rear');
  if (!station) return <Own>no rear line</Own>;
  const path = `${stationPath(place, station.name)}.devices`;
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
        onCommit={(text) => onStep(kneeStep(place, station, text))}
      />
      {station.valve_place !== null && (
        <Field
          label="slope"
          value={size(station.valve?.slope ?? 0)}
          onCommit={(text) => onStep(typedStep(place, 'valve slope', `${path}.${station.valve_place}.slope`, text))}
        />
      )}
    </Pair>
  );
});

export const PistonFields = memo(function PistonFields({ place, solved, onStep }: FieldsProps) {
  return (
    <Pair>
      {solved.parts.stations.map((s) => {
        const path = `${stationPath(place, s.name)}.brake.${s.disc ? 'pistons_mm' : 'wheel_cylinder_mm'}`;
        const own = valueAt(place.document, path);
        return (
          <Field
            key={s.name}
            label={s.disc ? side(s) : `${side(s)} drum`}
            name={pistonsName(s)}
            value={Array.isArray(own) ? grouped(own as (string | number)[]) : asTyped(own, 'mm')}
            onCommit={(text) => onStep(typedStep(place, pistonsName(s), path, text))}
          />
        );
      })}
    </Pair>
  );
});

export const RotorFields = memo(function RotorFields(props: FieldsProps) {
  return (
    <Pair>
      {props.solved.parts.stations.map((s) => (
        <Length
          key={s.name}
          props={props}
          label={rotorName(s)}
          named
          shown={s.disc ? side(s) : `${side(s)} drum`}
          path={`${stationPath(props.place, s.name)}.brake.${s.disc ? 'rotor_diameter_mm' : 'drum_diameter_mm'}`}
          mm={s.disc?.rotor_diameter_mm ?? s.drum?.drum_diameter_mm ?? 0}
        />
      ))}
    </Pair>
  );
});
