/** What one end of a joint is: chosen from what a part of that kind can have, or found out from what is measured of it. */
import { useState } from 'react';
import styled from 'styled-components';
import type { EndOption, JointEndView, JointView } from '../../api/types';
import { Choose } from '../../ui/Choose';
import { PressButton } from '../../ui/PressButton';
import { capital } from '../../units/format';
import { InTheHand } from './InTheHand';
import type { Fit } from './useFit';

const Box = styled.fieldset`
  border: 0;
  margin: 0;
  padding: var(--s4) 0;
  min-width: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s2) var(--s12);
  legend {
    padding: 0;
    font: var(--w-strong) var(--t-text) / var(--snug) var(--text);
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2) var(--s14);
    align-items: end;
  }
`;
const NOT_KNOWN = { id: '', label: 'not known' };

interface EndFieldsProps {
  fit: Fit;
  joint: JointView;
  which: 'a' | 'b';
}
export function EndFields({ fit, joint, which }: EndFieldsProps) {
  const end: JointEndView = joint[which];
  const [hand, setHand] = useState(false);
  const options = new Map(fit.view.options.map((o) => [o.id, o]));
  const own = options.get(end.option);
  const path = `${joint.path}.${which}`;
  const label = `Joint ${joint.number}: ${end.words}`;
  const kept = (option: EndOption | undefined, thread: string): Record<string, unknown> => ({
    ...(option ? { family: option.family, role: option.role } : {}),
    ...(thread === '' ? {} : { thread }),
  });
  const onOption = (id: string) => {
    const option = options.get(id);
    const thread = option?.threads.includes(end.thread) ? end.thread : '';
    fit.onPut(label, path, option ? kept(option, thread) : null);
  };
  const threads = own?.threads ?? [...new Set(fit.view.options.flatMap((o) => o.threads))];
  const offered = end.thread === '' || threads.includes(end.thread) ? threads : [end.thread, ...threads];
  return (
    <Box>
      <legend>{capital(end.words)}</legend>
      <div className="row">
        <Choose
          label="what it is"
          value={end.option}
          options={[
            NOT_KNOWN,
            ...end.options.map((id) => ({ id, label: options.get(id)?.words ?? id })),
            ...(end.option === '' || end.options.includes(end.option)
              ? []
              : [{ id: end.option, label: own?.words ?? end.option }]),
          ]}
          onChange={onOption}
        />
        <Choose
          label="thread"
          value={end.thread}
          options={[NOT_KNOWN, ...offered.map((t) => ({ id: t, label: t }))]}
          onChange={(thread) => fit.onPut(label, path, kept(own, thread))}
        />
        <PressButton data-plain="" aria-expanded={hand} onPress={() => setHand(!hand)}>
          What do I hold?
        </PressButton>
      </div>
      {hand && (
        <InTheHand
          onTake={(id, thread) => {
            setHand(false);
            const option = options.get(id);
            if (option) fit.onPut(label, path, kept(option, thread));
          }}
        />
      )}
    </Box>
  );
}
