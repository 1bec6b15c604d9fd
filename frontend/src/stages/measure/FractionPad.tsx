/** A pad for the thumb: figures, fractions of an inch and units, typed into the field that has the focus. */
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { UNITS, quantityOf } from '../../units/preference';
import type { Measure } from './useMeasure';

const Pad = styled.div`
  flex: none;
  margin: 0 calc(0px - var(--s16));
  padding: var(--s6) var(--s8) max(var(--s8), env(safe-area-inset-bottom));
  border-top: var(--r-heavy) solid var(--ink);
  background: var(--paper);
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: var(--s4);
  button {
    min-height: var(--target);
    border: var(--r-outline) solid var(--ink);
    background: none;
    padding: 0;
    font: var(--w-strong) var(--t-title) / var(--one) var(--letter);
  }
  button[data-part] {
    font-size: var(--t-head);
    background: var(--sunk);
  }
  button[data-go] {
    background: var(--ink);
    color: var(--paper);
    font-size: var(--t-head);
  }
`;

/** React keeps a field's text by its own setter: the pad must go through the element's. */
function type(input: HTMLInputElement, next: string): void {
  const setter = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set;
  setter?.call(input, next);
  input.dispatchEvent(new Event('input', { bubbles: true }));
  input.setSelectionRange(next.length, next.length);
}

const LENGTH = ['7', '8', '9', '1/2', '1/4', '3/4', '4', '5', '6', '1/8', '3/8', '5/8', '1', '2', '3', '7/8', '/16'];
const OTHER = ['7', '8', '9', '/', '%', ',', '4', '5', '6', 'x', '-', '+', '1', '2', '3', ' ', '±'];

export function FractionPad({
  measure,
  pad,
  onPad,
}: {
  measure: Measure;
  pad: boolean;
  onPad: (pad: boolean) => void;
}) {
  const [input, setInput] = useState<HTMLInputElement | null>(null);
  useEffect(() => {
    const look = () => {
      const now = document.activeElement;
      setInput(now instanceof HTMLInputElement && now.dataset['path'] !== undefined ? now : null);
    };
    document.addEventListener('focusin', look);
    document.addEventListener('focusout', look);
    return () => {
      document.removeEventListener('focusin', look);
      document.removeEventListener('focusout', look);
    };
  }, []);
  const entry = measure.here;
  if (!input || !entry || entry.kind === 'text') return null;
  const quantity = quantityOf(entry.unit);
  const units = quantity ? UNITS[quantity] : [];
  const put = (text: string) => {
    const whole = input.selectionStart === 0 && input.selectionEnd === input.value.length && input.value.length > 0;
    const before = whole ? '' : input.value;
    const spaced = /^\d\/\d$/.test(text) && /\d$/.test(before) ? ` ${text}` : text;
    type(input, before + spaced);
  };
  const unit = (symbol: string) => type(input, `${input.value.replace(/\s*[a-zA-Z"]+$/, '')} ${symbol}`);
  const key = (text: string, onPress: () => void, more: Record<string, string> = {}) => (
    <button
      key={text}
      type="button"
      tabIndex={-1}
      onPointerDown={(e) => e.preventDefault()}
      onClick={onPress}
      {...more}
    >
      {text}
    </button>
  );
  if (!pad) {
    return (
      <Pad role="region" aria-label="Figures and fractions">
        {key('123', () => onPad(true), { 'data-part': '', 'aria-label': 'Figures and fractions' })}
      </Pad>
    );
  }
  const figures = entry.unit === 'mm' ? LENGTH : OTHER;
  const rub = () => type(input, input.value.slice(0, -1));
  const go = () => input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
  return (
    <Pad role="region" aria-label="Figures and fractions">
      {figures.map((f) => key(f, () => put(f), /^\d$/.test(f) ? {} : { 'data-part': '' }))}
      {key('⌫', rub, { 'aria-label': 'Rub out', 'data-part': '' })}
      {key('.', () => put('.'))}
      {key('0', () => put('0'))}
      {[0, 1].map((i) => {
        const symbol = units[i];
        return symbol ? key(symbol, () => unit(symbol), { 'data-part': '' }) : <span key={i} />;
      })}
      {key('abc', () => onPad(false), { 'data-part': '', 'aria-label': 'The device’s own keyboard' })}
      {key('next', go, { 'data-go': '', 'aria-label': 'Store and go to the next field' })}
    </Pad>
  );
}
