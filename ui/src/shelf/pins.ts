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
