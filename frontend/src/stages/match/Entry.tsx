/** A field of the search: what is typed is taken on Enter or when the field is left. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import { PlainField } from '../../ui/PlainField';

interface EntryProps {
  label: string;
  value: string;
  hint?: string;
  onTake: (text: string) => void;
}
export function Entry({ label, value, hint = '', onTake }: EntryProps) {
  const [draft, setDraft] = useState<string | null>(null);
  const take = () => {
    if (draft !== null && draft.trim() !== value) onTake(draft.trim());
    setDraft(null);
  };
  return (
    <PlainField value={draft ?? value} onChange={setDraft} onBlur={take}>
      <Label>{label}</Label>
      <Input
        placeholder={hint}
        onKeyDown={(event) => {
          if (event.key === 'Enter') take();
          if (event.key === 'Escape' && draft !== null) {
            event.stopPropagation();
            setDraft(null);
          }
        }}
      />
    </PlainField>
  );
}
