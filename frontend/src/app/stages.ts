/** The stages' pages, one line each: where it is below a job, what the server shows on it, its code, what its address calls a setup. */
import type { ComponentType } from 'react';
import type { PageName } from '../api/pages';
import type { AnyStage, StageProps } from '../page/StagePage';

export interface Stage {
  /** Its name below a job, as the server has it too. */
  path: string;
  /** What the server shows on it; null where it asks for itself. */
  page: PageName | null;
  load: () => Promise<ComponentType<AnyStage>>;
  /** What the address calls the one setup that it shows; undefined where it shows all. */
  setup: string | undefined;
}

/** What a page shows is what its component takes: held here, forgotten behind. */
const stage = <P extends PageName | null>(
  path: string,
  page: P,
  load: () => Promise<ComponentType<StageProps<P>>>,
  setup?: string,
): Stage => ({ path, page, load: load as Stage['load'], setup });

// A stage's code is fetched when it is gone to: the first page does not wait for the others.
export const STAGES: readonly Stage[] = [
  stage('measure', 'measure', async () => (await import('../stages/measure/MeasurePage')).MeasurePage, 'plan'),
  stage('size', 'size', async () => (await import('../stages/size/SizePage')).SizePage),
  stage('match', null, async () => (await import('../stages/match/MatchPage')).MatchPage),
  stage('fit', 'fit', async () => (await import('../stages/fit/FitPage')).FitPage, 'plan'),
  stage('build', 'build', async () => (await import('../stages/build/BuildPage')).BuildPage, 'plan'),
  stage('bleed', 'bleed', async () => (await import('../stages/bleed/BleedPage')).BleedPage, 'plan'),
  stage('bed', 'bed', async () => (await import('../stages/bed/BedPage')).BedPage, 'plan'),
  stage('prove', 'prove', async () => (await import('../stages/prove/ProvePage')).ProvePage),
  stage('questions', null, async () => (await import('../stages/questions/QuestionsPage')).QuestionsPage),
  stage('files', null, async () => (await import('../stages/files/FilesPage')).FilesPage),
];
