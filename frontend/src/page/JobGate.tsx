/** A page of one job: shown once the job is there, and in words when it is not. */
import { Button } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';

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
  query: { isError: boolean; error: Error | null; refetch: () => unknown };
  /** Brings a job round that was left so that it cannot be opened; null where that is not what is wrong. */
  onBringRound: (() => void) | null;
}
/** What stands in the place of a page whose job is not there yet, or cannot be shown. */
export function JobGate({ query, onBringRound }: GateProps) {
  if (!query.isError) {
    return (
      <Plain aria-busy="true">
        <p>Opening the job.</p>
      </Plain>
    );
  }
  return (
    <Plain>
      <h1>This job cannot be shown</h1>
      <p>{query.error?.message}</p>
      {onBringRound ? (
        <>
          <p>
            Kobrix can bring it round: the last steps that left it so are taken back, as few as will do, and what is
            half entered is cleared away. Nothing else is touched.
          </p>
          <Button onPress={onBringRound}>Bring it round</Button>
        </>
      ) : (
        <Button onPress={() => void query.refetch()}>Try again</Button>
      )}
      <p>
        <Link to="/">All jobs</Link>
      </p>
    </Plain>
  );
}
