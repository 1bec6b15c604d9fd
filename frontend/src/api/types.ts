/** Names for the server's shapes; types only, so every room may use them. */
import type { components } from './generated';

type Shapes = components['schemas'];
export type Job = Shapes['JobOut'];
export type JobLine = Shapes['JobLine'];
export type Card = Shapes['CardOut'];
export type Sketch = Shapes['Sketch'];
export type Tried = Shapes['Tried'];
export type StageState = Shapes['StageOut'];
export type Edit = Shapes['EditIn'];
export type Changed = Shapes['Changed'];
export type RecordIn = Shapes['RecordIn'];
export type SizeView = Shapes['SizeView'];
export type MeasureView = Shapes['MeasureView'];
/** A step of a person on a job, before its revision and the page that asks are put to it. */
export interface Step {
  label: string;
  gesture?: string;
  plan?: Shapes['PlanIn'];
  /** The setup whose places the edits name; the whole job when left out. */
  under?: string;
  /** What is done as found is done in every plan that has the same there. */
  follow?: boolean;
  edits?: Partial<Edit>[] & { path: string }[];
}
export type SetupView = Shapes['SetupView'];
/** One control path of a setup that is solved. */
export type PathView = Shapes['PathView'];
export type LineView = Shapes['LineView'];
export type Failed = Shapes['Failed'];
export type WorkingStep = Shapes['StepView'];
export type StateView = Shapes['StateView'];
export type StationParts = Shapes['StationParts'];
export type Parts = Shapes['Parts'];
export type Curves = Shapes['Curves'];
export type GainCurves = Shapes['GainCurves'];
export type Moment = Shapes['Moment'];
export type Finding = Shapes['Finding'];
export type Mend = Shapes['Mend'];
export type Settle = Shapes['Settle'];
export type Verdicts = Shapes['Verdicts'];
export type MendsView = Shapes['MendsView'];
export type Headline = Shapes['Headline'];
export type Balance = Shapes['Balance'];
export type Failure = Shapes['FailureView'];
export type EffortBand = Shapes['EffortBand'];
export type TravelBand = Shapes['TravelBand'];
export type Bore = Shapes['Bore'];
export type Against = Shapes['Against'];
export type Section = Shapes['Section'];
export type Group = Shapes['Group'];
export type Entry = Shapes['Entry'];
export type FileEdit = Shapes['Edit'];
export type Sensitivity = Shapes['Sensitivity'];
export type SensitiveEntry = Shapes['SensitiveEntry'];
export type Note = Shapes['Note'];
export type HelperAnswer = Shapes['HelperAnswer'];
export type Devices = Shapes['Devices'];
export type Layout = Shapes['NewJobIn']['layout'];
export type Search = Shapes['Search'];
export type MatchChoices = Shapes['MatchChoices'];
export type SearchState = Shapes['SearchState'];
export type Found = Shapes['Found'];
export type Kept = Shapes['Kept'];
export type Percentiles = Shapes['Percentiles'];
export type ShelfPart = Shapes['ShelfPart'];
export type HeatIn = Shapes['HeatIn'];
export type FitView = Shapes['FitView'];
export type JointView = Shapes['JointView'];
export type JointEndView = Shapes['JointEndView'];
export type EndOption = Shapes['EndOption'];
export type BranchView = Shapes['BranchView'];
export type PartsListView = Shapes['PartsListView'];
export type ListRow = Shapes['ListRow'];
export type SectionView = Shapes['SectionView'];
export type HoseView = Shapes['HoseView'];
export type HandOut = Shapes['HandOut'];
export type YardBand = Shapes['YardBand'];
export type YardView = Shapes['YardView'];
export type YardPart = Shapes['YardPart'];
export type ProveView = Shapes['ProveView'];
export type StopSetView = Shapes['StopSetView'];
export type StopView = Shapes['StopView'];
export type PairView = Shapes['PairView'];
export type BuildView = Shapes['BuildView'];
export type DayView = Shapes['DayView'];
export type WorkStep = Shapes['WorkStep'];
export type OrderView = Shapes['OrderView'];
