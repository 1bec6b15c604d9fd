/** Names for the server's shapes; types only, so every room may use them. */
import type { components } from './generated';

type Shapes = components['schemas'];
export type JobView = Shapes['JobView'];
export type SetupView = Shapes['SetupView'];
export type Solved = Shapes['Solved'];
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
