/** Everything the search's page knows and does. */
import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from 'react';
import { Refused, type Job } from '../../api/client';
import { useMatchChoices, useMatchState, useSearch } from '../../api/match';
import { useSteps } from '../../api/steps';
import type { Ask, Found, Kept, Match, MatchChoices } from '../../api/types';
import { copyEdits, freeName } from '../../ui/plans';
import { reduce, type Action } from './ask';
import { NO_FILTER, shownOf, type Filter } from './shown';

const REST = 350; // ms without a change before the search starts again

export interface Matching {
  job: Job;
  setup: string;
  choices: MatchChoices;
  ask: Ask;
  act: (action: Action) => void;
  match: Match | null;
  found: Found | null;
  refused: string | null;
  /** The job was changed since the search. */
  old: boolean;
  rows: readonly Kept[];
  filter: Filter;
  onFilter: (filter: Filter) => void;
  on: number | null;
  onRow: (row: number | null) => void;
  lit: string | null;
  onLit: (id: string | null) => void;
  next: string;
  onTake: (kept: Kept) => void;
  onAgain: () => void;
  onStop: () => void;
  steps: ReturnType<typeof useSteps>;
}

export function useMatch(job: Job, setup: string): Matching | null {
  const choices = useMatchChoices(job.id, job.revision, setup).data;
  const state = useMatchState(job.id);
  const { begin, stop } = useSearch(job.id);
  const steps = useSteps(job);
  const [ask, dispatch] = useReducer(reduce, null as unknown as Ask);
  const [refused, setRefused] = useState<string | null>(null);
  const [filter, setFilter] = useState<Filter>(NO_FILTER);
  const [on, setOn] = useState<number | null>(null);
  const [lit, setLit] = useState<string | null>(null);
  const asked = useRef<Ask | null>(null);

  // What was asked last stands there again after a reload; the first time, what most people want to look at.
  const kept = state.data;
  useEffect(() => {
    if (ask !== null || !choices || !kept) return;
    const last = kept.ask?.setup === setup && kept.found !== null ? kept.ask : null;
    if (last) asked.current = last;
    dispatch({ do: 'take', ask: last ?? choices.ask });
  }, [ask, choices, kept, setup]);

  const { mutate } = begin;
  const search = useCallback(
    (what: Ask) => {
      asked.current = what;
      setOn(null);
      mutate(what, {
        onSuccess: () => setRefused(null),
        onError: (error) => setRefused(error instanceof Refused ? error.problem.detail : error.message),
      });
    },
    [mutate],
  );
  const can = choices !== undefined && choices.reason === null;
  useEffect(() => {
    if (ask === null || ask === asked.current || !can) return;
    const timer = window.setTimeout(() => search(ask), asked.current === null ? 0 : REST);
    return () => window.clearTimeout(timer);
  }, [ask, search, can]);

  const match = kept && kept.ask?.setup === setup ? kept : null;
  const found = match?.found ?? null;
  const rows = useMemo(() => shownOf(found?.kept ?? [], filter), [found, filter]);
  const next = freeName(job.document);
  const { onStep } = steps;
  const onTake = useCallback(
    (row: Kept) => {
      const plans = (job.document['plans'] ?? []) as unknown[];
      const own = `plans.${plans.length}`;
      const edits = row.edits.map((e) => ({ ...e, path: `${own}.${e.path}` }));
      void onStep({ label: `${next} from a search`, edits: [...copyEdits(job.document, setup, next), ...edits] }).catch(
        () => undefined,
      );
    },
    [job.document, setup, next, onStep],
  );
  const { mutate: stopIt } = stop;
  if (!choices || ask === null) return null;
  return {
    job,
    setup,
    choices,
    ask,
    act: dispatch,
    match,
    found,
    refused: refused ?? match?.error ?? null,
    old: match !== null && match.revision !== job.revision && match.state !== 'running',
    rows,
    filter,
    onFilter: setFilter,
    on,
    onRow: setOn,
    lit,
    onLit: setLit,
    next,
    onTake,
    onAgain: () => search(ask),
    onStop: () => stopIt(),
    steps,
  };
}
