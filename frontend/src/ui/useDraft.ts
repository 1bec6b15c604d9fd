/** What is being typed into a field: kept until it is stored or given up, so that nothing that arrives meanwhile loses it. */
import { useRef, useState } from 'react';

interface Draft {
  text: string;
  /** What was stored when the typing began; null when that was being stored by this field itself. */
  from: string | null;
  refused: string | null;
  /** Refused because another tab or device stored something here meanwhile. */
  elsewhere?: boolean;
  /** It could not be stored yet: it is kept elsewhere and stored later, and then this is done. */
  waits?: boolean;
}

export function useDraft(value: string, onCommit: (text: string) => Promise<unknown>) {
  const [draft, setDraft] = useState<Draft | null>(null);
  const sent = useRef<string | null>(null);
  // What was stored, until the field is drawn again without it: focus that moves on at once must not store it twice.
  const stored = useRef<Draft | null>(null);
  // Stored meanwhile: from now on what is stored is shown, after an undo too.
  if (draft?.waits && draft.from !== value) setDraft(null);

  /** True when what was typed is stored, or there was nothing to store. */
  async function commit(): Promise<boolean> {
    if (draft === null || draft === stored.current) return true;
    if (draft.text === sent.current) return false;
    const { text, from } = draft;
    if (text.trim() === value.trim()) {
      setDraft(null);
      return true;
    }
    if (from !== null && from !== value) {
      // Another tab or device stored something here meanwhile: it is shown first, and taken only when said again.
      const now = value === '' ? 'nothing' : value;
      const refused = `Changed elsewhere meanwhile: stored is ${now}, you entered ${text}. Enter again to use yours, Esc to keep the stored one.`;
      setDraft({ text, from: value, refused, elsewhere: true });
      return false;
    }
    sent.current = text;
    const still = (then: Draft | null) => (now: Draft | null) => (now?.text === text ? then : now);
    try {
      await onCommit(text);
      stored.current = draft;
      // What was typed on while this was stored began from this, not from what stood there before.
      setDraft((now) => (now === null || now.text === text ? null : { ...now, from: null }));
      return true;
    } catch (error) {
      const refused = error instanceof Error ? error.message : 'It was refused.';
      setDraft(still({ text, from, refused, waits: (error as { waits?: boolean }).waits ?? false }));
      return false;
    } finally {
      if (sent.current === text) sent.current = null;
    }
  }

  return {
    text: draft?.text ?? value,
    typing: draft !== null,
    refused: draft?.refused ?? null,
    changed: draft?.elsewhere ?? false,
    type: (text: string) => setDraft((now) => ({ text, from: now?.from ?? value, refused: null })),
    giveUp: () => setDraft(null),
    commit,
  };
}
