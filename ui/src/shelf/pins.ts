// Rows of pins as they are typed: one after another, pin 1 first.

/** A row typed or pasted at once, separated by commas; a dash is an empty slot. */
export function parseRow(text: string): string[] {
  return text
    .split(',')
    .map((w) => w.trim())
    .map((w) => (w === '-' || w === '–' ? '' : w));
}

/** The row with one pin set; a row typed into one pin fills the ones after it. */
export function withPin(pins: string[], at: number, text: string): string[] {
  const typed = text.includes(',') ? parseRow(text) : [text.trim()];
  const out = [...pins];
  typed.forEach((pin, i) => (out[at + i] = pin));
  return Array.from(out, (pin) => pin ?? '');
}

/** A row of pins that is stated somewhere already, and where. */
export interface KnownRow {
  pins: string[];
  of: string[];
  /** Many have it. */
  usual?: boolean;
}

/**
 * The rows of pins that entries have at a path such as plug.pins, each once, the one most
 * have first; only those made of what the pins here can be.
 */
export function knownRows(
  entries: readonly { name: string; entry: unknown }[],
  rowsOf: (entry: unknown) => string[][],
  may: readonly string[],
): KnownRow[] {
  const rows: Record<string, KnownRow> = {};
  for (const e of entries) {
    for (const pins of rowsOf(e.entry)) {
      if (pins.length < 2 || (may.length > 0 && !pins.every((p) => p === '' || may.includes(p)))) continue;
      const row = (rows[pins.join(',')] ??= { pins, of: [] });
      if (!row.of.includes(e.name)) row.of.push(e.name);
    }
  }
  return Object.values(rows).sort((a, b) => b.of.length - a.of.length);
}

export interface HarnessWire {
  from: number;
  to?: number;
  colour?: string;
  awg?: number;
  lengthMM?: number;
}

/** A straight cable from its colours in order; what is known of the old wires in those slots stays. */
export function straight(colours: string[], bare: boolean, old: HarnessWire[]): HarnessWire[] {
  return colours.flatMap((colour, i) => {
    if (colour === '') return [];
    const before = old.find((w) => w.from === i + 1);
    return [{ ...before, from: i + 1, ...(bare ? { to: undefined } : { to: before?.to ?? i + 1 }), colour }];
  });
}

/** Orders that entries have, with the usual ones that none of them has behind them. */
export function withUsual(usual: readonly string[][], known: KnownRow[]): KnownRow[] {
  const further = usual.filter((u) => !known.some((k) => k.pins.join() === u.join()));
  return [...known, ...further.map((pins) => ({ pins, of: [], usual: true }))];
}
