/** The setups worth buying, each with its figures, its doubt and its reasons; one press makes it a plan. */
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import type { Found } from '../../api/types';
import { decel, percent } from '../../units/format';
import { force, lengthOf } from '../../units/display';
import { chances, extraCost, holds, reasonsOf } from './uncertainty';
import { partsOf, sortedBy, type Column } from './filter';
import type { Matching } from './useMatch';
import { Whisker } from './Whisker';
import { inChosenUnits } from '../../units/sentences';

const Own = styled.div`
  min-width: 0;
  .scroll {
    overflow-x: auto;
  }
  table {
    border-collapse: collapse;
    width: 100%;
  }
  th {
    text-align: left;
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
    border-bottom: var(--r-hair) solid var(--ink);
    padding: 0 var(--s8) var(--s2) 0;
    white-space: nowrap;
  }
  th button {
    border: 0;
    background: none;
    padding: 0;
    min-height: var(--s24);
    text-decoration: underline;
    text-decoration-color: var(--rule);
    text-underline-offset: var(--s3);
  }
  td {
    border-bottom: var(--r-hair) solid var(--rule);
    padding: var(--s3) var(--s8) var(--s3) 0;
    font: var(--w-firm) var(--t-text) / var(--tight) var(--letter);
    vertical-align: middle;
  }
  tr[data-on] td {
    background: var(--sunk);
  }
  td.made {
    white-space: nowrap;
  }
  td.figure {
    font-weight: var(--w-strong);
    white-space: nowrap;
  }
  td.figure svg {
    display: inline-block;
    vertical-align: middle;
    margin-left: var(--s6);
  }
  td.why {
    font-family: var(--text);
    min-width: 190px;
    width: 42%;
  }
  @media print {
    td {
      padding-top: 1px;
      padding-bottom: 1px;
    }
    td.why {
      min-width: 300px;
    }
  }
  @media (max-width: 1000px) {
    td,
    th {
      padding-right: var(--s4);
    }
    td.why {
      min-width: 150px;
    }
  }
  td.why span {
    color: var(--ink-2);
  }
  .n {
    display: inline-grid;
    place-items: center;
    width: 21px;
    height: 21px;
    border: var(--r-outline) solid var(--ink);
    border-radius: 50%;
    background: none;
    padding: 0;
    font: var(--w-strong) var(--t-note) / var(--one) var(--letter);
  }
  tr[data-on] .n {
    background: var(--plan);
    border-color: var(--plan);
    color: var(--paper);
  }
  td > button.take {
    border: var(--r-outline) solid var(--plan);
    color: var(--plan);
    background: none;
    min-height: var(--s28);
    padding: 0 var(--s8);
    font: var(--w-strong) var(--t-text) / var(--one) var(--letter);
    white-space: nowrap;
  }
  @media (pointer: coarse) {
    .take,
    th button,
    .n {
      min-height: var(--target);
      min-width: var(--target);
    }
  }
`;

/** Up and down along the numbers. */
function walk(event: { key: string; target: EventTarget }) {
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  const own = (event.target as Element).closest('.n');
  const numbers = [...(own?.closest('tbody')?.querySelectorAll<HTMLElement>('.n') ?? [])];
  if (by !== undefined && own) numbers[numbers.indexOf(own as HTMLElement) + by]?.focus();
}

/** Parts with a column each; the brakes stand together in one. */
const SINGLE: Record<string, true> = { booster: true, cylinder: true, pin: true };
const COLUMNS: readonly (readonly [Column, string])[] = [
  ['push_n', 'push'],
  ['travel_mm', 'travel'],
  ['grip_use', 'grip used'],
  ['left_g', 'left, circuit lost'],
  ['price', 'more to pay'],
];

export function Shortlist({ found, matching }: { found: Found; matching: Matching }) {
  const { rows, filter, onFilter, on, onRow, next, onTake } = matching;
  const parts = partsOf(found.kept);
  const words = found.kept[0]?.words ?? {};
  const single = Object.keys(words).filter(
    (part) => part in SINGLE && (part !== 'booster' || parts.some((p) => p.part === part)),
  );
  const stations = Object.keys(words).filter((part) => !(part in SINGLE));
  const most = { push: found.effort_n * 1.15, travel: found.room_mm };
  return (
    <Own>
      <div className="scroll">
        <table>
          <caption className="visually-hidden">Setups that meet every limit and that nothing beats</caption>
          <thead>
            <tr>
              <th scope="col">
                <span className="visually-hidden">number</span>
              </th>
              {single.map((part) => (
                <th key={part} scope="col">
                  {part}
                </th>
              ))}
              <th scope="col">{stations.join(', ')}</th>
              <th scope="col">holds all</th>
              {COLUMNS.map(([by, title]) => (
                <th
                  key={by}
                  scope="col"
                  aria-sort={filter.by === by ? (filter.down ? 'descending' : 'ascending') : undefined}
                >
                  <Button onPress={() => onFilter(sortedBy(filter, by))}>
                    {by === 'push_n'
                      ? `push, ${force(0).unit}, P5 to P95`
                      : by === 'travel_mm'
                        ? `travel, ${lengthOf(0).unit}, P5 to P95`
                        : title}
                    {filter.by === by && (filter.down ? ' ↓' : ' ↑')}
                  </Button>
                </th>
              ))}
              <th scope="col">why it is worth buying</th>
              <th scope="col">
                <span className="visually-hidden">take it</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row, i) => (
              <tr key={i} data-on={i === on || undefined} onMouseEnter={() => onRow(i)}>
                <td>
                  <Button
                    className="n"
                    aria-label={`Show setup ${i + 1} on the line`}
                    onFocus={() => onRow(i)}
                    onKeyDown={walk}
                    onPress={() => onRow(i)}
                  >
                    {i + 1}
                  </Button>
                </td>
                {single.map((part) => (
                  <td key={part} className="made">
                    {inChosenUnits(row.words[part] ?? '')}
                  </td>
                ))}
                <td className="made">
                  {stations.map((part) => (
                    <p key={part}>{inChosenUnits(row.words[part] ?? '')}</p>
                  ))}
                </td>
                <td>
                  {holds(row)}
                  {row.sure && <span className="visually-hidden">, sure</span>}
                </td>
                <td className="figure">
                  {force(row.push_n).v}
                  <Whisker
                    value={row.push_n}
                    range={row.doubt?.push_n ?? null}
                    most={most.push}
                    limit={found.effort_n}
                    on={i === on}
                  />
                </td>
                <td className="figure">
                  {lengthOf(row.travel_mm).v}
                  <Whisker
                    value={row.travel_mm}
                    range={row.doubt?.travel_mm ?? null}
                    most={most.travel}
                    limit={found.travel_share * found.room_mm}
                    on={i === on}
                  />
                </td>
                <td>{percent(row.grip_use)}</td>
                <td>{decel(row.left_g)} g</td>
                <td>{extraCost(row)}</td>
                <td className="why">
                  {inChosenUnits(reasonsOf(row))} {row.doubt && <span>{chances(row)}</span>}
                </td>
                <td>
                  {row.as_it_stands ? (
                    'in use'
                  ) : (
                    <Button
                      className="take noprint"
                      aria-label={`Take as ${next.replace('plan ', '')}: setup ${i + 1}`}
                      onPress={() => onTake(row)}
                    >
                      Take as {next.replace('plan ', '')}
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Own>
  );
}
