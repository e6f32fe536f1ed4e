// The voltage scale of the supply picture.
import { nice, ticks } from 'd3-array';
import { fixed } from '../lib/words';

export interface Scale {
  ticks: number[];
  x: (volts: number) => number;
}

/** A scale from 0 to a round voltage above the highest, over a width in pixels. */
export function voltageScale(highest: number, width: number): Scale {
  const [, top] = nice(0, highest * 1.02, 6);
  return { ticks: ticks(0, top, 6), x: (volts) => (volts / top) * width };
}

/** A voltage as on a bench meter, without its unit. */
export function shortVolts(v: number): string {
  return v < 10 ? fixed(v, 2).replace(/0$/, '') : fixed(v, 1);
}
