/** Helpers: what can be read off scales, tape or pad, made into the entries it stands for. */
import { useId, useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import { useHelper } from '../../api/measure';
import type { Group, HelperAnswer, Section } from '../../api/types';
import { Plain } from '../../page/EntryField';
import { toleranceStep, typedStep } from '../../chain/entrySteps';
import { PlainField } from '../../ui/PlainField';
import { preferredFor } from '../../units/preference';
import type { Measure } from './useMeasure';
import { inChosenUnits } from '../../units/sentences';

const Box = styled.div`
  border-top: var(--r-hair) solid var(--rule);
  margin-top: var(--s8);
  padding: var(--s8) 0;
  display: grid;
  gap: var(--s8);
  > p {
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
    color: var(--ink-2);
  }
  > p[data-wrong] {
    color: var(--danger);
    font-weight: var(--w-strong);
  }
  > p[data-found] {
    color: var(--ink);
  }
  h3 {
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
  }
  form {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s10) var(--s14);
    align-items: end;
  }
`;

type Helper = Section['helpers'][number];

export function Helpers({ section, measure }: { section: Section; measure: Measure }) {
  return (
    <>
      {section.helpers.map((h) => (
        <HelperView key={h.name} helper={h} section={section} measure={measure} />
      ))}
    </>
  );
}

function HelperView({ helper, section, measure }: { helper: Helper; section: Section; measure: Measure }) {
  const [open, setOpen] = useState(false);
  const [given, setGiven] = useState<Record<string, string>>({});
  const [found, setFound] = useState<HelperAnswer | null>(null);
  const help = useHelper();
  const id = useId();
  if (!open) {
    return (
      <Box>
        <span>
          <Plain onPress={() => setOpen(true)}>{helper.title}</Plain>
        </span>
      </Box>
    );
  }
  const work = () => {
    setFound(null);
    const { length, mass } = measure.preferred;
    help.mutate({ name: helper.name, given, preferred: { length, mass } }, { onSuccess: setFound });
  };
  const take = (group: Group) => {
    const edits = (found?.entries ?? []).flatMap((own) => {
      const entry = group.entries.find((e) => e.key === own.key);
      if (!entry) return [];
      const tolerance = found?.plus_minus[own.key];
      const steps = [
        typedStep(entry, own.text, preferredFor(entry.unit, measure.preferred)),
        ...(tolerance ? [toleranceStep(entry, tolerance)] : []),
      ];
      return steps.flatMap((step) => step.edits ?? []);
    });
    void measure.onStep({ label: helper.title, follow: true, edits }).then(
      () => setOpen(false),
      () => undefined,
    );
  };
  const fits = section.groups.filter((g) => found?.entries.some((own) => g.entries.some((e) => e.key === own.key)));
  return (
    <Box role="group" aria-labelledby={id}>
      <h3 id={id}>{helper.title}</h3>
      <p>{helper.how}</p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          work();
        }}
      >
        {helper.asks.map(({ field, label }) => (
          <PlainField key={field} value={given[field] ?? ''} onChange={(text) => setGiven({ ...given, [field]: text })}>
            <Label>{label}</Label>
            <Input autoComplete="off" />
          </PlainField>
        ))}
        <Plain type="submit">Work it out</Plain>
        <Plain onPress={() => setOpen(false)}>Leave</Plain>
      </form>
      {help.isError && (
        <p data-wrong role="alert">
          {help.error.message}
        </p>
      )}
      {found && (
        <>
          <p data-found role="status">
            {inChosenUnits(found.sentence)}
          </p>
          {fits.map((group) => (
            <span key={group.title}>
              <Plain onPress={() => take(group)}>
                Enter it{group.title && `, ${group.title}`}: {found.entries.map((e) => e.text).join(', ')}
              </Plain>
            </span>
          ))}
        </>
      )}
    </Box>
  );
}
