/** Measure on paper: every part drawn small with its numbers, and its entries in rows; what is not known is a line to write on. */
import styled from 'styled-components';
import type { Entry, Group, Section } from '../../api/types';
import { LEVELS } from './Condition';
import { inOrder, PictureWithNumbers, type Drawn } from './Picture';
import { pictureOf } from './pictures';
import type { Measure } from './useMeasure';

const Sheet = styled.div`
  columns: 4;
  column-gap: var(--s18);
  > section {
    border-top: var(--r-hair) solid var(--ink);
    padding: var(--s4) 0 var(--s10);
  }
  h2 {
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
  }
  h3 {
    font: var(--w-strong) var(--t-text) / var(--snug) var(--letter);
    padding-top: var(--s4);
  }
  svg {
    display: block;
    max-height: 150px;
    margin: 0 auto;
  }
  h2,
  h3,
  svg {
    break-after: avoid;
  }
  svg,
  li {
    break-inside: avoid;
  }
  li,
  p {
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    padding: var(--s2) 0;
    overflow-wrap: anywhere;
  }
  ul {
    list-style: none;
    padding: 0;
  }
`;
const Row = styled.li`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 var(--s6);
  border-bottom: var(--r-hair) dotted var(--rule);
  > span {
    color: var(--ink-2);
  }
  b {
    margin-left: auto;
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
  }
  b[data-assumed] {
    font-weight: var(--w-firm);
  }
  i {
    margin-left: auto;
    width: 96px;
    border-bottom: var(--r-outline) solid var(--ink);
  }
`;

const chosen = (entry: Entry) =>
  entry.kind === 'flag'
    ? entry.flag === null
      ? ''
      : entry.flag
        ? 'yes'
        : 'no'
    : entry.kind === 'choice'
      ? (entry.choices.find((c) => c.value === entry.text)?.label ?? '')
      : entry.text;

function EntryRow({ entry, number }: { entry: Entry; number: number | null }) {
  const assumed = entry.state === 'assumed';
  const value = assumed && entry.text === '' ? (entry.default?.text ?? '') : chosen(entry);
  const off = entry.plus_minus ? ` ± ${entry.plus_minus.text}` : '';
  return (
    <Row>
      <span>
        {number === null ? '' : `${number}  `}
        {entry.label}
      </span>
      {value === '' ? <i /> : <b data-assumed={assumed || undefined}>{`${value}${off}`}</b>}
      {value !== '' && (assumed || entry.other !== '') && <span>{assumed ? 'assumed' : entry.other}</span>}
    </Row>
  );
}

/** What is usually left alone stands on paper only where it was measured. */
const told = (entry: Entry) => !entry.more || entry.state === 'measured';

function GroupRows({ group, drawn }: { group: Group; drawn: Drawn | null }) {
  const { placed, rest } = inOrder(group.entries, drawn);
  const plain = rest.filter(told);
  if (placed.length + plain.length === 0) return null;
  return (
    <>
      {group.title && <h3>{group.title}</h3>}
      {drawn && placed.length > 0 && <PictureWithNumbers drawn={drawn} entries={placed} />}
      <ul>
        {placed.map((entry, n) => (
          <EntryRow key={entry.path} entry={entry} number={n + 1} />
        ))}
        {plain.map((entry) => (
          <EntryRow key={entry.path} entry={entry} number={null} />
        ))}
      </ul>
    </>
  );
}

/** What stands on paper of a section, to tell whether another says the same. */
const standing = (section: Section) =>
  JSON.stringify([
    section.kind,
    section.groups.flatMap((g) => g.entries.filter(told).map((e) => [e.key, e.state, e.text, e.flag, e.plus_minus])),
  ]);

interface OnPaper {
  section: Section;
  /** The title of an earlier section that says the same. */
  as: string | null;
  measure: Measure;
}
function SectionOnPaper({ section, as, measure }: OnPaper) {
  const drawn = pictureOf(section, measure);
  return (
    <section aria-label={section.title}>
      <h2>{section.title}</h2>
      {as !== null && <p>the same as {as}</p>}
      {as === null &&
        section.groups.map((group, n) => (
          <GroupRows key={`${group.title}-${n}`} group={group} drawn={n === 0 ? drawn : null} />
        ))}
    </section>
  );
}

export function Paper({ measure }: { measure: Measure }) {
  const { sections, condition } = measure.sheet;
  const alike = (n: number) => sections.slice(0, n).find((s) => standing(s) === standing(sections[n]!));
  return (
    <Sheet>
      {sections.map((section, n) => (
        <SectionOnPaper key={section.key} section={section} as={alike(n)?.title ?? null} measure={measure} />
      ))}
      {condition.length > 0 && (
        <section aria-label="Condition">
          <h2>Condition</h2>
          <ul>
            {condition.map((note, n) => (
              <li key={`${note.about}-${n}`}>
                {note.about}, {LEVELS.find((l) => l.id === note.level)?.label}: {note.text}
              </li>
            ))}
          </ul>
        </section>
      )}
    </Sheet>
  );
}
