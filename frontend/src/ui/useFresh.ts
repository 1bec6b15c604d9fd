import { useSettled } from './useSettled';

const DOUBLE_MS = 400;
/** Whether what stands under the thumb has only just come there: a second tap of a double tap is not for it. */
export const useFresh = (what: string | number): boolean => useSettled(what, DOUBLE_MS) !== what;
