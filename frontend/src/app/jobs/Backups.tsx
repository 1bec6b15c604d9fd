/** Copies of everything: one to take away, and the daily ones, of which one is put back by two presses. */
import { useState } from 'react';
import { Button } from 'react-aria-components';
import { useBackups, useRestore } from '../../api/backups';
import { counted } from '../../units/format';
import { Box } from './Drawer';

const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`;

export function Backups() {
  const [open, setOpen] = useState(false);
  const [asked, setAsked] = useState<string | null>(null);
  const backups = useBackups(open);
  const restore = useRestore();
  const told = backups.data;
  return (
    <Box aria-label="Backups" style={{ marginTop: 'var(--s16)' }}>
      <h2>
        Backups<em>a copy of everything each day it is started</em>
      </h2>
      <p>
        <a href="/api/backups/now.sqlite3" download>
          Save everything as one file
        </a>
      </p>
      <Button aria-expanded={open} onPress={() => setOpen(!open)}>
        {open ? 'Hide the daily copies' : 'Show the daily copies'}
      </Button>
      {open && backups.isError && <p role="alert">{backups.error.message}</p>}
      {open && told && (
        <>
          <p>
            Kept for {told.days} days. A job that was taken off the wall stays for {told.away_days} days, and each job
            can go back {told.steps} steps; what is older stands in these copies only.
          </p>
          {told.copies.length === 0 && <p>None yet: the first is made when Kobrix is started again.</p>}
          <ul>
            {told.copies.map((copy) => (
              <li key={copy.name}>
                <b>{copy.day}</b>
                <p>
                  {counted(copy.jobs, 'job', 'jobs')}, {megabytes(copy.size)}
                </p>
                {asked === copy.name ? (
                  <Button
                    isDisabled={restore.isPending}
                    onPress={() => restore.mutate(copy.name, { onSuccess: () => window.location.reload() })}
                  >
                    Yes, put this day back; today’s is kept beside it
                  </Button>
                ) : (
                  <Button aria-label={`Put it back: the copy of ${copy.day}`} onPress={() => setAsked(copy.name)}>
                    Put it back
                  </Button>
                )}
              </li>
            ))}
          </ul>
          {restore.isError && <p role="alert">{restore.error.message}</p>}
        </>
      )}
    </Box>
  );
}
