/** One joint: what its two ends are, what that does, and what would mend it. */
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import { Mark } from '../../ui/Mark';
import { PressButton } from '../../ui/PressButton';
import { Tick } from '../../ui/Tick';
import { EndFields } from './EndFields';
import { Seat } from './Seat';
import type { Fit } from './useFit';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s6);
  align-content: start;
  .said {
    display: flex;
    gap: var(--s6);
    border-top: var(--r-hair) solid var(--rule);
    border-bottom: var(--r-hair) solid var(--rule);
    padding: var(--s6) 0;
    font-weight: var(--w-strong);
  }
  .said svg {
    flex: none;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    gap: var(--s4);
  }
  .ticks {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s16);
  }
  .walk {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    gap: var(--s8);
  }
`;

export function JointPanel({ fit }: { fit: Fit }) {
  const { joint, view } = fit;
  if (!joint) return <p>No joint is known: the setup has no brakes yet.</p>;
  const at = view.joints.findIndex((j) => j.key === joint.key);
  const next = view.joints[(at + 1) % view.joints.length];
  const label = `Joint ${joint.number}`;
  return (
    <Box>
      <div className="walk">
        <h2>
          Joint {joint.number}
          <em>
            {joint.title}
            {joint.count > 1 && `, ${joint.count} of them`}
          </em>
        </h2>
        {next && next.key !== joint.key && (
          <PressButton data-plain="" onPress={() => fit.onJoint(next.key)}>
            Next joint
          </PressButton>
        )}
      </div>
      <Seat joint={joint} />
      <p className="said" role="status">
        <Mark state={joint.level} size={18} />
        <span>{joint.sentence}</span>
      </p>
      {joint.cautions.map((caution) => (
        <p key={caution} className="quiet">
          {caution}
        </p>
      ))}
      {joint.mends.some((m) => m.edits.length > 0) && (
        <ul aria-label="What would mend it">
          {joint.mends
            .filter((m) => m.edits.length > 0)
            .map((mend) => (
              <li key={mend.kind}>
                <PressButton
                  data-told=""
                  data-first=""
                  onPress={() => fit.onEdits(`${label}: ${mend.words}`, mend.edits)}
                >
                  {mend.words}
                </PressButton>
              </li>
            ))}
        </ul>
      )}
      <EndFields key={`${joint.key} a`} fit={fit} joint={joint} which="a" />
      {!joint.open && <EndFields key={`${joint.key} b`} fit={fit} joint={joint} which="b" />}
      <div className="ticks">
        <Tick on={joint.open} onChange={(on) => fit.onPut(`${label}: open`, `${joint.path}.open`, on ? true : null)}>
          nothing is screwed in: plug it
        </Tick>
        <Tick on={joint.opened} onChange={(on) => fit.onPut(`${label}: opened`, `${joint.path}.opened`, on)}>
          opened in this job
        </Tick>
      </div>
      {joint.own && (
        <Button className="press" onPress={() => fit.onPut(`${label} out`, joint.path, null)}>
          Take this joint off the map
        </Button>
      )}
    </Box>
  );
}
