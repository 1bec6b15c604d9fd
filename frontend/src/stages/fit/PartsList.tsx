/** Everything the plan needs, less what is here: what is missing first, each ticked off with one press. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import type { ListRow } from '../../api/types';
import { partsCsvUrl } from '../../api/fit';
import { Field } from '../../ui/Field';
import { Mark } from '../../ui/Mark';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import { RowsTable } from '../../ui/RowsTable';
import { capital, counted } from '../../units/format';
import type { Fit } from './useFit';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s6);
  .over {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4) var(--s12);
    align-items: center;
    justify-content: space-between;
  }
  h2 svg {
    vertical-align: var(--mark-drop);
    margin-right: var(--s6);
  }
  a {
    color: inherit;
    text-underline-offset: var(--s3);
  }
  form {
    display: flex;
    gap: var(--s8);
    align-items: end;
    flex-wrap: wrap;
  }
`;
const Table = styled(RowsTable)`
  td {
    height: var(--s28);
  }
  .n {
    text-align: right;
    font-family: var(--letter);
    white-space: nowrap;
  }
  tr[data-missing] {
    background: var(--sunk);
  }
  tr[data-spare] {
    color: var(--ink-2);
  }
  td > svg {
    vertical-align: var(--mark-drop);
    margin-right: var(--s4);
  }
  td:last-child {
    text-align: right;
    padding-right: 0;
  }
  .shop th {
    font: var(--w-strong) var(--t-text) / var(--read) var(--text);
    color: var(--ink);
    border-bottom: var(--r-hair) solid var(--ink);
    padding-top: var(--s6);
  }
  .price {
    width: 74px;
  }
  .source {
    width: 92px;
  }
  @media (max-width: 700px) {
    thead {
      display: none;
    }
    tr {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto auto;
      align-items: center;
      border-bottom: var(--r-hair) solid var(--rule);
      padding: var(--s4) 0;
      gap: 0 var(--s8);
    }
    td {
      border: 0;
      height: auto;
    }
    td:first-child {
      grid-column: 1 / -1;
    }
    tr:not([data-missing]) td:first-child {
      grid-column: auto;
    }
    .price,
    .source {
      width: auto;
      min-width: 72px;
    }
    tr:not([data-missing]) .price,
    tr:not([data-missing]) .source {
      display: none;
    }
  }
`;
const SHOP: Readonly<Record<string, string>> = {
  fittings: 'fittings and lines',
  fluid: 'brake fluid',
  fasteners: 'nuts and bolts',
  made: 'made at the bench',
  others: 'brake parts',
};
const count = (n: number) => (Number.isInteger(n) ? String(n) : n.toFixed(2).replace(/0$/, ''));

function state(row: ListRow): string {
  if (row.count === 0) return row.have > 0 ? `${count(row.have)} here, not asked for` : 'not asked for by this plan';
  if (row.missing === 0) return 'here';
  const ordered = row.ordered > 0 ? `, ${count(row.ordered)} ordered` : '';
  return row.have > 0 ? `${count(row.have)} of ${count(row.count)}${ordered}` : `missing${ordered}`;
}

function Row({ row, fit }: { row: ListRow; fit: Fit }) {
  const put = (label: string, name: string, value: number) =>
    row.at === null
      ? fit.onList(`${row.part}: ${label}`, { part: row.part, shop: row.shop, [name]: value })
      : fit.onJob(`${row.part}: ${label}`, `/parts_list/${row.at}/${name}`, value);
  const at = row.at;
  return (
    <tr data-missing={row.missing > 0 || undefined} data-spare={row.count === 0 || undefined}>
      <td>
        {row.part}
        {row.count > 1 && `, ${count(row.count)}`}
      </td>
      <td className="source">
        <Field
          saysRefused
          label={`source of ${row.part}`}
          shown={false}
          value={row.source}
          placeholder={SHOP[row.shop] ?? row.shop}
          onCommit={(text) => fit.onListText(row, 'source', text)}
        />
      </td>
      <td className="price n">
        <Field
          saysRefused
          label={`price of ${row.part}`}
          shown={false}
          value={row.price === null ? '' : row.price.toFixed(2)}
          placeholder="price"
          onCommit={(text) => fit.onListText(row, 'price', text)}
        />
      </td>
      <td>
        <Mark state={row.missing > 0 ? 'empty' : 'ready'} size={14} />
        {state(row)}
      </td>
      <td>
        {row.missing > 0 && (
          <>
            {row.ordered === 0 && (
              <PressButton
                data-plain=""
                aria-label={`Ordered: ${row.part}`}
                onPress={() => put('ordered', 'ordered', row.missing)}
              >
                Ordered
              </PressButton>
            )}{' '}
            <PressButton aria-label={`Got it: ${row.part}`} onPress={() => put('here', 'have', row.count)}>
              Got it
            </PressButton>
          </>
        )}
        {row.missing === 0 && row.count > 0 && row.have > 0 && (
          <PressButton data-plain="" aria-label={`Not here: ${row.part}`} onPress={() => put('not here', 'have', 0)}>
            not here
          </PressButton>
        )}
        {row.own && at !== null && (
          <PressButton
            data-plain=""
            aria-label={`Take ${row.part} off the list`}
            onPress={() => fit.onJob(`${row.part} off the list`, `/parts_list/${at}`, null)}
          >
            off the list
          </PressButton>
        )}
      </td>
    </tr>
  );
}

function shopSaid(rows: readonly ListRow[]): string {
  const missing = rows.filter((r) => r.missing > 0).length;
  return missing === 0 ? 'all here' : `${counted(missing, 'kind', 'kinds')} missing`;
}

/** Rows by where they are bought: the source that was typed, else the kind of shop; the order of the rows stays. */
function byShop(rows: readonly ListRow[]): [string, ListRow[]][] {
  const shops = new Map<string, ListRow[]>();
  for (const row of rows) {
    const shop = row.source !== '' ? row.source : (SHOP[row.shop] ?? row.shop);
    shops.set(shop, [...(shops.get(shop) ?? []), row]);
  }
  return [...shops];
}

