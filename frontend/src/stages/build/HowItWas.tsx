/** How it was at a step: photographs and sentences, the numbered bag its bolts are in, whether the old part goes back. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import { smallPhotoUrl, useAddPhoto } from '../../api/pictures';
import type { SeenView, WorkStep } from '../../api/types';
import { Choose } from '../../ui/Choose';
import { Mark } from '../../ui/Mark';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import { capital, moment } from '../../units/format';
import type { Build } from './useBuild';

const Pictures = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: var(--s8);
  figure {
    margin: 0;
    width: 150px;
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
  }
  img {
    width: 100%;
    border: var(--r-outline) solid var(--ink);
    display: block;
  }
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: var(--s6) var(--s14);
  align-items: end;
  > :first-child {
    flex: 1 0 100%;
  }
  > :first-child input {
    width: 100%;
  }
`;
const File = styled.label`
  position: relative;
  input {
    position: absolute;
    inset: 0;
    opacity: 0;
    cursor: pointer;
    width: 100%;
  }
`;
const OLD = [
  { id: '', label: 'not said' },
  { id: 'yes', label: 'goes back' },
  { id: 'no', label: 'does not go back' },
];
const bagged = (seen: SeenView) =>
  [
    seen.bag === null ? '' : `bolt bag ${seen.bag}`,
    seen.goes_back === null ? '' : seen.goes_back ? 'the old part goes back' : 'the old part does not go back',
  ].filter(Boolean).join(', '); // prettier-ignore

const Picture = ({ src, alt }: { src: string | undefined; alt: string }) =>
  src === undefined ? <p>a photograph, not sent yet</p> : <img src={src} alt={alt} loading="lazy" />;

export function HowItWas({ step, build }: { step: WorkStep; build: Build }) {
  const [words, setWords] = useState('');
  const [bag, setBag] = useState('');
  const [old, setOld] = useState('');
  const [refused, setRefused] = useState('');
  const { mutateAsync, isPending } = useAddPhoto(build.job.id);
  const last = Math.max(0, ...build.every.flatMap((s) => s.seen.map((w) => w.bag ?? 0)));
  async function keep(file: globalThis.File | null) {
    setRefused('');
    const number = bag.trim() === '' ? null : Number(bag);
    if (number !== null && !(Number.isInteger(number) && number >= 1 && number <= 999)) {
      setRefused(`Bolt bag: a whole number from 1 to 999 is wanted, “${bag.trim()}” was given.`);
      return;
    }
    try {
      const photo = file === null ? null : await mutateAsync(file);
      await build.record(`how it was: ${step.short}`, 'seen', {
        setup: build.view.setup,
        step: step.key,
        words: words.trim() === '' ? `${step.short}, ${step.where}` : words.trim(),
        ...(photo === null ? {} : { sha256: photo }),
        ...(number === null ? {} : { bag: number }),
        ...(old === '' ? {} : { goes_back: old === 'yes' }),
      });
      setWords('');
      setBag('');
      setOld('');
    } catch (error) {
      setRefused(error instanceof Error ? error.message : 'It was refused.');
    }
  }
  return (
    <>
      {step.seen.length > 0 && (
        <Pictures>
          {step.seen.map((s) => (
            <figure key={s.key}>
              {s.sha256 !== null && <Picture src={smallPhotoUrl(build.job.id, s.sha256)} alt={s.words} />}
              <figcaption>
                {s.words}
                {bagged(s) !== '' && `; ${bagged(s)}`}, {moment(s.at)}
              </figcaption>
            </figure>
          ))}
        </Pictures>
      )}
      <Row className="noprint">
        <PlainField value={words} onChange={setWords} maxLength={200}>
          <Label>how it was, what was found</Label>
          <Input placeholder={step.record === '' ? 'a sentence' : step.record} autoComplete="off" />
        </PlainField>
        <PlainField value={bag} onChange={setBag} maxLength={6} className="bag">
          <Label>bolt bag</Label>
          <Input placeholder={`next is ${last + 1}`} inputMode="numeric" autoComplete="off" />
        </PlainField>
        <Choose label="the old part" value={old} options={OLD} onChange={setOld} />
        <PressButton
          isDisabled={words.trim() === '' && bag.trim() === '' && old === ''}
          onPress={() => void keep(null)}
        >
          Note it
        </PressButton>
        <File>
          <PressButton isDisabled={isPending} excludeFromTabOrder>
            Photograph
          </PressButton>
          <input
            type="file"
            accept="image/*"
            capture="environment"
            aria-label={`Photograph for ${step.short}`}
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) void keep(file);
              event.target.value = '';
            }}
          />
        </File>
      </Row>
      {refused !== '' && <p role="alert">{refused}</p>}
    </>
  );
}

/** Every numbered bag and every old part of the job, each a way to its step; nothing where none was noted. */
export function Bags({ build }: { build: Build }) {
  const noted = build.every
    .flatMap((step) => step.seen.map((seen) => ({ step, seen })))
    .filter(({ seen }) => seen.bag !== null || seen.goes_back !== null)
    .sort((a, b) => (a.seen.bag ?? Infinity) - (b.seen.bag ?? Infinity) || a.seen.at.localeCompare(b.seen.at));
  if (noted.length === 0) return null;
  return (
    <section aria-label="Bolt bags and old parts">
      <h2>Bolt bags and old parts</h2>
      <ul className="named">
        {noted.map(({ step, seen }) => (
          <li key={seen.key}>
            <Mark state="ready" size={14} /> {capital(bagged(seen))}: {seen.words}{' '}
            <PressButton data-told="" data-plain="" className="noprint" onPress={() => build.onLook(step.key)}>
              {step.short}, {step.where}
            </PressButton>
          </li>
        ))}
      </ul>
    </section>
  );
}
