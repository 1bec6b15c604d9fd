/** What a newcomer is told once, on the page where things begin; closed, it stays closed on this device. */
import { useState } from 'react';
import { Button } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';

const KEY = 'kobrix-begun';

const Hint = styled.aside`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 var(--s14);
  border-bottom: var(--r-hair) solid var(--ink);
  font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
  p {
    flex: 1 1 300px;
  }
  a,
  button {
    display: inline-flex;
    align-items: center;
    min-height: var(--s28);
    color: inherit;
    background: none;
    border: 0;
    padding: 0;
    text-decoration: underline;
    text-underline-offset: var(--s3);
    font: inherit;
    white-space: nowrap;
  }
  button {
    font-weight: var(--w-strong);
  }
  &[data-beside] {
    border: 0;
    justify-content: flex-end;
    flex-wrap: nowrap;
    p {
      flex: 0 1 auto;
    }
    a,
    button {
      min-height: var(--s20);
    }
  }
  @media (pointer: coarse) {
    a,
    button {
      min-height: var(--target);
      min-width: var(--target);
    }
  }
  @media print {
    display: none;
  }
`;

/** `beside`: in the rest of a row, said in fewer words. */
export function FirstRun({ job, beside = false }: { job: number; beside?: boolean }) {
  const [shown, setShown] = useState(() => window.localStorage.getItem(KEY) === null);
  if (!shown) return null;
  const close = () => {
    window.localStorage.setItem(KEY, 'yes');
    setShown(false);
    document.querySelector<HTMLElement>('header a[href]')?.focus(); // not lost with the button
  };
  return (
    <Hint aria-label="First time here" data-beside={beside || undefined}>
      <p>
        First time? Type the push or drag it, press a part to change it, open a finding for its mend.
        {!beside && ' Your own vehicle begins under Jobs, tape in hand.'}
      </p>
      <Link to={`/jobs/${job}/questions`}>Questions people ask</Link>
      <Button onPress={close}>Got it</Button>
    </Hint>
  );
}
