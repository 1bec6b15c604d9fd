/** Plates and brackets at full size: two patterns of holes, the edges and webs that are left, and the template to cut to. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import type { PlateView } from '../../api/types';
import { plateUrl } from '../../api/fit';
import { Box as Rect, Path, Ring, Words } from '../../drawings/ink';
import { Choose } from '../../ui/Choose';
import { Field } from '../../ui/Field';
import { Mark } from '../../ui/Mark';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import { Tick } from '../../ui/Tick';
import { useWidth } from '../../ui/useWidth';
import { capital } from '../../units/format';
import type { Fit } from './useFit';
import { lengthOf, written } from '../../units/display';
import { inChosenUnits } from '../../units/sentences';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s10);
  article {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: var(--s6);
    border-top: var(--r-hair) solid var(--rule);
    padding-top: var(--s6);
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s12);
    align-items: end;
  }
  .row > .sized {
    width: 104px;
    display: grid;
  }
  .said {
    display: flex;
    gap: var(--s6);
    font-weight: var(--w-strong);
  }
  .said svg {
    flex: none;
  }
  a {
    color: inherit;
    text-underline-offset: var(--s3);
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
`;
const KINDS = [
  { id: '', label: 'none' },
  { id: 'rectangle', label: 'corners of a rectangle' },
  { id: 'pair', label: 'a pair' },
  { id: 'circle', label: 'on a circle' },
];
const SIZES: Record<string, readonly (readonly [string, string])[]> = {
  rectangle: [['width_mm', 'width'], ['height_mm', 'height']],
  pair: [['spacing_mm', 'spacing']],
  circle: [['holes', 'holes'], ['bolt_circle_mm', 'bolt circle']],
}; // prettier-ignore

const MOST = 300; // px across
const ROUND = 60; // px for what is written beside it
/** The plate to one scale: old holes dashed, those without their edge or web ringed. */
function Drawing({ plate }: { plate: PlateView }) {
  const [x0 = 0, y0 = 0, x1 = 0, y1 = 0] = plate.extents_mm;
  const [ref, width] = useWidth<HTMLDivElement>(MOST + ROUND);
  const scale = Math.min(Math.min(MOST, width - ROUND) / (x1 - x0), 220 / (y1 - y0));
  const at = (x: number, y: number) => [8 + (x - x0) * scale, 8 + (y1 - y) * scale] as const;
  const [left, top] = at(x0, y1);
  return (
    <div ref={ref}>
      <svg
        width={(x1 - x0) * scale + ROUND}
        height={(y1 - y0) * scale + 30}
        role="img"
        aria-label={`${plate.name}: ${plate.sentence}`}
      >
        <Rect x={left} y={top} w={(x1 - x0) * scale} h={(y1 - y0) * scale} as="edge" />
        {plate.holes.map((h) => {
          const [cx, cy] = at(h.x_mm, h.y_mm);
          return (
            <g key={h.name}>
              <Ring x={cx} y={cy} r={(h.diameter_mm / 2) * scale} as={h.old ? 'found' : 'edge'} />
              <Path d={`M${cx - 4},${cy}h8M${cx},${cy - 4}v8`} as="thin" />
              {h.level !== 'good' && (
                <circle cx={cx} cy={cy} r={(h.diameter_mm / 2) * scale + 4} className={`mark-line ${h.level}`} />
              )}
            </g>
          );
        })}
        <Words x={left} y={top + (y1 - y0) * scale + 16} as="label-quiet">
          {`${lengthOf(x1 - x0, 1).v} x ${written(lengthOf(y1 - y0, 1))}`}
        </Words>
      </svg>
    </div>
  );
}

