/** Fit: will it go together, and what is missing. */
import { useMemo, useState } from 'react';
import { ToggleButton } from 'react-aria-components';
import styled from 'styled-components';
import type { StageProps } from '../../page/StagePage';
import { WorkPage } from '../../page/WorkPage';
import { Mark } from '../../ui/Mark';
import { PressButton } from '../../ui/PressButton';
import { ToggleRow } from '../../ui/ToggleRow';
import { TABLED, useMedia } from '../../ui/useMedia';
import { useWidth } from '../../ui/useWidth';
import { capital, counted } from '../../units/format';
import { CutList } from './CutList';
import { Donors } from './Donors';
import { HoseReach } from './HoseReach';
import { JointPanel } from './JointPanel';
import { Joints } from './Joints';
import { LineMap } from './LineMap';
import { PartsList } from './PartsList';
import { Parking } from './Parking';
import { Plates } from './Plates';
import { Routes } from './Routes';
import { Section } from './Section';
import { useFit, type Fit } from './useFit';
import { Yard } from './Yard';

const Body = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  .cols {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    border-bottom: var(--r-heavy) solid var(--ink);
  }
  .below {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
  }
  &[data-wide] .below {
    grid-template-columns: minmax(0, 1fr) minmax(0, 0.82fr);
  }
  &[data-wide] .below > div + div {
    border-left: var(--r-hair) solid var(--rule);
    padding-left: var(--s16);
    margin-left: var(--s16);
  }
  &:not([data-wide]) .below > div + div,
  .below > div > section + section {
    border-top: var(--r-heavy) solid var(--ink);
  }
  .lines {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: var(--s10) var(--s18);
  }
  .over {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    align-items: center;
    gap: var(--s4) var(--s12);
  }
  .notes p {
    display: flex;
    gap: var(--s6);
  }
  .notes svg {
    flex: none;
  }
  &[data-wide] .cols {
    grid-template-columns: 392px minmax(0, 1fr);
  }
  &[data-wide] .cols > section + section {
    border-left: var(--r-hair) solid var(--rule);
    padding-left: var(--s16);
    margin-left: var(--s16);
  }
  .cols > section > h3 {
    padding-top: var(--s12);
  }
  &[data-wide] .lines {
    grid-template-columns: minmax(0, 1fr) 300px;
  }
  &:not([data-wide]) .cols > :first-child {
    order: 2;
    border-top: var(--r-heavy) solid var(--ink);
  }
  @media print {
    .cols {
      break-inside: avoid;
    }
  }
