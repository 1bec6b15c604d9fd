/** Findings: danger first, a line each with its chance; the reason, the mends and what would settle it on demand; goods folded. */
import { memo, useState } from 'react';
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import type { Finding, Mend, Settle } from '../../api/types';
import { ChanceBar, percent } from '../../ui/ChanceBar';
import { Mark } from '../../ui/Mark';
import { capital, counted } from '../../units/format';
import { inChosenUnits } from '../../units/sentences';

const List = styled.ul`
  list-style: none;
  padding: 0;
  margin: var(--s4) 0 0;
  border-top: var(--r-hair) solid var(--ink);
  > li {
    display: grid;
    grid-template-columns: var(--s22) minmax(0, 1fr) auto;
    padding: var(--s4) 0;
    border-top: var(--r-hair) solid var(--rule);
  }
  > li:first-child {
    border-top: 0;
  }
  .mark {
    margin-top: var(--s4);
  }
  .line {
    border: 0;
    background: none;
    text-align: left;
    padding: var(--s3) 0;
    min-height: var(--s24);
    font: inherit;
    color: inherit;
  }
  .line[data-hovered] {
    text-decoration: underline;
    text-decoration-thickness: var(--r-hair);
    text-underline-offset: var(--s3);
  }
  .open {
    grid-column: 2 / 4;
    color: var(--ink-2);
    display: grid;
    gap: var(--s4);
    padding: var(--s2) 0 var(--s4);
  }
  .open ul {
    padding-left: var(--s18);
  }
  @media (pointer: coarse) {
    .line {
      min-height: var(--target);
    }
  }
  /* On paper they stand close: the sheet is one page. */
  @media print {
    > li {
      padding: 0;
    }
    .line {
      padding: var(--s2) 0;
      min-height: 0;
    }
    .mark {
      margin-top: 0;
    }
    /* Many of them, smaller and without their bars: the number says it. */
    &:has(> li:nth-child(9)) {
      zoom: 0.84;
    }
    &:has(> li:nth-child(9)) .line {
      padding: 0;
    }
    &:has(> li:nth-child(9)) .line svg {
      display: none;
    }
  }
`;
const Fold = styled(Button)`
  border: 0;
  background: none;
  padding: var(--s4) 0;
  min-height: var(--s24);
  font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
  text-decoration: underline;
  text-underline-offset: var(--s3);
  @media (pointer: coarse) {
    min-height: var(--target);
  }
  @media print {
    min-height: 0;
    padding: 0;
  }
`;
const Small = styled.p`
  color: var(--ink-2);
  font-size: var(--t-note);
  padding-top: var(--s4);
`;
const Word = styled.span`
  font: var(--w-strong) var(--t-note) / var(--tight) var(--letter);
  letter-spacing: var(--track);
  margin-right: var(--s6);
  text-transform: uppercase;
  &[data-level='good'] {
    color: var(--good);
  }
  &[data-level='waiting'] {
    color: var(--ink-2);
  }
  &[data-level='note'] {
    color: var(--note);
  }
  &[data-level='caution'] {
    color: var(--caution);
  }
  &[data-level='danger'] {
    color: var(--on-state);
    background: var(--danger);
    padding: 0 var(--s5);
  }
`;
export const MendButton = styled(Button)`
  font: var(--w-strong) var(--t-text) / var(--snug) var(--text);
  border: var(--r-outline) solid var(--plan);
  background: none;
  padding: 0 var(--s8);
  color: var(--plan);
  max-width: 180px;
  margin-left: var(--s10);
  min-height: var(--s24);
  align-self: center;
  &[data-pressed] {
    background: var(--sunk);
  }
  @media (pointer: coarse) {
    min-height: var(--target);
    font-size: var(--t-head);
  }
  @media print {
    display: none;
  }
`;

/** The level, or that it waits for its trials. */
export const LevelWord = ({ finding: { level, state } }: { finding: Finding }) => (
  <Word data-level={state === 'tried' || level === 'danger' || level === 'caution' ? level : 'waiting'}>
    {state === 'tried' ? level : `${level === 'danger' || level === 'caution' ? `${level}, ` : ''}being tried`}
  </Word>
);

