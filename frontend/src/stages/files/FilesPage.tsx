/** Files: everything that goes out of a job in open formats, a copy to lend, and the remarks that come back. */
import { useCallback, useState } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useSteps } from '../../api/changes';
import { usePage } from '../../api/pages';
import { useKeeper, useRecorder } from '../../api/records';
import { lentCopy } from '../../api/remarks';
import { Columns } from '../../page/Columns';
import { Missing } from '../../page/Missing';
import type { StageProps } from '../../page/StagePage';
import { WorkPage } from '../../page/WorkPage';
import { PressButton } from '../../ui/PressButton';
import type { Kind } from '../../chain/Road';
import { asPng, keep } from './drawing';
import { Drawing } from './Drawing';
import { drawnLine } from './line';
import { Remarks } from './Remarks';

const Body = styled(Columns)`
  dl {
    margin: 0;
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  dt {
    margin-top: var(--s6);
  }
  dt a {
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
    display: inline-flex;
    align-items: center;
    min-height: var(--s24);
  }
  dd {
    margin: 0;
    color: var(--ink-2);
  }
  .press {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s14);
  }
  @media (pointer: coarse) {
    dt a {
      min-height: var(--target);
    }
  }
`;
type Wanted = 'svg' | 'png' | 'lend';

/** What goes out: its address below the job, what it is called, what is in it. */
const OUT = (setup: string) => {
  const of = `?setup=${encodeURIComponent(setup)}`;
  return [
    ['file', 'The job as a file', 'everything that was entered and everything that happened, in the open format; Kobrix reads it again'],
    ['tables.xlsx', 'Its tables as a workbook', 'entries, results, findings, parts, joints, lines, work, stops'],
    [`dossier.pdf${of}`, 'One page for an inspector', 'what was changed, by whom, how it was proven'],
    [`record.pdf${of}`, 'The whole record', 'the same page, and all that stands behind it: entries, workings, findings, parts, lines, work, stops'],
    [`yard.html${of}`, 'The yard card', 'what a part must be, on a phone without a server'],
    [`parts.csv${of}`, 'The parts list', 'as CSV'],
    ['stops.csv', 'The stops', 'as CSV'],
  ] as const; // prettier-ignore
};

export function FilesPage({ job, stages }: StageProps<null>) {
  const [params, setParams] = useSearchParams();
  const asked = params.get('plan');
  const setup = job.setups.find((s) => s === asked) ?? job.setups[1] ?? job.setups[0] ?? '';
  const steps = useSteps(job, null);
  const record = useRecorder(job.id);
  const onKeep = useKeeper(job.id);
  const view = usePage(job.id, 'size', null).data?.view;
  const size = view?.page === 'size' ? view : null;
  const line = size && drawnLine(size, setup);
  const needs = size?.setups.find((s) => s.key === setup)?.needs.decel?.length ?? 0;
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const [refused, setRefused] = useState('');
  const name = `${job.name} ${setup}`.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase();
  const lend = useCallback(
    async (drawing: string | null) => keep(await lentCopy(job.id, setup, drawing), `${name}-to-lend.html`),
    [job.id, setup, name],
  );
  const onDrawn = useCallback(
    async (drawn: Parameters<typeof asPng>[0]) => {
      try {
        if (wanted === 'svg') keep(new Blob([drawn.text], { type: 'image/svg+xml' }), `${name}.svg`);
        else if (wanted === 'png') keep(await asPng(drawn), `${name}.png`);
        else await lend(drawn.text);
      } catch (error) {
        setRefused(error instanceof Error ? error.message : 'It could not be made.');
      } finally {
        setWanted(null);
      }
    },
    [wanted, name, lend],
  );
  const save = (what: Wanted) => {
    setRefused('');
    if (line) setWanted(what);
    else void lend(null).catch((error: unknown) => setRefused(error instanceof Error ? error.message : ''));
  };
  return (
    <WorkPage
      job={job}
      stages={stages}
      stage="files"
      title="Files"
      setup={setup}
      said="Everything leaves in open formats. Nothing is sent anywhere."
      onSetup={(plan) => setParams({ plan }, { replace: true })}
      steps={steps}
      cautions="A file holds what you entered and who signed. Figures are estimates, to be proven by test."
    >
      {(wide) => (
        <>
          <Body data-wide={wide || undefined}>
            <div>
              <section aria-label="What goes out">
                <h2>What goes out</h2>
                <dl>
                  {OUT(setup).map(([path, words, what]) => (
                    <div key={path}>
                      <dt>
                        <a href={`/api/jobs/${job.id}/${path}`} download>
                          {words}
                        </a>
                      </dt>
                      <dd>{what}</dd>
                    </div>
                  ))}
                </dl>
              </section>
              <section aria-label="The force line as a picture">
                <h2>
                  The force line as a picture
                  <em>at the stop that is wanted, as found behind it</em>
                </h2>
                {size === null ? null : line ? (
                  <div className="press">
                    <PressButton isDisabled={wanted !== null} onPress={() => save('svg')}>
                      Save as SVG
                    </PressButton>
                    <PressButton isDisabled={wanted !== null} onPress={() => save('png')}>
                      Save as PNG
                    </PressButton>
                  </div>
                ) : (
                  <Missing job={job.id} what="There is no line to draw yet" n={needs} />
                )}
              </section>
            </div>
            <div>
              <section aria-label="Lend it">
                <h2>
                  Lend it
                  <em>for a friend who knows brakes</em>
                </h2>
                <p>
                  One file with the force line, the figures and how they come about, what is found and what was entered.
                  It opens on any phone or computer, without Kobrix and without a network; nothing in it changes the
                  job. Who reads it can put a remark to any line and send the remarks back.
                </p>
                <div className="press">
                  <PressButton data-first="" isDisabled={wanted !== null || size === null} onPress={() => save('lend')}>
                    Save a copy to lend
                  </PressButton>
                </div>
              </section>
              <section aria-label="Remarks that came back">
                <h2>Remarks that came back</h2>
                <Remarks job={job.id} recorded={job.recorded} setups={job.setups} onKeep={onKeep} record={record} />
              </section>
            </div>
          </Body>
          {refused !== '' && <p role="alert">{refused}</p>}
          {wanted !== null && line && (
            <Drawing
              line={line}
              kind={((job.document['vehicle'] as { kind?: Kind } | undefined)?.kind ?? 'car') as Kind}
              onDrawn={(drawn) => void onDrawn(drawn)}
            />
          )}
        </>
      )}
    </WorkPage>
  );
}
