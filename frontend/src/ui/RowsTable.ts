/** A table of things, one to a row: ruled beneath each, its heads quiet. */
import styled from 'styled-components';

export const RowsTable = styled.table`
  width: 100%;
  border-collapse: collapse;
  font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  th {
    text-align: left;
    font-weight: var(--w-firm);
    color: var(--ink-2);
    border-bottom: var(--r-outline) solid var(--ink);
    padding: 0 var(--s8) 0 0;
  }
  td {
    border-bottom: var(--r-hair) solid var(--rule);
    padding: 0 var(--s8) 0 0;
    height: var(--s24);
  }
`;
