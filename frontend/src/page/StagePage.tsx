/** What every stage's page shares: its title, its head on a sheet and on a phone, its keys and its finder. */
import { useCallback, useEffect, useRef, useState, type ReactNode } from 'react';
import type { Page, PageName, ViewOf } from '../api/pages';
import type { Job, StageState } from '../api/types';
import { whenStill } from '../ui/useCoalesced';
import { useMedia, WIDE } from '../ui/useMedia';
import type { Target } from './Finder';
import { useHelps } from './Helps';
import { PhoneHead } from './PhoneHead';
import { SheetTop } from './SheetTop';

/** What the page of a stage is given: the job, what the page shows of it, and how the stages stand. */
export interface StageProps<P extends PageName | null> {
  job: Job;
  view: P extends PageName ? ViewOf<P> : null;
  stages: readonly StageState[];
}
/** The same, whichever page it is. */
export type AnyStage = Omit<StageProps<null>, 'view'> & { view: Page['view'] };

interface StagePageProps {
  job: Job;
  stages: readonly StageState[];
  /** Path of the stage that is marked in the strip. */
  stage: string;
  /** Name of this page. */
  title: string;
  /** The setup that it shows, for the paper. */
  setup?: string;
  /** What its finder goes to beside the stages. */
  targets?: readonly Target[];
  /** Single keys of this page, beside those of every page. */
  keys?: Readonly<Record<string, () => void>>;
  onUndo: () => void;
  onRedo: () => void;
  /** The page below its head, on a sheet or not. */
  children: (head: ReactNode, wide: boolean) => ReactNode;
}
const NO_TARGETS: readonly Target[] = [];

/** The same, once what is still being dragged or stepped is stored: it would land on top of what was undone. */
function useStill(act: () => void): () => void {
  const latest = useRef(act);
  useEffect(() => void (latest.current = act));
  return useCallback(() => void whenStill().then(() => latest.current()), []);
}
export function StagePage(props: StagePageProps) {
  const { job, stages, stage, title, setup, targets = NO_TARGETS } = props;
  const [said, setSaid] = useState('');
  const onUndo = useStill(() => {
    setSaid(job.undo === null ? '' : `Undone: ${job.undo}`);
    props.onUndo();
  });
  const onRedo = useStill(() => {
    setSaid(job.redo === null ? '' : `Done again: ${job.redo}`);
    props.onRedo();
  });
  const wide = useMedia(WIDE);
  useEffect(() => {
    document.title = `${job.name}: ${title}, Kobrix`;
  }, [job.name, title]);
  const helps = useHelps({ job: job.id, stages, targets, keys: props.keys, onUndo, onRedo });
  const Head = wide ? SheetTop : PhoneHead;
  const head = (
    <Head job={job} stages={stages} stage={stage} title={title} setup={setup} onUndo={onUndo} onRedo={onRedo}>
      {helps.buttons}
    </Head>
  );
  return (
    <>
      <p className="visually-hidden" aria-live="polite">
        {said}
      </p>
      {props.children(head, wide)}
      {helps.over}
    </>
  );
}