interface PatternProps {
  fit: Fit;
  plate: PlateView;
  side: 'old' | 'new';
}
function Pattern({ fit, plate, side }: PatternProps) {
  const own = plate[side];
  const kind = own['kind'] ?? '';
  const path = `${plate.path}.${side}`;
  const label = `${plate.name}: ${side} pattern`;
  return (
    <div className="row">
      <Choose
        label={side === 'old' ? 'bolted to' : 'bolts to it'}
        value={kind}
        options={KINDS}
        onChange={(id) =>
          fit.onPut(
            label,
            path,
            id === '' ? null : { kind: id, ...(own['hole_mm'] ? { hole_mm: own['hole_mm'] } : {}) },
          )
        }
      />
      {[
        ...(SIZES[kind] ?? []),
        ...(kind === ''
          ? []
          : ([
              ['hole_mm', 'hole'],
              ['turn_deg', 'turned'],
            ] as const)),
      ].map(([key, words]) => (
        <Field
          key={key}
          className="sized"
          saysRefused
          label={words}
          name={`${plate.name}, ${side}: ${words}`}
          value={own[key] ?? ''}
          placeholder={key === 'turn_deg' ? '0°' : key === 'holes' ? '4' : 'mm'}
          onCommit={(text) => fit.onType(`${label}: ${words}`, `${path}.${key}`, text, 'mm')}
        />
      ))}
      {kind !== '' && side === 'new' && (
        <Tick on={own['tapped'] === 'yes'} onChange={(on) => fit.onPut(`${label}: tapped`, `${path}.tapped`, on)}>
          tapped
        </Tick>
      )}
    </div>
  );
}

function Plate({ fit, plate }: { fit: Fit; plate: PlateView }) {
  const drawn = plate.holes.length > 0;
  const field = (key: string, label: string, value: string) => (
    <Field
      className="sized"
      saysRefused
      label={label}
      name={`${plate.name}: ${label}`}
      value={value}
      placeholder="mm"
      onCommit={(text) => fit.onType(`${plate.name}: ${label}`, `${plate.path}.${key}`, text, 'mm')}
    />
  );
  return (
    <article aria-label={plate.name}>
      <h3>
        {capital(plate.name)}{' '}
        <PressButton
          data-plain=""
          aria-label={`Take out ${plate.name}`}
          onPress={() => fit.onPut(`${plate.name} out`, plate.path, null)}
        >
          out
        </PressButton>
      </h3>
      {drawn && <Drawing plate={plate} />}
      {plate.sentence !== '' && (
        <p className="said" role="status">
          <Mark state={plate.level ?? 'note'} size={16} />
          <span>{inChosenUnits(plate.sentence)}</span>
        </p>
      )}
      {plate.needs.length > 0 && <p>Not drawn yet: {plate.needs.join(', ')}.</p>}
      {plate.refused !== '' && <p role="alert">{plate.refused}</p>}
      <Pattern fit={fit} plate={plate} side="old" />
      <Pattern fit={fit} plate={plate} side="new" />
      <div className="row">
        {field('shift_x_mm', 'moved right', plate.shift_x)}
        {field('shift_y_mm', 'moved up', plate.shift_y)}
        {field('bore_mm', 'bore', plate.bore)}
        {field('thickness_mm', 'thickness', plate.thickness)}
        <Choose
          label="of"
          value={plate.material}
          options={[
            { id: 'steel', label: 'steel' },
            { id: 'aluminium', label: 'aluminium' },
          ]}
          onChange={(id) => fit.onPut(`${plate.name}: material`, `${plate.path}.material`, id)}
        />
      </div>
      {drawn && (
        <p className="row">
          {(['pdf', 'dxf', 'svg'] as const).map((kind) => (
            <a key={kind} href={plateUrl(fit.job.id, fit.view.setup, plate.at, kind, 'A4')} download>
              {kind === 'pdf' ? 'PDF on A4, full size' : kind.toUpperCase()}
            </a>
          ))}
          <a href={plateUrl(fit.job.id, fit.view.setup, plate.at, 'pdf', 'Letter')} download>
            PDF on Letter
          </a>
          <span className="quiet">No strength is judged: that needs a qualified check.</span>
        </p>
      )}
    </article>
  );
}

export function Plates({ fit }: { fit: Fit }) {
  const [name, setName] = useState('');
  const { plates } = fit.view;
  return (
    <Box>
      <h2>
        Plates and brackets
        <em>at full size, to cut to; moved by as much as the pin is</em>
      </h2>
      {plates.map((plate) => (
        <Plate key={plate.at} fit={fit} plate={plate} />
      ))}
      <form
        className="row noprint"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() === '') return;
          fit.onPlate({ name: name.trim() });
          setName('');
        }}
      >
        <PlainField value={name} onChange={setName} maxLength={80}>
          <Label>one more plate</Label>
          <Input placeholder="cylinder plate" autoComplete="off" />
        </PlainField>
        <PressButton type="submit">Add it</PressButton>
      </form>
    </Box>
  );
}
