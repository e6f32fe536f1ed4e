// The voltage scale of the supply picture.
import { scaleLinear } from 'd3-scale';
import { fixed } from '../lib/words';

export interface Scale {
  ticks: number[];
  x: (volts: number) => number;
}

/** A scale from 0 to a round voltage above the highest, over a width in pixels. */
export function voltageScale(highest: number, width: number): Scale {
  const scale = scaleLinear().domain([0, highest * 1.02]).nice(6).range([0, width]);
  return { ticks: scale.ticks(6), x: scale };
}

/** A voltage as on a bench meter, without its unit. */
export function shortVolts(v: number): string {
  return v < 10 ? fixed(v, 2).replace(/0$/, '') : fixed(v, 1);
}
