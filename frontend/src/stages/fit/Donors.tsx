/** Parts from elsewhere: what is needed, and the library's parts by how little must be made to fit them. */
import { useState } from 'react';
import { FileTrigger, Label, TextArea, TextField, ToggleButton } from 'react-aria-components';
import styled from 'styled-components';
import { LIBRARY_CSV, useDonors, useLibrary } from '../../api/fit';
import type { DonorGroup, DonorRow } from '../../api/types';
import { Field } from '../../ui/Field';
import { Mark } from '../../ui/Mark';
import { PressButton } from '../../ui/PressButton';
import { ToggleRow } from '../../ui/ToggleRow';
import { capital, counted } from '../../units/format';
import type { Fit } from './useFit';
import { inChosenUnits } from '../../units/sentences';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s8);
  .over {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    align-items: center;
    gap: var(--s4) var(--s12);
  }
  .needs {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(128px, 1fr));
    gap: var(--s6) var(--s12);
    align-items: end;
  }
  .sized {
    display: grid;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s14);
    align-items: center;
  }
  a {
    color: inherit;
    text-underline-offset: var(--s3);
    font: var(--w-firm) var(--t-text) / var(--s24) var(--letter);
  }
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: grid;
    grid-template-columns: 18px minmax(0, 1fr) auto;
    gap: var(--s2) var(--s8);
    align-items: center;
    border-bottom: var(--r-hair) solid var(--rule);
    padding: var(--s4) 0;
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
  }
  li b {
    display: block;
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
  }
  .quiet {
    color: var(--ink-2);
  }
  li > span:last-child {
    display: flex;
    flex-wrap: wrap;
    justify-content: flex-end;
    gap: var(--s8);
  }
  textarea {
    width: 100%;
    min-height: 96px;
    border: var(--r-hair) solid var(--ink);
    background: none;
    color: inherit;
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
`;
const FIRST = 6;

function One({ row, fit, onOut }: { row: DonorRow; fit: Fit; onOut: () => void }) {
  const said = [
    row.make.length === 0 && row.unknown.length === 0 ? 'bolts on' : '',
    row.make.join(', '),
    row.unknown.length === 0 ? '' : `not known: ${row.unknown.join(', ')}`,
  ].filter(Boolean);
  return (
    <li>
      <Mark state={row.level} size={16} />
      <span>
        <b>
          {row.name}
          {row.price !== null && `: ${row.price}`}
        </b>
        {capital(inChosenUnits(said.join('; ')))}.{' '}
        <span className="quiet">
          {capital(inChosenUnits(row.sizes))}
          {row.source !== '' && `; ${row.source}`}
        </span>
      </span>
      <span className="noprint">
        {row.usable && (
          <PressButton
            data-plain=""
            aria-label={`Put ${row.name} on the list`}
            onPress={() =>
              fit.onList(`${row.name} on the list`, {
                part: row.name,
                wanted: 1,
                ...(row.price === null ? {} : { price: row.price }),
                ...(row.source === '' ? {} : { source: row.source }),
              })
            }
          >
            on the list
          </PressButton>
        )}
        <PressButton data-plain="" aria-label={`Take ${row.name} out of the library`} onPress={onOut}>
          out
        </PressButton>
      </span>
    </li>
  );
}

interface GroupProps {
  group: DonorGroup;
  axle: string;
  fit: Fit;
  onOut: (id: number) => void;
}
function Group({ group, axle, fit, onOut }: GroupProps) {
  const [all, setAll] = useState(false);
  const rows = all ? group.rows : group.rows.slice(0, FIRST);
  const title = group.part === 'rotor' ? 'Rotors' : 'Calipers';
  return (
    <div>
      <h3>
        {title}
        {group.count === 0
          ? `: the library has no ${group.part} yet`
          : group.rows.length === 0
            ? ': say one dimension that is needed'
            : `: ${group.usable} of ${group.count} can be used, the least to make first`}
      </h3>
      <div className="needs">
        {group.fields.map((f) => (
          <Field
            key={f.key}
            className="sized"
            saysRefused
            label={f.label}
            name={`${group.part} needed: ${f.label}`}
            value={f.from_setup ? '' : f.text}
            placeholder={f.from_setup ? `${f.text}, as planned` : 'any'}
            onCommit={(text) =>
              text.trim() === ''
                ? Promise.resolve(fit.onPut(`${f.label}: any`, `fit.donors.${axle}.${group.part}.${f.key}`, null))
                : fit.onType(`${group.part} needed: ${f.label}`, `fit.donors.${axle}.${group.part}.${f.key}`, text, f.unit)
            }
          />
        ))}
      </div>
      {group.refused !== '' && <p role="alert">{group.refused}</p>}
      <ol aria-label={`${title} of the library`}>
        {rows.map((row) => (
          <One key={row.id} row={row} fit={fit} onOut={() => onOut(row.id)} />
        ))}
      </ol>
      {group.rows.length > FIRST && (
        <PressButton data-plain="" onPress={() => setAll(!all)}>
          {all ? 'the first few' : `the first ${group.rows.length} of ${group.count}`}
        </PressButton>
      )}
    </div>
  ); // prettier-ignore
}

export function Donors({ fit }: { fit: Fit }) {
  const [axle, setAxle] = useState<'front' | 'rear'>('rear');
  const asked = useDonors(fit.job.id, fit.job.revision, fit.view.setup, axle);
  const { add, remove } = useLibrary();
  const [text, setText] = useState('');
  const [open, setOpen] = useState(false);
  const view = asked.data;
  const looked = add.data && !add.variables.keep && add.variables.text === text ? add.data : null;
  const kept = add.data && add.variables.keep ? add.data : null;
  return (
    <Box>
      <div className="over">
        <h2>
          Donor parts
          <em>{view ? `${counted(view.library, 'part', 'parts')} in the library, for every job` : ''}</em>
        </h2>
        {(view?.axles.length ?? 0) > 1 && (
          <ToggleRow
            aria-label="Donor parts for which axle"
            selectionMode="single"
            disallowEmptySelection
            selectedKeys={[axle]}
            onSelectionChange={(chosen) => setAxle([...chosen][0] === 'front' ? 'front' : 'rear')}
          >
            {view?.axles.map((a) => (
              <ToggleButton key={a} id={a}>
                {capital(a)}
              </ToggleButton>
            ))}
          </ToggleRow>
        )}
      </div>
      {asked.error && <p role="alert">{asked.error.message}</p>}
      {view?.groups.map((group) => (
        <Group key={group.part} group={group} axle={view.axle} fit={fit} onOut={(id) => remove.mutate(id)} />
      ))}
      <div className="row noprint">
        <PressButton aria-expanded={open} onPress={() => setOpen(!open)}>
          Add parts to the library
        </PressButton>
        {(view?.library ?? 0) > 0 && (
          <a href={LIBRARY_CSV} download>
            Save the library as CSV
          </a>
        )}
      </div>
      {open && (
        <div className="noprint">
          <TextField value={text} onChange={setText}>
            <Label>
              A table with a head: paste from a spreadsheet, or choose a file. Columns: part (rotor, caliper), name,
              price, source, diameter, thickness, hat offset, hub bore, bolt circle, holes, rotor diameter, rotor
              thickness, bolt spacing, lateral, side area, bolt thread, port thread. Bare figures are mm and cm².
            </Label>
            <TextArea placeholder={'part,name,price,diameter,thickness,holes\nrotor,saloon front,45,280,24,5'} />
          </TextField>
          <div className="row">
            <FileTrigger
              acceptedFileTypes={['.csv', '.txt', '.tsv', 'text/csv']}
              onSelect={(files) => {
                const file = files?.[0];
                if (file) void file.text().then(setText);
              }}
            >
              <PressButton data-plain="">choose a file</PressButton>
            </FileTrigger>
            <PressButton
              data-first=""
              isDisabled={text.trim() === '' || add.isPending}
              onPress={() => add.mutate({ text, keep: looked !== null })}
            >
              {looked === null ? 'Look at it' : `Take ${counted(looked.parts, 'part', 'parts')} in`}
            </PressButton>
            <span role="status">
              {kept && `${counted(kept.added, 'part is', 'parts are')} new in the library.`}
              {looked && `${looked.first.join('; ')}${looked.parts > looked.first.length ? '; …' : ''}`}
            </span>
          </div>
          {add.error && <p role="alert">{add.error.message}</p>}
        </div>
      )}
    </Box>
  );
}
