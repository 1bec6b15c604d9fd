/** Questions people ask, each answered with this vehicle's figures; the words used here; the cautions. */
import { Link, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useSteps } from '../../api/changes';
import { useOftenAsked } from '../../api/questions';
import type { OftenAsked } from '../../api/types';
import { Missing } from '../../page/Missing';
import type { StageProps } from '../../page/StagePage';
import { WorkPage } from '../../page/WorkPage';
import { DataTable } from '../../ui/DataTable';
import { Mark } from '../../ui/Mark';
import { force, written } from '../../units/display';
import { capital, decel, percent } from '../../units/format';
import { inChosenUnits } from '../../units/sentences';
import { WORDS } from './words';

const Body = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  &[data-wide] {
    grid-template-columns: minmax(0, 1fr) 396px;
  }
  &[data-wide] > div + section {
    border-left: var(--r-hair) solid var(--rule);
    padding-left: var(--s16);
    margin-left: var(--s16);
  }
  &:not([data-wide]) > div + section,
  > div > section + section {
    border-top: var(--r-hair) solid var(--ink);
  }
  .said {
    display: flex;
    gap: var(--s6);
    font: var(--w-strong) var(--t-head) / var(--snug) var(--text);
  }
  .said svg {
    flex: none;
  }
  dl {
    margin: 0;
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  dt {
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
    margin-top: var(--s8);
  }
  dd {
    margin: 0;
  }
  .settle {
    display: inline-flex;
    align-items: center;
    min-height: var(--s24);
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  @media (pointer: coarse) {
    .settle {
      min-height: var(--target);
    }
  }
  a {
    color: inherit;
    text-underline-offset: var(--s3);
  }
`;
type One = OftenAsked['answers'][number];
const Answer = ({ one, job }: { one: One; job: number }) => (
  <section aria-label={one.question}>
    <h2>{one.question}</h2>
    <p className="said">
      {one.level !== null && <Mark state={one.level} size={18} />}
      <span>{inChosenUnits(one.answer)}</span>
    </p>
    <p>{inChosenUnits(one.why)}</p>
    <Link className="settle noprint" to={`/jobs/${job}/${one.stage}`}>
      Settle it in {capital(one.stage)}
    </Link>
    {one.rows.length > 1 && (
      <DataTable
        caption={one.question}
        head={['size', 'push', 'pedal room used']}
        rows={one.rows.map((r) => [
          inChosenUnits(r.now ? `${r.name}, as it is` : r.name),
          r.push_n === null ? 'the stop is not reached' : written(force(r.push_n)),
          r.travel_share === null ? 'not known' : percent(r.travel_share),
        ])}
      />
    )}
  </section>
);

export function QuestionsPage({ job, stages }: StageProps<null>) {
  const [params, setParams] = useSearchParams();
  const steps = useSteps(job, null);
  const asked = useOftenAsked(job.id, job.revision, params.get('plan'));
  const view = asked.data;
  return (
    <WorkPage
      job={job}
      stages={stages}
      stage="questions"
      title="Questions"
      setup={view?.setup ?? ''}
      heading="Questions people ask"
      said={view?.decel_g ? `Answered for this vehicle, at a stop of ${decel(view.decel_g)} g.` : 'Answered for this vehicle.'}
      onSetup={(plan) => setParams({ plan }, { replace: true })}
      steps={steps}
      cautions="The figures are estimates, to be proven by test. Makers’ instructions, road law, inspection and licensed trades come first; aircraft always by certified persons. One wrong joint loses all braking."
    >
      {(wide) => (
        <Body data-wide={wide || undefined}>
            <div>
              {asked.error && <p role="alert">{asked.error.message}</p>}
              {view && view.needs > 0 && <Missing job={job.id} what="No question can be answered yet" n={view.needs} />}
              {view?.answers.map((one) => <Answer key={one.id} one={one} job={job.id} />)}
            </div>
            <section aria-label="Words used here">
              <h2>Words used here</h2>
              <dl>
                {WORDS.map(([word, meaning]) => (
                  <div key={word}>
                    <dt>{word}</dt>
                    <dd>{meaning}</dd>
                  </div>
                ))}
              </dl>
            </section>
          </Body>
      )}
    </WorkPage>
  ); // prettier-ignore
}
