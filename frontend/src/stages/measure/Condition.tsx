/** What was seen: a note on a part, how grave it is, and photographs of it. */
import { useState, type FormEvent } from 'react';
import { FileTrigger, Label, TextArea, TextField, ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { Refused } from '../../api/client';
import { photoUrl, smallPhotoUrl, useAddPhoto } from '../../api/pictures';
import type { Note } from '../../api/types';
import { Choose } from '../../ui/Choose';
import { Mark } from '../../ui/Mark';
import { Plain } from '../../page/EntryField';
import type { Measure } from './useMeasure';

const Page = styled.div`
  display: grid;
  gap: var(--s12);
  h2 {
    font: var(--w-strong) var(--t-title) / var(--snug) var(--letter);
  }
  > p {
    color: var(--ink-2);
    max-width: 60ch;
  }
`;
const Notes = styled.ul`
  list-style: none;
  padding: 0;
  border-top: var(--r-hair) solid var(--ink);
  li {
    display: grid;
    grid-template-columns: var(--s24) minmax(0, 1fr) auto;
    gap: var(--s4) var(--s6);
    border-bottom: var(--r-hair) solid var(--rule);
    padding: var(--s8) 0;
  }
  h3 {
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
  }
  p {
    overflow-wrap: anywhere;
  }
  .photos {
    grid-column: 2 / 4;
    display: flex;
    flex-wrap: wrap;
    gap: var(--s8);
  }
  img {
    height: 96px;
    max-width: 160px;
    object-fit: cover;
    border: var(--r-outline) solid var(--ink);
    display: block;
  }
`;
const Form = styled.form`
  border: var(--r-outline) solid var(--ink);
  padding: var(--s12);
  display: grid;
  gap: var(--s10);
  justify-items: start;
  .react-aria-Label,
  .label {
    display: block;
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
  }
  .react-aria-TextField {
    width: 100%;
  }
  textarea {
    width: 100%;
    min-height: 62px;
    border: 0;
    border-bottom: var(--r-outline) solid var(--ink);
    background: var(--sunk);
    padding: var(--s6);
    font: var(--w-firm) var(--t-head) / var(--read) var(--text);
    color: inherit;
  }
  .levels {
    display: flex;
  }
  .levels button {
    border: var(--r-outline) solid var(--ink);
    margin-right: calc(0px - var(--r-outline));
    background: var(--paper);
    min-height: var(--s28);
    padding: 0 var(--s10);
  }
  .levels button[data-selected] {
    background: var(--ink);
    color: var(--paper);
  }
  .photos {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s8);
    align-items: center;
  }
  img {
    height: 64px;
    border: var(--r-outline) solid var(--ink);
    display: block;
  }
  [data-wrong] {
    color: var(--danger);
    font-weight: var(--w-strong);
  }
  @media (pointer: coarse) {
    .levels button {
      min-height: var(--target);
    }
  }
`;

export const LEVELS = [
  { id: 'fine', label: 'fine', mark: 'good' },
  { id: 'watch', label: 'watch it', mark: 'caution' },
  { id: 'renew', label: 'renew it', mark: 'danger' },
] as const;
const SEEN = [
  'pitting in the bore, and whether the seal runs over it',
  'hoses swollen, cracked or old: the date on them',
  'plastic tube, kinked pipe, rusty nuts',
  'a blocked compensating port, a swollen cap seal',
  'a seized piston or bleed screw, a slack pushrod',
  'the fluid’s colour, a lip worn into the rotor',
];

export function Condition({ measure }: { measure: Measure }) {
  const { job, sheet } = measure;
  const notes = sheet.condition;
  return (
    <Page>
      <h2>Condition</h2>
      <p>What a tape does not show. Look for: {SEEN.join('; ')}.</p>
      {notes.length > 0 && (
        <Notes>
          {notes.map((note, i) => (
            <li key={`${note.about}-${i}`}>
              <Mark state={LEVELS.find((l) => l.id === note.level)?.mark ?? 'note'} size={16} />
              <div>
                <h3>
                  {note.about}, {LEVELS.find((l) => l.id === note.level)?.label}
                </h3>
                <p>{note.text}</p>
              </div>
              <Plain
                aria-label={`Take out the note on ${note.about}`}
                onPress={() =>
                  void measure
                    .onStep({ label: 'note out', edits: [{ op: 'remove', path: `/condition/${i}` }] })
                    .catch(() => undefined)
                }
              >
                Take out
              </Plain>
              {note.photos.length > 0 && (
                <div className="photos">
                  {note.photos.map((photo) => (
                    <a key={photo.sha256} href={photoUrl(job.id, photo.sha256)} target="_blank" rel="noreferrer">
                      <img
                        src={smallPhotoUrl(job.id, photo.sha256)}
                        alt={`${note.about}: ${photo.name || 'photograph'}`}
                      />
                    </a>
                  ))}
                </div>
              )}
            </li>
          ))}
        </Notes>
      )}
      <NewNote
        measure={measure}
        onStore={(note) =>
          measure.onStep({
            label: `note on ${note.about}`,
            edits: [{ op: 'insert', path: '/condition/-', value: note }],
          })
        }
      />
    </Page>
  );
}

function NewNote({ measure, onStore }: { measure: Measure; onStore: (note: Note) => Promise<unknown> }) {
  const parts = measure.sheet.sections.map((s) => s.title);
  const [about, setAbout] = useState(parts[0] ?? 'Vehicle');
  const [text, setText] = useState('');
  const [level, setLevel] = useState<Note['level']>('watch');
  const [photos, setPhotos] = useState<Note['photos']>([]);
  const [wrong, setWrong] = useState<string | null>(null);
  const add = useAddPhoto(measure.job.id);
  const take = async (files: FileList | null) => {
    setWrong(null);
    for (const file of Array.from(files ?? [])) {
      try {
        const kept = await add.mutateAsync(file);
        setPhotos((now) => [...now, { sha256: kept, name: file.name.slice(0, 120) }]);
      } catch (error) {
        setWrong(`${file.name}: ${error instanceof Error ? error.message : 'it was refused'}`);
      }
    }
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!text.trim() && photos.length === 0) {
      setWrong('Say what you saw, or add a photograph.');
      return;
    }
    const kept = () => {
      setText('');
      setPhotos([]);
      setWrong(null);
    };
    onStore({ about, text: text.trim(), level, photos }).then(kept, (error: unknown) => {
      if (error instanceof Refused && error.waits) kept(); // on this device, said on every page
    });
  };
  return (
    <Form onSubmit={submit}>
      <Choose label="seen on" value={about} options={parts.map((p) => ({ id: p, label: p }))} onChange={setAbout} />
      <TextField value={text} onChange={setText} maxLength={2000}>
        <Label>what</Label>
        <TextArea placeholder="pit 55 mm from the mouth, outside the seal's sweep" />
      </TextField>
      <div>
        <span className="label" id="level">
          how grave
        </span>
        <ToggleButtonGroup
          className="levels"
          aria-labelledby="level"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[level]}
          onSelectionChange={(keys) => setLevel([...keys][0] as Note['level'])}
        >
          {LEVELS.map((l) => (
            <ToggleButton key={l.id} id={l.id}>
              {l.label}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </div>
      <div className="photos">
        {photos.map((p) => (
          <img key={p.sha256} src={smallPhotoUrl(measure.job.id, p.sha256)} alt={p.name} />
        ))}
        <FileTrigger
          acceptedFileTypes={['image/jpeg', 'image/png', 'image/webp']}
          allowsMultiple
          onSelect={(files) => void take(files)}
        >
          <Plain isDisabled={add.isPending}>{add.isPending ? 'Keeping it' : 'Add a photograph'}</Plain>
        </FileTrigger>
      </div>
      {wrong && (
        <p data-wrong role="alert">
          {wrong}
        </p>
      )}
      <Plain type="submit">Keep the note</Plain>
    </Form>
  );
}
