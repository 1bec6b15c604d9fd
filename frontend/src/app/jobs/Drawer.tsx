/** What was put away, to be brought back; invented vehicles to open a copy of; and devices of the network that are let in. */
import { Button } from 'react-aria-components';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { useDevices, useDoor } from '../../api/devices';
import { useAway, useExamples, useWall } from '../../api/jobs';
import { counted } from '../../units/format';
import { OnTheWall } from './JobCard';

export const Box = styled.section`
  border: var(--r-outline) solid var(--ink);
  padding: var(--s10) var(--s14) var(--s14);
  margin-bottom: var(--s16);
  h2 em {
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
    color: var(--ink-2);
    font-style: normal;
    padding-left: var(--s8);
  }
  ul {
    list-style: none;
    padding: 0;
    margin: var(--s8) 0 0;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 160px), 1fr));
    gap: var(--s12) var(--s16);
  }
  li {
    display: grid;
    align-content: end;
    gap: var(--s4);
  }
  b {
    font: var(--w-strong) var(--t-name) / var(--tight) var(--letter);
  }
  p {
    color: var(--ink-2);
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
  }
  a {
    color: inherit;
    text-underline-offset: var(--s3);
    display: inline-flex;
    align-items: center;
    min-height: var(--s24);
  }
  button {
    justify-self: start;
    border: var(--r-outline) solid var(--ink);
    background: none;
    min-height: var(--s28);
    padding: 0 var(--s10);
    font: var(--w-strong) var(--t-text) / var(--one) var(--letter);
  }
  @media (pointer: coarse) {
    a,
    button {
      min-height: var(--target);
    }
  }
`;

export function PutAway({ onBack }: { onBack: (id: number) => void }) {
  const away = useAway().data ?? [];
  if (away.length === 0) return null;
  return (
    <Box aria-label="Kept for later">
      <h2>
        Kept for later
        <em>{counted(away.length, 'job', 'jobs')} taken off the wall; each stays for 30 days from then</em>
      </h2>
      <ul>
        {away.map((job) => (
          <li key={job.id}>
            <b>{job.name}</b>
            <p>changed {new Date(job.changed_at).toLocaleDateString()}</p>
            <Button onPress={() => onBack(job.id)} aria-label={`Bring back ${job.name}`}>
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </Box>
  );
}

export function Examples() {
  const examples = useExamples().data ?? [];
  const { example } = useWall();
  const go = useNavigate();
  return (
    <Box aria-label="Examples">
      <h2>
        Examples<em>invented vehicles; a copy is yours</em>
      </h2>
      {example.isError && <p role="alert">{example.error.message}</p>}
      <ul>
        {examples.map((e) => (
          <li key={e.key}>
            <OnTheWall sketch={e.sketch} />
            <b>{e.name.replace(' (invented)', '')}</b>
            <Button
              onPress={() => example.mutate(e.key, { onSuccess: (job) => void go(`/jobs/${job.id}/size`) })}
              aria-label={`Open a copy of ${e.name}`}
            >
              Open a copy
            </Button>
          </li>
        ))}
      </ul>
    </Box>
  );
}

/** Phones and tablets that may come in; shown once the server is open to the network, or ever was. */
export function Devices() {
  const { data } = useDevices();
  const { link, remove } = useDoor();
  if (!data || (!data.open && data.devices.length === 0)) return null;
  const shown = link.data;
  return (
    <Box aria-label="Devices">
      <h2>
        Devices<em>{data.open ? 'phones and tablets of this network that are let in' : 'let in once the server is started with --lan'}</em>
      </h2>
      {data.devices.length === 0 && <p>None yet.</p>}
      <ul>
        {data.devices.map((d) => (
          <li key={d.id}>
            <b>{d.name}</b>
            <p>since {new Date(d.paired_at).toLocaleDateString()}</p>
            <Button onPress={() => remove.mutate(d.id)} aria-label={`Let ${d.name} in no more`}>
              Let it in no more
            </Button>
          </li>
        ))}
      </ul>
      {data.open && (
        <>
          <Button onPress={() => link.mutate()}>A link for one device more</Button>
          {link.error && <p role="alert">{link.error.message}</p>}
          {shown?.link && shown.qr && (
            <p role="status">
              <img src={shown.qr} alt={`The link as a code to photograph: ${shown.link}`} style={{ display: 'block' }} />
              {shown.link}, once, within {shown.minutes} minutes. It asks on the device before it is spent.
            </p>
          )}
        </>
      )}
    </Box>
  ); // prettier-ignore
}
