/** Everything the search's page knows and does. */
import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from 'react';
import { useSteps, type Steps } from '../../api/changes';
import { Refused } from '../../api/client';
import { useMatchChoices, useSearch, useSearchState } from '../../api/match';
import type { Found, Job, Kept, MatchChoices, Search, SearchState } from '../../api/types';
import { filtered, NO_FILTER, type Filter } from './filter';
import { searching, type Action } from './search';

const REST_MS = 350; // ms without a change before the search starts again

export interface Matching {
  job: Job;
  setup: string;
  choices: MatchChoices;
  search: Search;
  act: (action: Action) => void;
  state: SearchState | null;
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
  steps: Steps;
}

export function useMatch(job: Job, setup: string, asks: string | null): Matching | null {
  const choices = useMatchChoices(job.id, job.revision, setup, asks).data;
  const control = asks ?? choices?.ask.control ?? null;
  const last = useSearchState(job.id).data;
  const searches = useSearch(job.id);
  const steps = useSteps(job, null);
  const [search, dispatch] = useReducer(searching, null as unknown as Search);
  const [refused, setRefused] = useState<string | null>(null);
  const [filter, setFilter] = useState<Filter>(NO_FILTER);
  const [on, setOn] = useState<number | null>(null);
  const [lit, setLit] = useState<string | null>(null);
  const asked = useRef<Search | null>(null);

  const own = useCallback((ask: Search) => ask.setup === setup && (ask.control ?? null) === control, [setup, control]);
  // What was asked last stands there again after a reload; the first time, what most people want to look at.
  useEffect(() => {
    if (search !== null || !choices || !last) return;
    const again = last.ask && own(last.ask) && last.found !== null ? last.ask : null;
    if (again) asked.current = again;
    dispatch({ do: 'take', search: again ?? choices.ask });
  }, [search, choices, last, own]);

  const { mutate, isPending } = searches.begin;
  const begin = useCallback(
    (what: Search) => {
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
    if (search === null || search === asked.current || !can || isPending) return; // of many changes the last is asked
    const timer = window.setTimeout(() => begin(search), asked.current === null ? 0 : REST_MS);
    return () => window.clearTimeout(timer);
  }, [search, begin, can, isPending]);

  const state = last?.ask && own(last.ask) ? last : null;
  const found = state?.found ?? null;
  const rows = useMemo(() => filtered(found?.kept ?? [], filter), [found, filter]);
  const next = job.next_plan;
  const { onStep } = steps;
  const onTake = useCallback(
    (row: Kept) =>
      void onStep({
        label: `${next} from a search`,
        plan: { do: 'copy', name: setup, to: next, at: 0 },
        under: next,
        edits: row.edits,
      }).catch(() => undefined),
    [setup, next, onStep],
  );
  const { mutate: stop } = searches.stop;
  if (!choices || search === null) return null;
  return {
    job,
    setup,
    choices,
    search,
    act: dispatch,
    state,
    found,
    refused: refused ?? state?.error ?? null,
    old: state !== null && state.revision !== job.revision && state.state !== 'running',
    rows,
    filter,
    onFilter: setFilter,
    on,
    onRow: setOn,
    lit,
    onLit: setLit,
    next,
    onTake,
    onAgain: () => begin(search),
    onStop: () => stop(),
    steps,
  };
}
