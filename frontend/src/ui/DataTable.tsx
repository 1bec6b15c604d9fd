/** What a plot shows, as a table: for a screen reader, and for who reads figures rather than lines. */
import { createContext, useContext, type ReactNode } from 'react';
import styled from 'styled-components';

const Table = styled.table`
  border-collapse: collapse;
  width: 100%;
  margin-top: var(--s4);
  font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  th {
    text-align: left;
    font-weight: var(--w-strong);
    border-bottom: var(--r-hair) solid var(--ink);
    padding: 0 var(--s8) 0 0;
  }
  td {
    border-bottom: var(--r-hair) solid var(--rule);
    padding: 0 var(--s8) 0 0;
    font-family: var(--letter);
  }
`;

export interface Tabled {
  caption: string;
  head: readonly string[];
  rows: readonly (readonly string[])[];
}
export const DataTable = ({ caption, head, rows }: Tabled) => (
  <Table>
    <caption className="visually-hidden">{caption}</caption>
    <thead>
      <tr>
        {head.map((h) => (
          <th key={h} scope="col">
            {h}
          </th>
        ))}
      </tr>
    </thead>
    <tbody>
      {rows.map((row, i) => (
        <tr key={i}>
          {row.map((cell, k) => (
            <td key={k}>{cell}</td>
          ))}
        </tr>
      ))}
    </tbody>
  </Table>
);

/** Whether plots here are shown as tables. */
export const AsTable = createContext(false);
/** A plot, or its table where that is asked for. */
export function Plotted({ table, children }: { table: () => Tabled; children: ReactNode }) {
  return useContext(AsTable) ? <DataTable {...table()} /> : children;
}
