// Scales for pictures: where a value stands, and which round values are marked.
import { scaleLinear, type ScaleLinear } from 'd3-scale';
import { fixed } from './words';

/** From 0 to a round voltage above the highest, over a width in pixels. */
export function voltageScale(highest: number, width: number): ScaleLinear<number, number> {
  return scaleLinear([0, highest * 1.02], [0, width]).nice(6);
}

/** Where a value stands between two others, in percent. */
export function percentScale(low: number, high: number): ScaleLinear<number, number> {
  return scaleLinear([low, high], [0, 100]);
}

/** A voltage as on a bench meter, without its unit. */
export function shortVolts(v: number): string {
  return v < 10 ? fixed(v, 2).replace(/0$/, '') : fixed(v, 1);
}
