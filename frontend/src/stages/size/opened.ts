/** What of Size is opened by a press, or chosen for a place: its code comes apart from the first load. */
import { later } from '../../page/later';

export const Compare = later(async () => (await import('./Compare')).Compare);
export const HeatView = later(async () => (await import('./HeatView')).HeatView);
export const Working = later(async () => (await import('./Working')).Working);
