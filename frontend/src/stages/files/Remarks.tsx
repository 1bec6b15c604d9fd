/** Remarks that came back with a lent copy: read from their file, listed by place, settled one by one. */
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import type { Recorder } from '../../api/records';
import { useRemarks } from '../../api/remarks';
import { Panel } from '../../ui/Panel';
import { PressButton } from '../../ui/PressButton';
import { counted, moment } from '../../units/format';

const Box = styled(Panel)`
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: var(--s2) var(--s12);
    border-bottom: var(--r-hair) solid var(--rule);
    padding: var(--s4) 0;
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  li[data-settled] {
    color: var(--ink-2);
    text-decoration: line-through;
  }
  b {
    font-weight: var(--w-strong);
  }
`;
const FORMAT = 'kobrix-remarks';
const LARGEST = 1_000_000; // bytes: some thousand remarks
interface Filed {
  format?: unknown;
  setup?: unknown;
  by?: unknown;
  remarks?: unknown;
}

/** The remarks in a file, or what is wrong with it. */
function read(text: string, setups: readonly string[]) {
  let filed: Filed;
  try {
    filed = JSON.parse(text) as Filed;
  } catch {
    throw new Error('It is no file of remarks: it cannot be read as JSON.');
  }
  if (filed === null || filed.format !== FORMAT || !Array.isArray(filed.remarks))
    throw new Error(`It is no file of remarks: “format” must be ${FORMAT}.`);
  const setup = typeof filed.setup === 'string' ? filed.setup : '';
  if (!setups.includes(setup))
    throw new Error(`It is about “${setup}”, which this job has not; it has ${setups.join(', ')}.`);
  const by = typeof filed.by === 'string' && filed.by.trim() !== '' ? { by: filed.by.trim().slice(0, 80) } : {};
  return filed.remarks.map((row: unknown, n) => {
    const { key, place, words } = (row ?? {}) as Record<string, unknown>;
    if (typeof key !== 'string' || typeof place !== 'string' || typeof words !== 'string')
      throw new Error(`Remark ${n + 1} has no key, no place or no words.`);
    return { key, body: { setup, place: place.slice(0, 80), words, ...by } };
  });
}

interface RemarksProps {
  job: number;
  recorded: number;
  setups: readonly string[];
  onKeep: (key: string, body: Record<string, unknown>) => Promise<void>;
  record: Recorder;
}
export function Remarks({ job, recorded, setups, onKeep, record }: RemarksProps) {
  const remarks = useRemarks(job, recorded);
  const [said, setSaid] = useState('');
  const [refused, setRefused] = useState('');
  async function take(files: FileList | null) {
    const file = files?.[0];
    if (!file) return;
    setSaid('');
    setRefused('');
    try {
      if (file.size > LARGEST)
        throw new Error(`${file.name} has ${file.size} bytes; a file of remarks has at most ${LARGEST}.`);
      const rows = read(await file.text(), setups);
      for (const { key, body } of rows) await onKeep(key, body);
      setSaid(`${counted(rows.length, 'remark', 'remarks')} read.`);
    } catch (error) {
      setRefused(error instanceof Error ? error.message : 'It was refused.');
    }
  }
  return (
    <Box>
      <div className="noprint">
        <FileTrigger acceptedFileTypes={['.json']} onSelect={(files) => void take(files)}>
          <PressButton>Read remarks that came back</PressButton>
        </FileTrigger>{' '}
        <span role="status">{said}</span>
      </div>
      {refused !== '' && <p role="alert">{refused}</p>}
      {remarks.data?.length === 0 && <p className="quiet">None yet.</p>}
      <ul aria-label="Remarks">
        {remarks.data?.map((r) => (
          <li key={r.key} data-settled={r.settled !== null || undefined}>
            <span>
              <b>{r.place}</b>, {r.setup}: {r.words} ({r.by === '' ? 'no name' : r.by}, {moment(r.made_at)})
            </span>
            <PressButton
              data-plain=""
              className="noprint"
              aria-label={`${r.settled === null ? 'Settled' : 'Not settled'}: ${r.words}`}
              onPress={() =>
                void record(`a remark ${r.settled === null ? 'settled' : 'open again'}`, 'struck', {
                  of: r.key,
                  ...(r.settled === null ? { why: 'settled' } : {}),
                })
              }
            >
              {r.settled === null ? 'settled' : 'not settled'}
            </PressButton>
          </li>
        ))}
      </ul>
    </Box>
  );
}
