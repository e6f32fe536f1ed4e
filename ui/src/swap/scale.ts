// The voltage scale of the supply picture.

export interface Scale {
  ticks: number[];
  x: (volts: number) => number;
}

/** A scale from 0 to a round voltage above the highest, over a width in pixels. */
export function voltageScale(highest: number, width: number): Scale {
  const step = [0.5, 1, 2, 4, 5, 10, 20].find((s) => highest / s <= 8) ?? Math.ceil(highest / 8);
  const top = Math.max(step, Math.ceil((highest * 1.02) / step) * step);
  const ticks: number[] = [];
  for (let v = 0; v <= top + 1e-9; v += step) ticks.push(v);
  return { ticks, x: (volts) => (volts / top) * width };
}

/** A voltage as on a bench meter, without its unit. */
export function shortVolts(v: number): string {
  return v < 10 ? v.toFixed(2).replace(/0$/, '') : v.toFixed(1);
}

/** A change in decibels with its sign. */
export function signed(x: number): string {
  return (x > 0.05 ? '+' : x < -0.05 ? '−' : '±') + Math.abs(x).toFixed(1);
}
