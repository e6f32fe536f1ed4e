// The words and shapes of the five levels. What a level means is decided in
// core; this only names it for the screen.

export type Level = 'fits' | 'caution' | 'change' | 'unknown' | 'unfit';

const known: readonly Level[] = ['fits', 'caution', 'change', 'unknown', 'unfit'];

/** A level from the server; anything else is shown as unknown, never as good. */
export function levelOf(text: string): Level {
  return known.find((level) => level === text) ?? 'unknown';
}

/** Where there is no room for more than a word. */
export const levelShort: Record<Level, string> = {
  fits: 'fits',
  caution: 'caution',
  change: 'change',
  unknown: 'unknown',
  unfit: 'unfit',
};

export const levelWords: Record<Level, string> = {
  fits: 'fits',
  caution: 'caution',
  change: 'needs a change',
  unknown: 'unknown',
  unfit: 'does not fit',
};
