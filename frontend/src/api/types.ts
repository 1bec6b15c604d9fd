/** Names for the server's shapes; types only, so every room may use them. */
import type { components } from './generated';

type Shapes = components['schemas'];
export type Job = Shapes['JobOut'];
export type EditIn = Shapes['EditIn'];
export interface Step {
  label: string;
  edits: EditIn[];
  gesture?: string;
}
export type JobView = Shapes['JobView'];
export type SetupView = Shapes['SetupView'];
/** One control path of a setup that is solved. */
export type Solved = Shapes['PathView'];
export type LineView = Shapes['LineView'];
export type LineCurves = Shapes['LineCurves'];
export type BoreView = Shapes['BoreView'];
export type Failed = Shapes['Failed'];
export type WorkingStep = Shapes['WorkingStep'];
export type StateView = Shapes['StateView'];
export type StationParts = Shapes['StationParts'];
export type Parts = Shapes['Parts'];
export type Curves = Shapes['Curves'];
export type Moment = Shapes['Moment'];
export type Finding = Shapes['FindingOut'];
export type Balance = Shapes['Balance'];
export type Failure = Shapes['FailureView'];
export type EffortBand = Shapes['EffortBand'];
export type TravelBand = Shapes['TravelBand'];
export type Bore = Shapes['Bore'];
export type Against = Shapes['Against'];
export type Sheet = Shapes['Sheet'];
export type Section = Shapes['Section'];
export type Group = Shapes['Group'];
export type Entry = Shapes['Entry'];
export type SheetEdit = Shapes['Edit'];
export type Matters = Shapes['Matters'];
export type Matter = Shapes['Matter'];
export type Note = Shapes['NoteOut'];
export type HelpOut = Shapes['HelpOut'];
export type Devices = Shapes['Devices'];
export type Layout = Shapes['NewJobIn']['layout'];
export type Ask = Shapes['Search'];
export type MatchChoices = Shapes['MatchChoices'];
export type Match = Shapes['MatchOut'];
export type Found = Shapes['Found'];
export type Kept = Shapes['KeptOut'];
export type Doubt = Shapes['DoubtOut'];
export type Range = Shapes['Range3'];
export type ShelfPart = Shapes['ShelfPart'];
