/** Setups side by side: every entry and every result that differs, and the difference in words. */
import { useState } from 'react';
import styled from 'styled-components';
import { useCompare } from '../../api/size';
import { Choose } from '../../ui/Choose';
import { Tick } from '../../ui/Tick';
import { useEscape } from '../../ui/useEscape';
import { decel } from '../../units/format';
import { Section, Tool } from './Panel';
import type { Reading } from './useSize';

const Wide = styled(Section)`
  &&& {
    grid-column: 1 / -1;
    padding-right: 0;
  }
  .words {
    padding: var(--s4) 0 var(--s6);
    list-style: none;
    margin: 0;
    font: var(--w-firm) var(--t-head) / var(--read) var(--text);
  }
  .tables {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(100%, 420px), 1fr));
    gap: var(--s10) var(--s24);
    align-items: start;
  }
  table {
    border-collapse: collapse;
    width: 100%;
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  th {
    text-align: left;
    font-weight: var(--w-strong);
    border-bottom: var(--r-hair) solid var(--ink);
    padding: var(--s2) var(--s8) var(--s2) 0;
    vertical-align: bottom;
  }
  tbody th {
    font-weight: var(--w-firm);
    border-bottom: var(--r-hair) solid var(--rule);
  }
  td {
    border-bottom: var(--r-hair) solid var(--rule);
    padding: var(--s2) var(--s8) var(--s2) 0;
    font-family: var(--letter);
  }
  tr[data-differs='false'] td {
    color: var(--ink-2);
  }
  th small {
    color: var(--ink-2);
    font-weight: var(--w-firm);
  }
  .which {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4) var(--s16);
    align-items: end;
    padding: var(--s4) 0;
  }
`;

interface SidedProps {
  caption: string;
  head: string;
  names: readonly string[];
  rows: readonly { label: string; small: string; values: readonly string[]; differs: boolean }[];
}
/** One row for each figure or entry, one column for each setup. */
const Sided = ({ caption, head, names, rows }: SidedProps) => (
  <table>
    <caption className="visually-hidden">{caption}</caption>
    <thead>
      <tr>
        {[head, ...names].map((name) => (
          <th key={name} scope="col">
            {name}
          </th>
        ))}
      </tr>
    </thead>
    <tbody>
      {rows.map((r) => (
        <tr key={`${r.label} ${r.small}`} data-differs={r.differs}>
          <th scope="row">
            {r.label} <small>{r.small}</small>
          </th>
          {r.values.map((value, i) => (
            <td key={names[i]}>{value}</td>
          ))}
        </tr>
      ))}
    </tbody>
  </table>
);

type CompareProps = Pick<Reading, 'job' | 'state' | 'load'> & { onClose: () => void };
export function Compare({ job, state, load, onClose }: CompareProps) {
  const names = job.setups;
  const [against, setAgainst] = useState(names[0] ?? '');
  const [left, setLeft] = useState<readonly string[]>([]);
  const compared = useCompare(job.id, job.revision, load, names.includes(against) ? against : (names[0] ?? ''));
  useEscape(onClose);
  const data = compared.data;
  const columns = (data?.setups ?? []).map((name, i) => ({ name, i })).filter(({ name }) => !left.includes(name));
  const rowOf = (row: { label: string; values: readonly string[] }) => {
    const values = columns.map(({ i }) => row.values[i] ?? '');
    return { label: row.label, values, differs: new Set(values).size > 1 };
  };
  return (
    <Wide aria-label="Comparison" tabIndex={-1}>
      <h2>
        Side by side <em>{data ? `at ${decel(data.decel_g)} g, ${state.name}` : ''}</em>
        <Tool onPress={onClose}>Close, Esc</Tool>
      </h2>
      {compared.isError && <p role="alert">{compared.error.message}</p>}
      <div className="which">
        {names.map((name) => (
          <Tick
            key={name}
            on={!left.includes(name)}
            onChange={(on) => setLeft(on ? left.filter((n) => n !== name) : [...left, name])}
          >
            {name}
          </Tick>
        ))}
        <Choose
          label="in words, against"
          value={against}
          options={names.map((n) => ({ id: n, label: n }))}
          onChange={setAgainst}
        />
      </div>
      {data && (
        <>
          <ul className="words">
            {data.words.map((w) => (
              <li key={w}>{w}</li>
            ))}
          </ul>
          <div className="tables">
            <Sided
              caption="Results"
              head="Result"
              names={columns.map(({ name }) => name)}
              rows={data.results.map((r) => ({ ...rowOf(r), small: r.unit }))}
            />
            <Sided
              caption="Entries that differ"
              head="Entry that differs"
              names={columns.map(({ name }) => name)}
              rows={data.inputs.map((r) => ({ ...rowOf(r), small: r.part.toLowerCase() })).filter((r) => r.differs)}
            />
          </div>
        </>
      )}
    </Wide>
  );
}
