// A board or a part as it lies there, with its pads: what can be placed, and how a pad
// that is dragged or pushed by keys moves.
import { valueAt, type Entry } from './entry';

export interface PadPlace {
  at: string;
  xMM: number;
  yMM: number;
  back?: boolean;
  printed?: string;
}
export interface Outline {
  xMM?: number;
  yMM?: number;
  pads?: PadPlace[];
}

/** What can be placed: the pads of a board, or the pins of a part. */
export function placeable(entry: Entry): { at: string; words: string }[] {
  const pins = valueAt(entry, 'plug.pins');
  if (Array.isArray(pins)) return pins.map((p, i) => ({ at: String(i + 1), words: `pin ${i + 1}, ${p || 'empty'}` }));
  const list = [{ at: 'ground', words: 'ground' }];
  for (const pad of rows(entry, 'pads')) list.push({ at: String(pad.id), words: String(pad.name ?? pad.id) });
  for (const uart of rows(entry, 'uarts')) {
    if (uart.tx) list.push({ at: `tx${String(uart.id)}`, words: `TX ${String(uart.id)}` });
    if (uart.rx) list.push({ at: `rx${String(uart.id)}`, words: `RX ${String(uart.id)}` });
  }
  const signals = valueAt(entry, 'signals');
  for (const signal of Array.isArray(signals) ? (signals as string[]) : []) list.push({ at: signal, words: signal });
  return list;
}

function rows(entry: Entry, path: string): Entry[] {
  const list = valueAt(entry, path);
  return Array.isArray(list) ? (list as Entry[]) : [];
}

/** A coordinate kept within an edge, to a tenth of a millimetre. */
export function kept(mm: number, edge: number): number {
  return Math.round(Math.min(Math.max(mm, 0), edge) * 10) / 10;
}

/** The outline with one pad changed; undefined takes it out. */
export function withPad(o: Outline, i: number, pad: PadPlace | undefined): Outline | undefined {
  const pads = [...(o.pads ?? [])];
  if (pad) pads[i] = pad;
  else pads.splice(i, 1);
  return whole({ ...o, pads });
}

/** Nothing where nothing is left. */
export function whole(o: Outline): Outline | undefined {
  const out: Outline = {};
  if (o.xMM !== undefined) out.xMM = o.xMM;
  if (o.yMM !== undefined) out.yMM = o.yMM;
  if (o.pads && o.pads.length > 0) out.pads = o.pads;
  return Object.keys(out).length > 0 ? out : undefined;
}
