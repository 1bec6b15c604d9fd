/** Remarks of who read a lent copy: kept as records, settled by being struck out. */
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { answered, client, lasting, ofJob } from './client';
import { keys } from './keys';

export interface Remark {
  key: string;
  setup: string;
  place: string;
  words: string;
  by: string;
  made_at: string;
  settled: string | null;
}
const text = (value: unknown) => (typeof value === 'string' ? value : '');

export const useRemarks = (job: number, recorded: number) =>
  useQuery({
    queryKey: keys.remarks(job, recorded),
    ...lasting(60_000),
    placeholderData: keepPreviousData,
    queryFn: async (): Promise<Remark[]> => {
      const records = await answered(() => client.GET('/api/jobs/{job_id}/records', ofJob(job)));
      return records
        .filter((r) => r.kind === 'remark')
        .map(({ key, body, made_at, struck }) => ({
          key,
          made_at,
          settled: struck,
          setup: text(body['setup']),
          place: text(body['place']),
          words: text(body['words']),
          by: text(body['by']),
        }));
    },
  });

/** A setup of a job as one file to read, its drawing put where the file has room for it. */
export async function lentCopy(job: number, setup: string, drawing: string | null): Promise<Blob> {
  const told = await answered<string>(
    () =>
      client.GET('/api/jobs/{job_id}/lend.html', {
        params: { path: { job_id: job }, query: { setup } },
        parseAs: 'text',
      }) as never,
  );
  const whole = told.replace(
    '<figure id="force-line"></figure>',
    () => `<figure id="force-line">${drawing ?? ''}</figure>`,
  );
  return new Blob([whole], { type: 'text/html' });
}
