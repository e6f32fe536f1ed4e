// Ranges of releases as places in a row: 0 is whatever came before the first, then each
// release, and last whatever comes after. How ranges are read is the program's own affair; here
// only those are known that a row can show.

/** The range from one place to another. */
export function rangeOf(releases: string[], from: number, to: number): string {
  const last = releases.length + 1;
  const low = from === 0 ? '' : from === last ? `>${releases[last - 2]}` : `>=${releases[from - 1]}`;
  const high = to === last ? '' : to === 0 ? `<${releases[0]}` : `<=${releases[to - 1]}`;
  if (from === to && from > 0 && to < last) return releases[from - 1] ?? '';
  return `${low} ${high}`.trim();
}

/** The places a range covers; null where the row cannot show it. */
export function spanOf(releases: string[], range: string): [number, number] | null {
  const text = range.trim();
  const last = releases.length + 1;
  if (text === '' || text === '*') return [0, last];
  for (let from = 0; from <= last; from++) {
    for (let to = from; to <= last; to++) {
      if (rangeOf(releases, from, to) === text) return [from, to];
    }
  }
  return null;
}
