/** One axle's wheel cut through the brake: drawn, judged, and its sizes as fields. */
import { useState } from 'react';
import styled from 'styled-components';
import type { SectionView } from '../../api/types';
import { DataTable } from '../../ui/DataTable';
import { Field } from '../../ui/Field';
import { Mark } from '../../ui/Mark';
import { PressButton } from '../../ui/PressButton';
import { useWidth } from '../../ui/useWidth';
import { counted } from '../../units/format';
import { SectionDrawing } from './SectionDrawing';
import { SectionPhantom } from './SectionPhantom';
import type { Fit } from './useFit';
import { dimension, lengthOf, written } from '../../units/display';
import { inChosenUnits } from '../../units/sentences';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s8);
  .said {
    display: flex;
    gap: var(--s6);
    font-weight: var(--w-strong);
  }
  .said svg {
    flex: none;
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
    gap: var(--s4) var(--s20);
  }
  .fields > div > div {
    display: grid;
  }
  .fields h3 {
    color: var(--ink-2);
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
    border-bottom: var(--r-hair) solid var(--rule);
    margin-bottom: var(--s2);
  }
  .one {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 92px;
    align-items: center;
    gap: var(--s8);
    min-height: var(--s28);
  }
  .one label {
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
  }
  .card a {
    color: inherit;
    text-underline-offset: var(--s3);
    display: inline-flex;
    align-items: center;
    min-height: var(--s24);
  }
  @media (pointer: coarse) {
    .card a {
      min-height: var(--target);
    }
  }
  .one[data-wanted] label {
    font-weight: var(--w-strong);
  }
`;
const GROUPS = [
  ['wheel', 'Wheel'],
  ['rotor', 'Rotor on its hub'],
  ['caliper', 'Caliper'],
  ['stud', 'Wheel studs'],
  ['doubts', 'How far it may be off'],
] as const;

function Fields({ section, fit, all }: { section: SectionView; fit: Fit; all: boolean }) {
  const shown = section.fields.filter((f) => all || f.wanted || f.text !== '');
  return (
    <div className="fields">
      {GROUPS.filter(([group]) => shown.some((f) => f.group === group)).map(([group, title]) => (
        <div key={group}>
          <h3>{title}</h3>
          {shown
            .filter((f) => f.group === group)
            .map((f) => {
              const name = `${section.title} ${f.label}`;
              return (
                <div key={f.key} className="one" data-wanted={(f.wanted && f.text === '') || undefined} title={f.how}>
                  <label htmlFor={`${section.axle}-${f.group}-${f.key}`} aria-hidden="true">
                    {f.letter !== '' && <b>{f.letter} </b>}
                    {f.label}
                  </label>
                  <Field
                    saysRefused
                    label={name}
                    shown={false}
                    value={f.text}
                    placeholder={f.wanted ? 'measure' : ''}
                    onCommit={(text) => fit.onType(name, f.path, text, 'mm')}
                  />
                </div>
              );
            })}
        </div>
      ))}
    </div>
  );
}

/** The caliper's outline at full size, once its edges are measured: cut out, it is tried inside the wheel before anything is bought. */
function TryCard({ section, fit }: { section: SectionView; fit: Fit }) {
  if (section.fields.some((f) => f.group === 'caliper' && f.wanted && f.text === '')) return null;
  const of = `/api/jobs/${fit.job.id}/try-card/${section.axle}.pdf?setup=${encodeURIComponent(fit.view.setup)}`;
  return (
    <p className="noprint card">
      A card of the caliper at full size, to try inside the wheel:{' '}
      <a href={of} download>
        PDF on A4
      </a>
      ,{' '}
      <a href={`${of}&paper=Letter`} download>
        on Letter
      </a>
    </p>
  );
}

export function Section({ section, fit }: { section: SectionView; fit: Fit }) {
  const [ref, width] = useWidth<HTMLDivElement>(520);
  const known = section.profile.length > 0;
  const [open, setOpen] = useState(!known);
  const [table, setTable] = useState(false);
  const [all, setAll] = useState(false);
  if (!section.disc) return <p className="quiet">Drums at this axle: nothing stands in the wheel’s way.</p>;
  return (
    <Box ref={ref}>
      {section.refused !== '' && <p role="alert">{section.refused}</p>}
      {known ? (
        <>
          {table ? (
            <DataTable
              caption={`Gaps at the ${section.title} wheel`}
              head={['gap', 'mm', 'in one of twenty', 'wanted']}
              rows={section.gaps.map((g) => [
                g.words,
                lengthOf(g.gap_mm, 1).v,
                lengthOf(g.p5_mm, 1).v,
                dimension(g.limit_mm).v,
              ])}
            />
          ) : (
            <SectionDrawing section={section} width={width} height={Math.min(300, Math.max(240, width * 0.56))} />
          )}
          <p className="said" role="status">
            <Mark state={section.level ?? 'note'} size={18} />
            <span>{inChosenUnits(section.sentence)}</span>
          </p>
          {section.mends.map((mend) => (
            <div key={mend.words}>
              <PressButton
                data-told=""
                data-first=""
                onPress={() => fit.onEdits(`${section.title} section: ${mend.words}`, mend.edits)}
              >
                {inChosenUnits(mend.words)}
              </PressButton>
            </div>
          ))}
          {section.shim_needed_mm !== null && Math.abs(section.shim_needed_mm) > 0.05 && (
            <p className="quiet">
              {section.shim_needed_mm > 0
                ? `Shims of ${written(lengthOf(section.shim_needed_mm, 1))} at the bracket bring the slot’s middle over the disc.`
                : `The slot’s middle stands ${written(lengthOf(-section.shim_needed_mm, 1))} inboard of the disc’s: shims would take it further off.`}
            </p>
          )}
          <TryCard section={section} fit={fit} />
          {section.stud && (
            <p className="quiet">
              Studs: {section.stud.turns.toFixed(1)} turns in the nut, {section.stud.turns_needed.toFixed(1)} wanted
              {section.stud.level === 'danger' ? ': too short.' : '.'}
              {section.stud.greatest_spacer_mm !== null &&
                ` A spacer of ${written(lengthOf(section.stud.greatest_spacer_mm, 1))} at most.`}
            </p>
          )}
        </>
      ) : (
        <>
          <SectionPhantom section={section} />
          <TryCard section={section} fit={fit} />
          <p>
            {section.needs.length === 0
              ? ''
              : `Not known yet: ${counted(section.needs.length, 'size is', 'sizes are')} still to measure, ${section.needs[0]} first.`}
          </p>
        </>
      )}
      <div className="noprint">
        <PressButton data-plain="" aria-expanded={open} onPress={() => setOpen(!open)}>
          {open ? 'Hide the sizes' : 'Sizes of this section'}
        </PressButton>{' '}
        {known && (
          <PressButton data-plain="" onPress={() => setTable(!table)}>
            {table ? 'drawing' : 'table'}
          </PressButton>
        )}
      </div>
      {open && (
        <>
          <Fields section={section} fit={fit} all={all} />
          <div>
            <PressButton data-plain="" aria-expanded={all} onPress={() => setAll(!all)}>
              {all ? 'only what the gaps hang on' : 'all sizes: bridge, slot, pad, studs, ±'}
            </PressButton>
          </div>
        </>
      )}
    </Box>
  );
}
