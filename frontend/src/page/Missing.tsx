/** That entries are missing, and the way to them. */
import { Link } from 'react-router';

interface MissingProps {
  job: number;
  /** What is not known for the want of them, as the beginning of a sentence. */
  what: string;
  n: number;
}
export const Missing = ({ job, what, n }: MissingProps) => (
  <p>
    {what}: {n === 1 ? 'one entry is' : `${n} entries are`} missing in <Link to={`/jobs/${job}/measure`}>Measure</Link>.
  </p>
);
