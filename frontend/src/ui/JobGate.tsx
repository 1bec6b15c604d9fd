/** A page of one job: shown once the job is there, and in words when it is not. */
import type { ReactNode } from 'react';
import { Button } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import type { Job } from '../api/types';

export const Plain = styled.main`
  max-width: 640px;
  margin: 0 auto;
  padding: var(--s40) var(--s16);
  font: var(--w-firm) var(--t-head) / var(--read) var(--text);
  h1 {
    font: var(--w-most) var(--t-result) / var(--tight) var(--letter);
    margin-bottom: var(--s12);
  }
  > p {
    margin: var(--s8) 0;
  }
  a {
    color: inherit;
  }
  button {
    border: var(--r-outline) solid var(--ink);
    background: none;
    min-height: var(--target);
    padding: 0 var(--s16);
    margin-top: var(--s12);
  }
`;

interface GateProps {
  query: { data: Job | undefined; isError: boolean; error: Error | null; refetch: () => unknown };
  children: (job: Job) => ReactNode;
}
export function JobGate({ query, children }: GateProps) {
  if (query.data) return children(query.data);
  if (query.isError) {
    return (
      <Plain>
        <h1>This job cannot be shown</h1>
        <p>{query.error?.message}</p>
        <Button onPress={() => void query.refetch()}>Try again</Button>
        <p>
          <Link to="/">All jobs</Link>
        </p>
      </Plain>
    );
  }
  return (
    <Plain aria-busy="true">
      <p>Opening the job.</p>
    </Plain>
  );
}
