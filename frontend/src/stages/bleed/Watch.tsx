/** Every joint that the work opened, looked at twice: after the pedal was held, and after the first drive. */
import styled from 'styled-components';
import type { LookView, WatchedJoint } from '../../api/types';
import { Mark } from '../../ui/Mark';
import { Panel } from '../../ui/Panel';
import { PressButton } from '../../ui/PressButton';
import { useSigner } from '../../ui/signer';
import { capital } from '../../units/format';
import type { Bleed } from './useBleed';

const Box = styled(Panel)`
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: var(--s2) var(--s12);
    align-items: center;
    border-bottom: var(--r-hair) solid var(--rule);
    padding: var(--s4) 0;
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
  }
  li b {
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
    display: block;
  }
`;
const WHEN = { hold: 'after the hold', drive: 'after the first drive' } as const;
type When = keyof typeof WHEN;
const said = (look: LookView | null, when: When) =>
  `${WHEN[when]} ${look === null ? 'not looked at' : `${look.dry ? 'dry' : 'wet'}${look.by === '' ? '' : `, ${look.by}`}`}`;

function Joint({ joint, bleed }: { joint: WatchedJoint; bleed: Bleed }) {
  const by = useSigner();
  const { title, where, hold, drive, count } = joint;
  const name = where === '' ? title : `${title}, ${where}`;
  const wet = hold?.dry === false || drive?.dry === false;
  // What is looked at next: after the hold until that was dry, then after the drive.
  const next: When = hold?.dry === true ? 'drive' : 'hold';
  const keep = (dry: boolean) =>
    void bleed.record(`${dry ? 'dry' : 'wet'}: ${name}`, 'looked', {
      setup: bleed.view.setup,
      joint: joint.joint,
      when: next,
      dry,
      ...(by === '' ? {} : { by }),
    });
  const last = drive ?? hold;
  return (
    <li>
      <span>
        <b>
          <Mark state={wet ? 'danger' : drive ? 'ready' : hold ? 'begun' : 'empty'} size={14} /> {capital(name)}
          {count > 1 && ` (${count})`}
        </b>
        {capital(said(hold, 'hold'))}; {said(drive, 'drive')}.
      </span>
      <span className="presses noprint">
        {drive?.dry !== true && (
          <>
            <PressButton data-first="" aria-label={`Dry ${WHEN[next]}: ${name}`} onPress={() => keep(true)}>
              Dry
            </PressButton>
            <PressButton data-plain="" aria-label={`Wet ${WHEN[next]}: ${name}`} onPress={() => keep(false)}>
              wet
            </PressButton>
          </>
        )}
        {last !== null && (
          <PressButton
            data-plain=""
            aria-label={`Take back the last look: ${name}`}
            onPress={() =>
              void bleed.record(`a look struck out: ${name}`, 'struck', { of: last.key, why: 'looked again' })
            }
          >
            take back
          </PressButton>
        )}
      </span>
    </li>
  );
}

export function Watch({ bleed }: { bleed: Bleed }) {
  const { watch } = bleed.view;
  return (
    <Box>
      <p className="said" role="status">
        <Mark state={watch.level} size={18} />
        <span>{watch.sentence}</span>
      </p>
      {watch.joints.length > 0 && (
        <ul aria-label="Opened joints">
          {watch.joints.map((joint) => (
            <Joint key={joint.joint} joint={joint} bleed={bleed} />
          ))}
        </ul>
      )}
    </Box>
  );
}