export function PartsList({ fit }: { fit: Fit }) {
  const { parts } = fit.view;
  const shops = byShop(parts.rows);
  const [asked, setAsked] = useState('');
  const mark = parts.rows.length === 0 ? 'empty' : parts.missing === 0 ? 'ready' : parts.alarm ? 'danger' : 'doubt';
  const days =
    parts.days_left === null
      ? ''
      : parts.days_left < 0
        ? ` The day planned was ${-parts.days_left} days ago.`
        : ` ${parts.days_left} ${parts.days_left === 1 ? 'day' : 'days'} are left.`;
  return (
    <Box>
      <div className="over">
        <h2 data-alarm={parts.alarm || undefined}>
          <Mark state={mark} size={18} />
          {parts.rows.length === 0 ? 'The list is empty: this setup changes nothing yet.' : parts.sentence}
          {days}
        </h2>
        <form className="noprint" onSubmit={(event) => event.preventDefault()}>
          <Field
            saysRefused
            label="work planned for"
            value={parts.planned}
            placeholder="2026-05-09"
            onCommit={async (text) => fit.onDay(text.trim())}
          />
          {parts.rows.length > 0 && (
            <a href={partsCsvUrl(fit.job.id, fit.view.setup)} download className="press">
              Save as CSV
            </a>
          )}
        </form>
      </div>
      {parts.rows.length > 0 && (
        <Table>
          <caption className="visually-hidden">Parts</caption>
          <thead>
            <tr>
              <th scope="col">
                part, {parts.here} of {parts.here + parts.missing} kinds here
              </th>
              <th scope="col">source</th>
              <th scope="col" className="n">
                {parts.cost.toFixed(2)}
                {parts.unpriced > 0 && `, ${parts.unpriced} unpriced`}
              </th>
              <th scope="col">state</th>
              <th scope="col">
                <span className="visually-hidden">what to do</span>
              </th>
            </tr>
          </thead>
          {shops.map(([shop, rows]) => (
            <tbody key={shop}>
              {shops.length > 1 && (
                <tr className="shop">
                  <th colSpan={5} scope="rowgroup">
                    {capital(shop)}, {shopSaid(rows)}
                  </th>
                </tr>
              )}
              {rows.map((row) => (
                <Row key={row.part} row={row} fit={fit} />
              ))}
            </tbody>
          ))}
        </Table>
      )}
      <form
        className="noprint"
        onSubmit={(event) => {
          event.preventDefault();
          if (asked.trim() === '') return;
          fit.onList(`${asked.trim()} on the list`, { part: asked.trim(), wanted: 1, shop: 'others' });
          setAsked('');
        }}
      >
        <PlainField value={asked} onChange={setAsked} maxLength={80}>
          <Label>one more thing for the list</Label>
          <Input placeholder="hose bracket" autoComplete="off" />
        </PlainField>
        <PressButton type="submit">Put on list</PressButton>
      </form>
    </Box>
  );
}
