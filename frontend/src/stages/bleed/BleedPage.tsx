/** Bleed: get the air out, prove that nothing leaks, and prove the plan on stands before the first metre. */
import { Columns } from '../../page/Columns';
import type { StageProps } from '../../page/StagePage';
import { WorkPage } from '../../page/WorkPage';
import { useAwake } from '../../ui/useAwake';
import { Holds } from './Holds';
import { Pedal } from './Pedal';
import { Screws } from './Screws';
import { Stand } from './Stand';
import { useBleed } from './useBleed';
import { Watch } from './Watch';

export function BleedPage({ job, view: stored, stages }: StageProps<'bleed'>) {
  const bleed = useBleed(job, stored);
  const { view, steps } = bleed;
  const screws = view.schools.flatMap((s) => s.screws);
  const done = screws.filter((s) => s.bled !== null && s.bled.bubbles === false && !s.bled.dry).length;
  useAwake(done > 0 && done < screws.length);
  return (
    <WorkPage
      job={job}
      stages={stages}
      stage="bleed"
      title="Bleed"
      setup={view.setup}
      said={`${done} of ${screws.length} screws without bubbles; then the stand test, before the first metre.`}
      onSetup={bleed.onSetup}
      steps={steps}
      cautions={`Brake fluid eats paint, skin and eyes: glasses, gloves, water at hand. Stands on hard ground. Look at every opened joint twice: after the hold, and after the first drive. ${view.certified ? 'Aircraft: by certified persons only.' : ''}`}
    >
      {(wide) => (
        <Columns data-wide={wide || undefined}>
          <div>
            <section aria-label="Screws">
              <h2>
                Bleed
                <em>a clear hose into a bottle; keep the reservoir full</em>
              </h2>
              <Screws bleed={bleed} />
            </section>
            <section aria-label="Hold the pedal">
              <h2>Hold the pedal</h2>
              <Holds bleed={bleed} />
            </section>
            <section aria-label="Leak watch">
              <h2>
                Leak watch
                <em>a dry rag round each opened joint, twice</em>
              </h2>
              <Watch bleed={bleed} />
            </section>
            <section aria-label="A long pedal" className="noprint">
              <h2>
                A long pedal
                <em>why, with a bathroom scale and a ruler</em>
              </h2>
              <Pedal key={view.setup} bleed={bleed} />
            </section>
          </div>
          <div>
            <section aria-label="Stand test">
              <h2>
                Stand test
                <em>on stands, engine off: a bathroom scale, a gauge at each end, a ruler</em>
              </h2>
              <Stand key={view.setup} bleed={bleed} />
            </section>
          </div>
        </Columns>
      )}
    </WorkPage>
  );
}