/** "1 danger, 2 cautions, 1 good": how the findings stand. */
export function tally(findings: readonly Finding[]): string {
  const countOf = (level: Finding['level']) => findings.filter((f) => f.level === level).length;
  const words: [number, string, string][] = [
    [countOf('danger'), 'danger', 'dangers'],
    [countOf('caution'), 'caution', 'cautions'],
    [countOf('note'), 'note', 'notes'],
    [countOf('good'), 'good', 'good'],
  ];
  return words
    .filter(([n]) => n > 0)
    .map(([n, one, many]) => counted(n, one, many))
    .join(', ');
}

/** What a person does to settle a verdict. */
const ACTS: Record<string, string> = {
  tape: 'measure with a tape',
  pedal_scale: 'press the pedal against a scale',
  weigh: 'weigh the axles',
  feeler: 'a feeler gauge at pads or shoes',
  stand: 'the stand test, with gauges',
  lift_axle: 'lift one axle and weigh again',
};
const settled = ({ act, minutes, low, high }: Settle, chance: number) =>
  `${ACTS[act] ?? act} (${minutes} min): ${percent(chance)} becomes ${percent(low)} or ${percent(high)}`;
/** Above this share of the doubt it is worth saying that only stops settle it. */
const BY_STOPS = 0.25;

interface TryProps {
  mend: Mend;
  onMend: (mend: Mend) => void;
}
export const TryIt = ({ mend, onMend }: TryProps) => (
  <MendButton onPress={() => onMend(mend)}>{inChosenUnits(mend.label)}</MendButton>
);

const Opened = ({ finding, onMend }: { finding: Finding; onMend: (mend: Mend) => void }) => (
  <div className="open">
    <p>{inChosenUnits(finding.reason)}</p>
    {finding.was_so && finding.level !== 'good' && <p>It was so as found too.</p>}
    {finding.mends.map((mend) => (
      <div key={mend.label}>
        <p>
          <b>{capital(inChosenUnits(mend.name))}.</b> {inChosenUnits(mend.words)}
        </p>
        {mend.brings.map((brought) => (
          <p key={brought.id}>
            <b>Brings a {brought.level}:</b> {inChosenUnits(brought.sentence)}
          </p>
        ))}
        <TryIt mend={mend} onMend={onMend} />
      </div>
    ))}
    {finding.chance !== null && finding.settle.length > 0 && (
      <div>
        <p>
          <b>What would settle it:</b>
        </p>
        <ul>
          {finding.settle.map((s) => (
            <li key={s.act}>{settled(s, finding.chance ?? 0)}</li>
          ))}
        </ul>
      </div>
    )}
    {finding.by_stops > BY_STOPS && <p>Most of this doubt is in the pads and the grip: stops alone settle those.</p>}
    <p>{capitalSource(finding.source)}</p>
  </div>
);
const capitalSource = (source: string) => `Source: ${source}.`;

interface OneProps {
  finding: Finding;
  onMend: (mend: Mend) => void;
}
/** One finding: its line, which opens. */
function One({ finding, onMend }: OneProps) {
  const [open, setOpen] = useState(false);
  const first = finding.mends[0];
  return (
    <li>
      <Mark state={finding.level} size={16} />
      <Button className="line" aria-expanded={open} onPress={() => setOpen(!open)}>
        <LevelWord finding={finding} />
        {finding.chance !== null && finding.level !== 'good' && (
          <>
            <span>{percent(finding.chance)} </span>
            <ChanceBar chance={finding.chance} level={finding.level} />
          </>
        )}
        {inChosenUnits(finding.sentence)}
      </Button>
      {first && !open && <TryIt mend={first} onMend={onMend} />}
      {open && <Opened finding={finding} onMend={onMend} />}
    </li>
  );
}

export interface FindingsProps {
  findings: readonly Finding[];
  onMend: (mend: Mend) => void;
}
export const Findings = memo(function Findings({ findings, onMend }: FindingsProps) {
  const [goods, setGoods] = useState(false);
  const good = findings.filter((f) => f.level === 'good');
  const read = findings.filter((f) => f.level !== 'good');
  return (
    <>
      <List>
        {[...read, ...(goods ? good : [])].map((finding) => (
          <One key={finding.id} finding={finding} onMend={onMend} />
        ))}
      </List>
      {good.length > 0 && (
        <Fold aria-expanded={goods} onPress={() => setGoods(!goods)}>
          {goods ? 'Fold what is good' : `${counted(good.length, 'is', 'are')} good`}
        </Fold>
      )}
      {findings.some((f) => f.chance !== null) && (
        <Small>
          Per cents are of 400 plausible vehicles, drawn within these doubts: a chance, not how often it happens on the
          road.
        </Small>
      )}
    </>
  );
});
