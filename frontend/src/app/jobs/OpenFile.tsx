/** A file is opened in two steps: what is in it is shown first, then it goes onto the wall as a job of its own. */
import { useState } from 'react';
import { Button, DropZone, FileTrigger, type FileDropItem } from 'react-aria-components';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { lookAtFile, useAddJob } from '../../api/jobs';
import type { FileLook } from '../../api/types';
import { counted } from '../../units/format';

const Drop = styled(DropZone)`
  border: var(--r-outline) dashed var(--ink-2);
  padding: var(--s16);
  p {
    color: var(--ink-2);
    margin: var(--s4) 0 var(--s10);
  }
  button {
    border: var(--r-outline) solid var(--ink);
    background: none;
    min-height: var(--target);
    padding: 0 var(--s16);
    font: var(--w-strong) var(--t-head) / var(--one) var(--text);
  }
  button + button {
    margin-left: var(--s10);
  }
  &[data-drop-target] {
    background: var(--sunk);
  }
`;
const Wrong = styled.p`
  &&& {
    color: var(--danger);
    white-space: pre-line;
    font-weight: var(--w-strong);
  }
`;

/** What is in a file, in a sentence. */
function said({ kind, vehicle, setups, records, stops, traces, twin }: FileLook): string {
  const what =
    kind === 'job'
      ? `a job of a ${vehicle}: ${setups.join(', ')}`
      : `one setup of a ${vehicle}, which becomes as found, and a plan A like it`;
  const happened =
    records === 0
      ? 'nothing that happened yet'
      : `${counted(records, 'record', 'records')}, ${counted(stops, 'stop', 'stops')} among them` +
        (traces > 0 ? `, ${counted(traces, 'recording', 'recordings')}` : '');
  const beside = twin ? ' A job of this name is on the wall already: it stays as it is, beside it.' : '';
  return `It is ${what}; ${happened}.${beside}`;
}

export function OpenFile() {
  const add = useAddJob();
  const go = useNavigate();
  const [wrong, setWrong] = useState<string | null>(null);
  const [found, setFound] = useState<{ look: FileLook; text: string; file: string } | null>(null);
  const refuse = (file: string, error: unknown) =>
    setWrong(`${file}: ${error instanceof Error ? error.message : 'it cannot be read'}`);
  async function look(file: File | undefined) {
    if (!file) return;
    setWrong(null);
    setFound(null);
    try {
      const text = await file.text();
      setFound({ look: await lookAtFile(text), text, file: file.name });
    } catch (error) {
      refuse(file.name, error);
    }
  }
  async function open() {
    if (!found) return;
    try {
      const job = await add.mutateAsync(found.text);
      void go(`/jobs/${job.id}/size`);
    } catch (error) {
      refuse(found.file, error);
    }
  }
  return (
    <Drop
      onDrop={(event) => {
        const item = event.items.find((i): i is FileDropItem => i.kind === 'file');
        void item?.getFile().then(look);
      }}
    >
      <h2>Open a file</h2>
      <p>
        Drop a .kobrix.json here, or choose one: a job or a single setup. It is checked first, and never overwrites a
        job.
      </p>
      {found ? (
        <div role="group" aria-label="What is in the file">
          <strong>{found.look.name}</strong>
          <p role="status">{said(found.look)}</p>
          <Button onPress={() => void open()} isDisabled={add.isPending}>
            Put it on the wall
          </Button>
          <Button onPress={() => setFound(null)}>Leave it</Button>
        </div>
      ) : (
        <FileTrigger acceptedFileTypes={['application/json', '.json']} onSelect={(files) => void look(files?.[0])}>
          <Button>Choose a file</Button>
        </FileTrigger>
      )}
      {wrong && <Wrong role="alert">{wrong}</Wrong>}
    </Drop>
  );
}
