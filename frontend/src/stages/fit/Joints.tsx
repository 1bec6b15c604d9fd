/** Every joint of the lines in a list: what stands at its two ends, and whether it seals. */
import styled from 'styled-components';
import type { JointView } from '../../api/types';
import { Mark } from '../../ui/Mark';
import { RowsTable } from '../../ui/RowsTable';
import type { Fit } from './useFit';

const Table = styled(RowsTable)`
  td {
    vertical-align: middle;
  }
  td:first-child {
    width: var(--s28);
    font-family: var(--letter);
  }
  td:last-child {
    width: var(--s24);
    padding: 0;
  }
  tr[data-on] td {
    background: var(--sunk);
  }
  tr[data-level='danger'] {
    color: var(--danger);
    font-weight: var(--w-strong);
  }
  tr[data-level='note'] td:nth-child(n + 3) {
    color: var(--ink-2);
  }
  button {
    border: 0;
    background: none;
    padding: 0;
    min-height: var(--s24);
    width: 100%;
    text-align: left;
    font: inherit;
    color: inherit;
    cursor: pointer;
  }
  @media (pointer: coarse) {
    button {
      min-height: var(--target);
    }
  }
`;
const STATE: Record<JointView['level'], string> = {
  good: 'seals',
  note: 'not known yet',
  caution: 'look again',
  danger: 'does not seal',
};

const times = (joint: JointView) => (joint.count > 1 ? `${joint.title} × ${joint.count}` : joint.title);
/** One thread where both ends have the same. */
const threads = ({ a, b, open }: JointView) =>
  [...new Set([a.thread, open ? '' : b.thread].filter((t) => t !== ''))].join(' in ');
export function Joints({ fit, wide }: { fit: Fit; wide: boolean }) {
  const { joints } = fit.view;
  return (
    <Table>
      <caption className="visually-hidden">Joints</caption>
      <thead>
        <tr>
          <th scope="col">
            <span className="visually-hidden">number</span>
          </th>
          <th scope="col">joint</th>
          {wide && <th scope="col">one end</th>}
          {wide && <th scope="col">other end</th>}
          {wide && <th scope="col">thread</th>}
          <th scope="col">
            <span className="visually-hidden">how it stands</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {joints.map((joint) => (
          <tr
            key={joint.key}
            data-level={joint.level}
            data-on={fit.joint?.key === joint.key || undefined}
            onClick={() => fit.onJoint(joint.key)}
          >
            <td>{joint.number}</td>
            <td>
              <button
                type="button"
                aria-pressed={fit.joint?.key === joint.key}
                onClick={() => fit.onJoint(joint.key)}
                data-joint={joint.key}
              >
                {times(joint)}
              </button>
            </td>
            {wide && <td>{joint.a.family || 'not known'}</td>}
            {wide && <td>{joint.open ? 'open' : joint.b.family || 'not known'}</td>}
            {wide && <td>{threads(joint)}</td>}
            <td>
              <Mark state={joint.level} size={15} />
              <span className="visually-hidden">{STATE[joint.level]}</span>
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
