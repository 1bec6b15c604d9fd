/** Every stop with what was read of it; struck out with a reason it stays in sight and no longer counts. */
import { Fragment, useEffect, useRef, useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import type { StopView } from '../../api/types';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import { RowsTable } from '../../ui/RowsTable';
import { decel } from '../../units/format';
import type { Prove } from './useProve';
import { inChosenUnits } from '../../units/sentences';
import { onRoad, written } from '../../units/display';

const Table = styled(RowsTable)`
  td {
    white-space: nowrap;
  }
  td.around {
    white-space: normal;
    width: 100%;
  }
  tr[data-on] td {
    background: var(--sunk);
  }
  tr[data-out] td {
    color: var(--ink-2);
    text-decoration: line-through;
  }
  tr[data-out] td:nth-last-child(-n + 2) {
    text-decoration: none;
  }
  tr.set td {
    border-bottom: var(--r-hair) solid var(--ink);
    font-weight: var(--w-strong);
    padding-top: var(--s6);
  }
  tr.working td {
    white-space: normal;
    padding: var(--s4) 0 var(--s8) var(--s16);
  }
  tr.working form {
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    gap: var(--s4) var(--s10);
  }
  tr.working form > :first-child {
    flex: 0 1 340px;
  }
  tr.working form input {
    width: 100%;
  }
  tr.working dl {
    margin: 0;
  }
  tr.working dl > div {
    display: grid;
    grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
    gap: 0 var(--s12);
  }
  tr.working dd {
    margin: 0;
    font-weight: var(--w-strong);
  }
  tr.working em {
    font-style: normal;
    font-weight: var(--w-firm);
    color: var(--ink-2);
    padding-left: var(--s6);
  }
  @media (max-width: 700px) {
    .wide {
      display: none;
    }
  }
`;
const locked = (stop: StopView) => (stop.locked === null ? '' : stop.locked === 'none' ? 'none' : stop.locked);

function Why({ stop, prove, onDone }: { stop: StopView; prove: Prove; onDone: () => void }) {
  const [why, setWhy] = useState('');
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => {
    const before = document.activeElement;
    const row = form.current?.closest('tr')?.previousElementSibling;
    form.current?.querySelector('input')?.focus();
    return () => {
      if (document.activeElement !== document.body) return;
      const back = before?.isConnected && before !== document.body ? before : row?.querySelector('button');
      if (back instanceof HTMLElement) back.focus();
    };
  }, []);
  return (
    <form
      ref={form}
      onSubmit={(event) => {
        event.preventDefault();
        if (why.trim() === '') return;
        void prove.record(`stop ${stop.number} struck out`, 'struck', { of: stop.key, why: why.trim() }).then(onDone);
      }}
    >
      <PlainField value={why} onChange={setWhy} maxLength={200}>
        <Label>why it does not count</Label>
        <Input autoComplete="off" />
      </PlainField>
      <PressButton type="submit" isDisabled={why.trim() === ''}>
        Strike it out
      </PressButton>
      <PressButton data-plain="" onPress={onDone}>
        leave it
      </PressButton>
    </form>
  );
}

