/** Numbers as they are kept and bounded. */

/** To a tenth: no finer than a hand draws in millimetres. */
export const tenth = (value: number): number => Math.round(value * 10) / 10;

/** No less than the one and no more than the other. */
export const within = (low: number, value: number, high: number): number =>
  Math.min(high, Math.max(low, value));
