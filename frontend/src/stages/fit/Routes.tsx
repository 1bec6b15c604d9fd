/** Every setup as a way to get there, side by side: what it costs, what is cut for good, and what it buys. */
import styled from 'styled-components';
import { useRoutes } from '../../api/fit';
import type { RouteView } from '../../api/types';
import { Choose } from '../../ui/Choose';
import { Field } from '../../ui/Field';
import { force, heatOf, written } from '../../units/display';
import { capital, counted, decel, percent } from '../../units/format';
import type { Fit } from './useFit';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s8);
  .scroll {
    overflow-x: auto;
  }
  table {
    border-collapse: collapse;
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  th,
  td {
    text-align: left;
    vertical-align: top;
    border-bottom: var(--r-hair) solid var(--rule);
    padding: var(--s2) var(--s10) var(--s2) 0;
    min-width: 128px;
  }
  thead th {
    border-bottom: var(--r-outline) solid var(--ink);
  }
  tbody th {
    font-weight: var(--w-firm);
    color: var(--ink-2);
    min-width: 96px;
  }
  .typed {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
    gap: var(--s6) var(--s14);
    align-items: end;
  }
  .sized {
    display: grid;
  }
`;
const KINDS = [
  { id: '', label: 'not said' },
  { id: 'kit', label: 'bought kit' },
  { id: 'donor_parts', label: 'donor parts' },
  { id: 'factory_upgrade', label: 'factory upgrade' },
  { id: 'rebuild', label: 'rebuild of the old' },
  { id: 'fronts_rearward', label: 'fronts moved rearward' },
  { id: 'other', label: 'something else' },
];
const money = (value: number) => value.toFixed(0);
const kindOf = (route: RouteView) => KINDS.find((k) => k.id === route.kind)?.label ?? '';

const ROWS: [string, (route: RouteView) => string][] = [
  ['what it is', (r) => (r.kind === '' ? '' : kindOf(r))],
  [
    'price',
    (r) =>
      r.whole_price === 0 && r.unpriced === 0
        ? 'nothing'
        : [
            money(r.whole_price),
            r.tools_price === null ? '' : `${money(r.tools_price)} of it tools`,
            r.unpriced > 0 ? `${counted(r.unpriced, 'part', 'parts')} without a price` : '',
          ]
            .filter(Boolean)
            .join(', '),
  ],
  ['tools to buy', (r) => r.tools],
  ['cut for good', (r) => r.cuts],
  ['joints opened', (r) => (r.joints === 0 ? 'none' : String(r.joints))],
  ['evenings', (r) => (r.evenings === null ? '' : String(r.evenings))],
  ['push', (r) => (r.push_n === null ? 'not known, or never reached' : written(force(r.push_n)))],
  ['pedal room used', (r) => (r.travel_share === null ? '' : percent(r.travel_share))],
  ['first lock', (r) => (r.lock_g === null ? '' : `${decel(r.lock_g)} g`)],
  ['hottest rotor, ten stops', (r) => (r.heat_c === null ? '' : written(heatOf(r.heat_c)))],
  ['parking brake', (r) => r.parking],
  ['all limits hold', (r) => (r.chance === null ? '' : `in ${percent(r.chance)} of plausible vehicles`)],
];

const figure = (value: number | null) => (value === null ? '' : String(value));
const TYPED: readonly { key: string; label: string; name: string; hint: string; of: (route: RouteView) => string }[] = [
  { key: 'tools', label: 'tools to buy', name: 'tools to buy', hint: 'flaring tool', of: (r) => r.tools },
  { key: 'tools_price', label: 'they cost', name: 'tools cost', hint: '0', of: (r) => figure(r.tools_price) },
  { key: 'cuts', label: 'cut for good', name: 'cuts that cannot be undone', hint: 'dust shields', of: (r) => r.cuts },
  { key: 'evenings', label: 'evenings', name: 'evenings', hint: '4', of: (r) => figure(r.evenings) },
];

export function Routes({ fit }: { fit: Fit }) {
  const asked = useRoutes(fit.job.id, fit.job.revision);
  const routes = asked.data?.routes ?? [];
  const own = routes.find((r) => r.setup === fit.view.setup);
  const put = (key: string, label: string, text: string) =>
    text.trim() === ''
      ? Promise.resolve(fit.onPut(`${label}: none`, `fit.route.${key}`, null))
      : fit.onType(label, `fit.route.${key}`, text);
  return (
    <Box>
      <h2>
        Routes
        <em>
          {asked.data?.wanted_g ? `each plan a way to get there; pushes for ${decel(asked.data.wanted_g)} g` : ''}
        </em>
      </h2>
      {asked.error && <p role="alert">{asked.error.message}</p>}
      {asked.isPending && <p role="status">Being worked out.</p>}
      {routes.length === 1 && <p>Only the vehicle as found: plans, made in Size or found in Match, stand beside it.</p>}
      {routes.length > 0 && (
        // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reachable by keys
        <div className="scroll" tabIndex={0} role="group" aria-label="Routes side by side">
          <table>
            <thead>
              <tr>
                <td />
                {routes.map((r) => (
                  <th key={r.setup} scope="col">
                    {capital(r.setup)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {ROWS.map(([label, cell]) => (
                <tr key={label}>
                  <th scope="row">{label}</th>
                  {routes.map((r) => (
                    <td key={r.setup}>{cell(r)}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {own && (
        <div className="typed noprint">
          <Choose
            label={`${own.setup} is a`}
            value={own.kind}
            options={KINDS}
            onChange={(id) => fit.onPut('kind of route', 'fit.route.kind', id === '' ? null : id)}
          />
          {TYPED.map(({ key, label, name, hint, of }) => (
            <Field
              key={key}
              className="sized"
              saysRefused
              label={label}
              name={`route: ${name}`}
              value={of(own)}
              placeholder={hint}
              onCommit={(text) => put(key, name, text)}
            />
          ))}
        </div>
      )}
    </Box>
  );
}
