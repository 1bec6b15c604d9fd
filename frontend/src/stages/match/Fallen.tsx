/** Why the others fell, each counted once; and what would let more in. */
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import type { Found } from '../../api/types';
import { spaced } from '../../units/format';
import type { Matching } from './useMatch';
import { inChosenUnits } from '../../units/sentences';

const Own = styled.div`
  h2 {
    font: var(--w-strong) var(--t-head) / var(--snug) var(--letter);
  }
  h2 + p {
    color: var(--ink-2);
    padding-bottom: var(--s4);
  }
  ul {
    list-style: none;
    padding: 0;
  }
  .bar {
    display: block;
    width: 100%;
    border: 0;
    background: none;
    padding: var(--s2) 0;
    text-align: left;
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
  }
  .bar[data-selected] {
    background: var(--sunk);
  }
  .bar > span {
    display: flex;
    align-items: center;
    gap: var(--s6);
    white-space: nowrap;
    font: var(--w-strong) var(--t-text) / var(--tight) var(--letter);
  }
  .bar svg {
    flex: none;
  }
  .bar[data-kept] {
    color: var(--plan);
    font-weight: var(--w-strong);
  }
  .bar em {
    white-space: nowrap;
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
    font-style: normal;
  }
  .more {
    margin-top: var(--s12);
  }
  .more li {
    border-top: var(--r-hair) solid var(--rule);
    padding: var(--s3) 0;
    display: grid;
    grid-template-columns: 58px minmax(0, 1fr) auto;
    gap: var(--s6);
    align-items: baseline;
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
  }
  .more li:first-child {
    border-top-color: var(--ink);
  }
  .more b {
    font: var(--w-strong) var(--t-text) / var(--snug) var(--letter);
  }
  .more button {
    border: var(--r-hair) solid var(--ink);
    background: none;
    min-height: var(--s24);
    padding: 0 var(--s8);
  }
  @media (pointer: coarse) {
    .bar,
    .more button {
      min-height: var(--target);
    }
  }
`;
export function Fallen({ found, matching }: { found: Found; matching: Matching }) {
  const { lit, onLit, act } = matching;
  const most = Math.max(1, ...found.fall.map((f) => f.count), found.meet);
  const bar = (id: string, words: string, count: number, only: number | null) => (
    <li key={id}>
      <Button
        className="bar"
        data-kept={id === 'kept' || undefined}
        data-selected={lit === id || undefined}
        aria-pressed={lit === id}
        onPress={() => onLit(lit === id ? null : id)}
      >
        {inChosenUnits(words)}
        <span>
          <svg width={Math.max(3, (count / most) * 150)} height="11" aria-hidden="true">
            <rect width="100%" height="11" className={id === 'kept' ? 'plan-area' : 'fallen-bar'} />
          </svg>
          {spaced(count)}
          {only !== null && only > 0 && <em>{spaced(only)} only for that</em>}
        </span>
      </Button>
    </li>
  );
  return (
    <Own>
      <h2>Why the others fell</h2>
      <p>
        each counted once, at the first limit it broke<span className="noprint">; press one to see where</span>
      </p>
      <ul>
        {found.fall.map((f) => bar(f.id, f.words, f.count, f.only))}
        {bar(
          'kept',
          found.not_beaten > 0
            ? `meet every limit; nothing beats ${spaced(found.not_beaten)} of them`
            : 'meet every limit',
          found.meet,
          null,
        )}
      </ul>
      {found.misses.length > 0 && (
        <div className="more">
          <h2>Nearest misses</h2>
          <ul>
            {found.misses.map((m) => (
              <li key={Object.values(m.words).join()}>
                <b>{inChosenUnits(m.said)}</b>
                {inChosenUnits(Object.values(m.words).join(', '))}
                {m.limits && (
                  <Button
                    className="noprint"
                    aria-label={`Let it in: ${inChosenUnits(m.said)}`}
                    onPress={() => act({ do: 'limits', change: m.limits ?? {} })}
                  >
                    Let it in
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </div>
      )}
      {found.untried > 0 && <p>{spaced(found.untried)} more meet every limit; nothing is said of their chance.</p>}
      {found.unfit > 0 && <p>{found.unfit} pairings of parts do not go together and were not tried.</p>}
      {found.more.length > 0 && (
        <div className="more">
          <h2>What would let more in</h2>
          <ul>
            {found.more.map((m) => (
              <li key={m.id}>
                <b>{spaced(m.count)}</b>
                {inChosenUnits(m.words)}
                {m.limits && (
                  <Button
                    className="noprint"
                    aria-label={`Let in ${m.count} ${inChosenUnits(m.words)}`}
                    onPress={() => act({ do: 'limits', change: m.limits ?? {} })}
                  >
                    Let in
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </div>
      )}
    </Own>
  );
}