`;

function said(fit: Fit): string {
  const { joints } = fit.view;
  const places = joints.reduce((n, j) => n + j.count, 0);
  const of = (level: string) => joints.filter((j) => j.level === level).length;
  const parts = [
    `${counted(joints.length, 'joint', 'joints')} at ${places} places`,
    of('danger') > 0 ? `${counted(of('danger'), 'does not fit', 'do not fit')}` : '',
    of('caution') > 0 ? `${of('caution')} to look at again` : '',
    of('note') > 0 ? `${of('note')} not known yet` : '',
  ];
  return parts.filter(Boolean).join(', ');
}

function Lines({ fit }: { fit: Fit }) {
  const [ref, width] = useWidth<HTMLDivElement>(640);
  const tabled = useMedia(TABLED);
  const [all, setAll] = useState(false);
  const free = useMemo(() => {
    const taken = new Set(fit.view.joints.map((j) => j.key));
    for (let n = 1; ; n += 1) if (!taken.has(`own-${n}`)) return `own-${n}`;
  }, [fit.view.joints]);
  return (
    <section aria-label="Lines, joint by joint" ref={ref}>
      <div className="over">
        <h2>
          Lines, joint by joint
          <em>{said(fit)}</em>
        </h2>
        <PressButton
          className="noprint"
          data-plain=""
          onPress={() => {
            fit.onPut('a joint added', `fit.joints.${free}`, { name: 'another joint' });
            fit.onJoint(free);
          }}
        >
          Add a joint
        </PressButton>
      </div>
      {tabled && width > 560 && <LineMap fit={fit} width={width} />}
      <div className="lines">
        <div>
          <Joints fit={fit} wide={tabled} />
          <div className="notes">
            {(all ? fit.view.notes : fit.view.notes.slice(0, 2)).map((note) => (
              <p key={note.words} className="quiet">
                <Mark state={note.level} size={14} />
                {note.words}
              </p>
            ))}
            {fit.view.notes.length > 2 && (
              <PressButton data-plain="" onPress={() => setAll(!all)}>
                {all ? 'fewer notes' : `all ${fit.view.notes.length} notes`}
              </PressButton>
            )}
          </div>
        </div>
        <JointPanel fit={fit} />
      </div>
    </section>
  );
}

function Wheels({ fit }: { fit: Fit }) {
  const { sections, hoses } = fit.view;
  const [axle, setAxle] = useState<string>('');
  const worst =
    sections.find((s) => s.level === 'danger') ?? sections.find((s) => s.level === 'caution') ?? sections[0];
  const section = sections.find((s) => s.axle === axle) ?? worst;
  const hose = hoses.find((h) => h.axle === section?.axle);
  if (!section) return null;
  return (
    <section aria-label="Wheel, cut through the brake">
      <div className="over">
        <h2>{capital(section.title)} wheel, cut through the brake</h2>
        {sections.length > 1 && (
          <ToggleRow
            aria-label="Which axle"
            selectionMode="single"
            disallowEmptySelection
            selectedKeys={[section.axle]}
            onSelectionChange={(chosen) => setAxle(String([...chosen][0] ?? ''))}
          >
            {sections.map((s) => (
              <ToggleButton key={s.axle} id={s.axle}>
                {capital(s.title)}
              </ToggleButton>
            ))}
          </ToggleRow>
        )}
      </div>
      <Section key={section.axle} section={section} fit={fit} />
      {hose && (
        <>
          <h3>{capital(section.title)} hose</h3>
          <HoseReach hose={hose} fit={fit} />
        </>
      )}
    </section>
  );
}

export function FitPage({ job, view, stages }: StageProps<'fit'>) {
  const fit = useFit(job, view);
  const { onJoint, steps } = fit;
  const targets = useMemo(
    () =>
      view.joints.map((j) => ({
        id: j.key,
        label: `Joint ${j.number}: ${j.title}`,
        note: 'Lines',
        go: () => {
          onJoint(j.key);
          document.querySelector<HTMLElement>(`[data-joint="${j.key}"]`)?.focus();
        },
      })),
    [view.joints, onJoint],
  );
  return (
    <WorkPage
      job={job}
      stages={stages}
      stage="fit"
      title="Fit"
      setup={view.setup}
      targets={targets}
      said={view.parts.rows.length > 0 ? view.parts.sentence : 'Will it go together, and what is missing.'}
      onSetup={fit.onSetup}
      steps={steps}
      cautions="A figure here is a measurement of yours: measure again before you cut or order. No strength is judged: bent, welded and drilled parts need a qualified check. Makers’ instructions, road law and inspection come first."
    >
      {(wide) => (
        <Body data-wide={wide || undefined}>
          <div className="cols">
            <Wheels fit={fit} />
            <Lines fit={fit} />
          </div>
          <div className="below">
            <div>
              <section aria-label="Parts list">
                <PartsList fit={fit} />
              </section>
              <section aria-label="Hard lines to cut">
                <CutList fit={fit} />
              </section>
              <section aria-label="Routes">
                <Routes fit={fit} />
              </section>
            </div>
            <div>
              <section aria-label="In the yard">
                <Yard fit={fit} />
              </section>
              <section aria-label="Parking brake">
                <Parking fit={fit} />
              </section>
              <section aria-label="Plates">
                <Plates fit={fit} />
              </section>
              <section aria-label="Donor parts">
                <Donors fit={fit} />
              </section>
            </div>
          </div>
        </Body>
      )}
    </WorkPage>
  );
}