interface StopsTableProps {
  prove: Prove;
  /** The stop that is asked why it does not count. */
  asking: string | null;
  onAsk: (key: string | null) => void;
}
export function StopsTable({ prove, asking, onAsk }: StopsTableProps) {
  const { view } = prove;
  const [open, setOpen] = useState<string | null>(null);
  const every = view.sets.flatMap((s) => s.stops);
  if (every.length === 0) return null;
  return (
    <Table>
      <caption className="visually-hidden">Stops</caption>
      <thead>
        <tr>
          <th scope="col">stop</th>
          <th scope="col">from</th>
          <th scope="col">distance</th>
          <th scope="col">at {inChosenUnits(view.nominal)}</th>
          <th scope="col" className="wide">
            g
          </th>
          <th scope="col">locked</th>
          <th scope="col" className="wide">
            push
          </th>
          <th scope="col" className="wide">
            around it
          </th>
          <th scope="col">
            <span className="visually-hidden">what to do</span>
          </th>
        </tr>
      </thead>
      {view.sets
        .filter((s) => s.stops.length > 0)
        .map((set) => (
          <tbody key={set.name}>
            <tr className="set">
              <td colSpan={9}>{set.name}</td>
            </tr>
            {set.stops.map((stop) => (
              <Fragment key={stop.key}>
                <tr
                  data-on={prove.stop?.key === stop.key || undefined}
                  data-out={stop.left_out !== '' || undefined}
                  onClick={() => prove.onStop(stop.key)}
                >
                  <td>
                    <PressButton
                      data-told=""
                      data-plain=""
                      aria-label={`${stop.number}: how the figures of this stop came about`}
                      aria-expanded={open === stop.key}
                      onPress={() => {
                        prove.onStop(stop.key);
                        setOpen(open === stop.key ? null : stop.key);
                      }}
                    >
                      {stop.number}
                    </PressButton>
                    {stop.direction !== null && `, ${stop.direction}`}
                  </td>
                  <td>{inChosenUnits(stop.speed)}</td>
                  <td>{inChosenUnits(stop.distance)}</td>
                  <td>{stop.corrected_m === null ? '' : written(onRoad(stop.corrected_m))}</td>
                  <td className="wide">{stop.decel_g === null ? '' : decel(stop.decel_g)}</td>
                  <td>{locked(stop)}</td>
                  <td className="wide">{inChosenUnits(stop.push)}</td>
                  <td className="wide around">
                    {[
                      inChosenUnits(stop.around),
                      stop.mfdd_g === null ? '' : `MFDD ${decel(stop.mfdd_g)}`,
                      stop.trace !== null && stop.lag_s !== null ? `${stop.lag_s.toFixed(2)} s to build up` : '',
                      stop.left_out,
                      stop.struck ?? '',
                      stop.questioned ? 'speed, distance and time disagree' : '',
                      stop.windy ? 'windy: drive both ways' : '',
                    ]
                      .filter(Boolean)
                      .join('; ')}
                    {stop.trace !== null && (
                      <>
                        {' '}
                        <a
                          className="noprint"
                          href={`/api/jobs/${prove.job.id}/traces/${stop.trace}.csv`}
                          download
                          aria-label={`Samples of stop ${stop.number} as CSV`}
                        >
                          samples
                        </a>
                      </>
                    )}
                  </td>
                  <td>
                    {stop.struck !== null ? (
                      <PressButton
                        data-plain=""
                        aria-label={`Count stop ${stop.number} again`}
                        onPress={() =>
                          void prove.record(`stop ${stop.number} counts again`, 'struck', { of: stop.key })
                        }
                      >
                        count it again
                      </PressButton>
                    ) : (
                      <PressButton
                        data-plain=""
                        aria-label={`Strike out stop ${stop.number}`}
                        aria-expanded={asking === stop.key}
                        onPress={() => onAsk(asking === stop.key ? null : stop.key)}
                      >
                        strike out
                      </PressButton>
                    )}
                  </td>
                </tr>
                {asking === stop.key && (
                  <tr className="working">
                    <td colSpan={9}>
                      <Why stop={stop} prove={prove} onDone={() => onAsk(null)} />
                    </td>
                  </tr>
                )}
                {open === stop.key && (
                  <tr className="working">
                    <td colSpan={9}>
                      {stop.working.length === 0 ? (
                        'Nothing is worked out: no distance and no time.'
                      ) : (
                        <dl>
                          {stop.working.map((step) => (
                            <div key={step.what}>
                              <dt>
                                {step.what} <em>{step.formula}</em>
                              </dt>
                              <dd>
                                {step.numbers} <em>{step.source}</em>
                              </dd>
                            </div>
                          ))}
                        </dl>
                      )}
                    </td>
                  </tr>
                )}
              </Fragment>
            ))}
          </tbody>
        ))}
    </Table>
  );
}
