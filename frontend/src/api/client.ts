/** The one door to the server: typed from its OpenAPI document, problems as sentences. */
import createClient from 'openapi-fetch';
import type { components, paths } from './generated';

export type Job = components['schemas']['JobOut'];
export type Problem = components['schemas']['Problem'];
export type EditIn = components['schemas']['EditIn'];

export const client = createClient<paths>({ baseUrl: '' });

/** What the server refused, with its sentences. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
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
  throw new Refused({ ...NOT_THERE, ...problem, detail: problem?.detail ?? NOT_THERE.detail });
}
