/** One section: its drawing with the fields in it, and every entry that has no place in the drawing below. */
import { useState } from 'react';
import styled from 'styled-components';
import type { Group, Section } from '../../api/types';
import { AddDevice } from './AddDevice';
import { EntryField, Plain } from '../../page/EntryField';
import { Helpers } from './Helpers';
import { LinesMap } from './LinesMap';
import { inOrder, PictureWithFields, PictureWithNumbers, type Drawn } from './Picture';
import { pictureOf } from './pictures';
import type { Measure } from './useMeasure';

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--s10);
  align-items: baseline;
  padding-bottom: var(--s4);
  h2 {
    font: var(--w-strong) var(--t-title) / var(--snug) var(--letter);
  }
  p {
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
  }
`;
const Rest = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 138px), 1fr));
  gap: var(--s12) var(--s20);
  padding: var(--s10) 0;
  align-items: start;
  [data-wide] {
    grid-column: span 2;
  }
  &[data-one] [data-wide] {
    grid-column: auto;
  }
  &[data-one] {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Part = styled.div`
  border-top: var(--r-hair) solid var(--rule);
  padding-top: var(--s8);
  h3 {
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: var(--s10);
  }
`;
const More = styled.div`
  h3 {
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
    padding-top: var(--s8);
  }
  border-top: var(--r-hair) solid var(--rule);
  margin-top: var(--s6);
  padding-top: var(--s6);
`;
const Presses = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: var(--s8);
  padding: var(--s8) 0;
`;

function Usual({ groups, here }: { groups: readonly Group[]; here: string | null }) {
  const [open, setOpen] = useState(false);
  const own = groups
    .map((g) => ({ title: g.title, entries: g.entries.filter((e) => e.more) }))
    .filter((g) => g.entries.length > 0);
  const all = own.flatMap((g) => g.entries);
  if (all.length === 0) return null;
  const known = all.filter((e) => e.state === 'measured').length;
  const shown = open || all.some((e) => e.path === here);
  return (
    <More>
      <Plain aria-expanded={shown} onPress={() => setOpen(!shown)}>
        {shown ? 'Hide' : 'Show'} what is usually left alone ({known > 0 ? `${known} of ` : ''}
        {all.length})
      </Plain>
      {shown &&
        own.map((g) => (
          <div key={g.title}>
            {g.title && <h3>{g.title}</h3>}
            <Rest>
              {g.entries.map((e) => (
                <EntryField key={e.path} entry={e} />
              ))}
            </Rest>
          </div>
        ))}
    </More>
  );
}

interface GroupProps {
  group: Group;
  drawn: Drawn | null;
  measure: Measure;
  wide: boolean;
}
function GroupView({ group, drawn, measure, wide }: GroupProps) {
  const { placed, rest } = inOrder(group.entries, drawn);
  const plain = rest.filter((e) => !e.more);
  if (placed.length + plain.length === 0 && group.remove.length === 0) return null;
  const picture =
    drawn &&
    (wide ? (
      <PictureWithFields drawn={drawn} entries={placed} />
    ) : (
      <PictureWithNumbers drawn={drawn} entries={placed} />
    ));
  const fields = (
    <>
      {picture}
      <Rest data-one={!wide || undefined}>
        {!wide && placed.map((e, i) => <EntryField key={e.path} entry={e} number={i + 1} />)}
        {plain.map((e) => (
          <EntryField key={e.path} entry={e} />
        ))}
      </Rest>
    </>
  );
  if (!group.title) return fields;
  return (
    <Part>
      <h3>
        {group.title}
        {group.remove.length > 0 && (
          <Plain
            aria-label={`Take out: ${group.title}`}
            onPress={() => measure.onEdits(`${group.title} out`, group.remove)}
          >
            Take out
          </Plain>
        )}
      </h3>
      {fields}
    </Part>
  );
}

export function SectionView({ section, measure, wide }: { section: Section; measure: Measure; wide: boolean }) {
  const drawn = pictureOf(section, measure);
  const lines = section.kind === 'lines';
  const untitled = lines ? section.groups.filter((g) => !g.title) : section.groups;
  return (
    <>
      <Head>
        <h2>{section.title}</h2>
        <p>{section.note}</p>
      </Head>
      {section.adds.length > 0 && section.kind === 'control' && (
        <Presses>
          {section.adds.map((add) => (
            <Plain key={add.label} onPress={() => measure.onEdits(add.label, add.edits)}>
              Make it {add.label}
            </Plain>
          ))}
        </Presses>
      )}
      {untitled.map((group, i) => (
        <GroupView
          key={`${group.title}-${i}`}
          group={group}
          drawn={i === 0 ? drawn : null}
          measure={measure}
          wide={wide}
        />
      ))}
      {lines && (
        <LinesMap groups={section.groups.filter((g) => g.title)}>
          {(group) => <GroupView group={group} drawn={null} measure={measure} wide={wide} />}
        </LinesMap>
      )}
      <Usual groups={section.groups} here={measure.entering.here} />
      {section.kind !== 'control' && section.adds.length > 0 && (
        <Presses>
          {section.adds.map((add) => (
            <Plain key={add.label} onPress={() => measure.onEdits(add.label, add.edits)}>
              + {add.label}
            </Plain>
          ))}
          {section.devices && <AddDevice devices={section.devices} measure={measure} />}
        </Presses>
      )}
      <Helpers section={section} measure={measure} />
    </>
  );
}
