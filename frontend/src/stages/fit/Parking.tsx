/** The parking brake: kept or lost, the grade it holds, what it stops alone. */
import styled from 'styled-components';
import { Choose } from '../../ui/Choose';
import { DataTable } from '../../ui/DataTable';
import { Field } from '../../ui/Field';
import { Mark } from '../../ui/Mark';
import { decel, percent } from '../../units/format';
import { force, written } from '../../units/display';
import type { Fit } from './useFit';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s6);
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s12);
    align-items: end;
  }
  .sized {
    display: grid;
    width: 112px;
  }
  .said {
    display: flex;
    gap: var(--s6);
    font-weight: var(--w-strong);
  }
  .said svg {
    flex: none;
  }
`;
const ACTUATORS = [
  { id: '', label: 'not looked at' },
  { id: 'caliper', label: 'a lever on the caliper' },
  { id: 'shoes', label: 'shoes in a drum' },
  { id: 'clamp', label: 'a clamp of its own, electric' },
];
const SHOES = [
  { id: '', label: 'as the drum' },
  { id: 'leading_trailing', label: 'leading and trailing' },
  { id: 'two_leading', label: 'two leading' },
  { id: 'duo_servo', label: 'duo-servo' },
];
const holds = (grade: number | null) => (grade === null ? 'any' : percent(grade));

export function Parking({ fit }: { fit: Fit }) {
  const { parking } = fit.view;
  const put = (key: string, id: string) => fit.onPut('parking brake', `${parking.path}.${key}`, id === '' ? null : id);
  const field = (key: string, label: string, value: string, hint: string, unit = '') => (
    <Field
      key={key}
      className="sized"
      saysRefused
      label={label}
      name={`parking brake: ${label}`}
      value={value}
      placeholder={hint}
      onCommit={(text) => fit.onType(`parking brake: ${label}`, `${parking.path}.${key}`, text, unit)}
    />
  );
  return (
    <Box>
      <h2>
        Parking brake
        <em>{parking.kept}</em>
      </h2>
      <div className="row">
        <Choose
          label="at the wheels"
          value={parking.actuator}
          options={ACTUATORS}
          onChange={(id) => put('actuator', id)}
        />
        {parking.actuator !== '' && parking.actuator !== 'clamp' && (
          <Choose
            label="pulled by"
            value={parking.control}
            options={[
              { id: 'hand', label: 'hand' },
              { id: 'foot', label: 'foot' },
            ]}
            onChange={(id) => put('control', id)}
          />
        )}
        {parking.actuator === 'shoes' && (
          <Choose label="shoes" value={parking.shoes} options={SHOES} onChange={(id) => put('shoes', id)} />
        )}
      </div>
      {parking.actuator !== '' && (
        <div className="row">
          {parking.actuator === 'clamp'
            ? field('clamp_n', 'clamp', parking.clamp, 'N', 'N')
            : [
                field('control_ratio', 'lever ratio', parking.control_ratio, '6.5'),
                field('actuator_ratio', 'ratio at the wheel', parking.actuator_ratio, '11'),
              ]}
          {parking.actuator === 'shoes'
            ? field('drum_diameter_mm', 'drum', parking.drum, 'mm', 'mm')
            : field('effective_radius_mm', 'pads work at', parking.radius, 'as the rotor', 'mm')}
          {field('friction', 'friction', parking.friction, 'as the pads')}
          {field('grade', 'grade', parking.grade, '20 %')}
        </div>
      )}
      {parking.needs.length > 0 && <p>Not known yet: {parking.needs.join('; ')}.</p>}
      {parking.refused !== '' && <p role="alert">{parking.refused}</p>}
      {parking.sentence !== '' && (
        <p className="said" role="status">
          <Mark state={parking.level ?? 'note'} size={16} />
          <span>{parking.sentence}</span>
        </p>
      )}
      {parking.states.length > 0 && (
        <DataTable
          caption="What the parking brake holds"
          head={['loaded', 'nose up', 'nose down', 'pull for the grade', 'alone it stops']}
          rows={parking.states.map((s) => [
            s.load,
            holds(s.grade_up),
            holds(s.grade_down),
            s.pull_n === null ? '' : written(force(s.pull_n)),
            `${decel(s.alone_g)} g${s.locks ? ', locking' : ''}`,
          ])}
        />
      )}
    </Box>
  );
}
