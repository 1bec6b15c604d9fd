/** The one door to the server: typed from its OpenAPI document, problems as sentences. */
import createClient from 'openapi-fetch';
import type { components, paths } from './generated';

export type Problem = components['schemas']['Problem'];

/** The database has a passphrase that this browser has not said. */
const LOCKED = 401;

/** By which the server says that a job can be brought round. */
export const DAMAGED = 'urn:kobrix:damaged-job';

export const client = createClient<paths>({ baseUrl: '' });

/** What the server refused, with its sentences. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
  /** It is kept, and will be stored later. */
  get waits(): boolean {
    return this.problem === WAITS;
  }
}

const NOT_THERE: Problem = {
  type: 'about:blank',
  title: 'No answer',
  status: 0,
  detail:
    'Kobrix on this machine does not answer. What you see is the last good result; start it again with ./run demo.',
  problems: [],
  both: [],
};

/** What cannot be sent as it is: no answer would be another one. */
export const REFUSED_HERE: Problem = { ...NOT_THERE, title: 'Not stored', status: 422 };

/** A change that waits until somebody answers. */
export const WAITS: Problem = {
  ...NOT_THERE,
  title: 'Not stored yet',
  detail: 'Not stored yet: Kobrix does not answer. It is kept and sent as soon as it does.',
};

/** The data of an answer, or Refused. */
export async function answered<T>(call: () => Promise<{ data?: T; error?: unknown }>): Promise<T> {
  let answer: { data?: T; error?: unknown };
  try {
    answer = await call();
  } catch {
    throw new Refused(NOT_THERE);
  }
  if (answer.data !== undefined) return answer.data;
  const problem = answer.error as Partial<Problem> | undefined;
  if (problem?.status === LOCKED) window.location.assign('/unlock');
  throw new Refused({ ...NOT_THERE, ...problem, detail: problem?.detail ?? NOT_THERE.detail });
}

/** Nobody answered, or nothing can be stored now: to be tried again later. */
export const isAway = (error: unknown): boolean =>
  error instanceof Refused && (error.problem.status === 0 || error.problem.status === 503);

/** A file that ships with the page: a face of type, a picture. */
export async function shipped(url: string): Promise<Blob> {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(`${url} is not there.`);
  return answer.blob();
}

/** A key that nothing else has; made without the secure context that a plain local address has not. */
export function freshKey(): string {
  const bytes = window.crypto.getRandomValues(new Uint8Array(16));
  return [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('');
}

/** The path of a job, as a request wants it. */
export const ofJob = (id: number) => ({ params: { path: { job_id: id } } });
/** An answer that holds for one revision and is thrown away a while after nothing shows it. */
export const lasting = (ms: number) => ({ retry: false, staleTime: Infinity, gcTime: ms }) as const;
