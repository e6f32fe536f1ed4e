// Reading and writing values of an entry by their path. An empty value takes
// the field out: nothing is ever stored as an empty string or zero by accident.
import { inUnit } from './units';

export type Entry = Record<string, unknown>;

export function valueAt(entry: unknown, path: string): unknown {
  return path
    .split('.')
    .reduce<unknown>((at, key) => (at !== null && typeof at === 'object' ? (at as Entry)[key] : undefined), entry);
}

/** A copy of the entry with one value set, or taken out where it is undefined. */
export function withValue(entry: Entry, path: string, value: unknown): Entry {
  const [key = '', ...rest] = path.split('.');
  const copy = { ...entry };
  if (rest.length === 0) {
    if (value === undefined || value === '') delete copy[key];
    else copy[key] = value;
    return copy;
  }
  const below = copy[key];
  const inner = withValue(below !== null && typeof below === 'object' ? (below as Entry) : {}, rest.join('.'), value);
  if (Object.keys(inner).length === 0) delete copy[key];
  else copy[key] = inner;
  return copy;
}

/** What a value rests on that was taken over from others, and once it is held against one's own. */
export const fromOthers = { kind: 'practice', text: "as others have it, not yet held against one's own" };
export const heldAgainstOwn = { kind: 'measured', text: "held against one's own" };

/** The entry with what one of its values rests on. */
export const withSource = (entry: Entry, path: string, source: Entry): Entry => ({
  ...entry,
  valueSources: { ...((entry.valueSources as Entry | undefined) ?? {}), [path]: source },
});

/** Whether a value from common practice has been held against one's own; undefined: it is from elsewhere. */
export function heldAgainst(entry: Entry, path: string): boolean | undefined {
  const own = (entry.valueSources as Record<string, Entry> | undefined)?.[path];
  if (own?.text === heldAgainstOwn.text) return true;
  return (own ?? (entry.source as Entry | undefined))?.kind === 'practice' ? false : undefined;
}

/** An id made from a name: lower-case letters, digits and hyphens; free among those taken. */
export function idFor(name: string, taken: Set<string>): string {
  const plain =
    name
      .normalize('NFKD')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 58) || 'entry';
  let id = plain;
  for (let n = 2; taken.has(id); n++) id = `${plain}-${n}`;
  return id;
}

export interface Parsed {
  value?: number;
  wrong?: string;
}

/** A number as typed, in any unit of its kind; an empty text is no value, a comma counts as a point. */
export function parseNumber(text: string, whole = false, unit = ''): Parsed {
  if (text.trim() === '') return {};
  const value = inUnit(text, unit);
  if (value === undefined || !Number.isFinite(value)) {
    return { wrong: `“${text}” is not a number${unit ? ` in ${unit}` : ''}` };
  }
  if (whole && !Number.isInteger(value)) return { wrong: `“${text}” is not a whole number` };
  return { value };
}

/** Words separated by commas, as a list; empty is no value. */
export function parseWords(text: string): string[] | undefined {
  const words = text
    .split(',')
    .map((w) => w.trim())
    .filter(Boolean);
  return words.length > 0 ? words : undefined;
}

/** A value read from a sheet. */
export interface Read {
  field: string;
  value: unknown;
  words: string;
  joins: boolean; // what its field holds already
  with?: string[] | undefined; // fields without which the entry cannot state it
}

/** Those of what was read that an entry can take: a plug waits for its pins. */
export function takeable<R extends Read>(entry: Entry, found: readonly R[]): R[] {
  const there = (path: string) => valueAt(entry, path) !== undefined || found.some((f) => f.field === path);
  return found.filter((f) => (f.with ?? []).every(there));
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
const idOf = (item: unknown) =>
  item !== null && typeof item === 'object' ? ((item as Entry).id ?? (item as Entry).band) : undefined;

/** A list with further entries behind it: what it holds already is no further one, and one with the id, or of the band, of another takes its place. */
function grown(list: unknown[], further: unknown[]): unknown[] {
  const kept = list.filter((old) => !further.some((f) => idOf(f) !== undefined && idOf(f) === idOf(old)));
  return [...kept, ...further.filter((f) => !kept.some((old) => same(old, f)))];
}

/**
 * The entry with values read from a sheet: lists grow, and each value keeps its words as its
 * source. A sheet that says itself what it rests on is not made more of.
 */
export function withRead(entry: Entry, found: readonly Read[]): Entry {
  const itself = found.some((f) => f.field === 'source.kind');
  let to = entry;
  for (const f of found) {
    const there = valueAt(to, f.field);
    const lists = f.joins && Array.isArray(there) && Array.isArray(f.value);
    to = withValue(to, f.field, lists ? grown(there as unknown[], f.value as unknown[]) : f.value);
  }
  if (itself || found.length === 0) return to;
  const read = found.map((f) => [f.field, { kind: 'maker', text: f.words.slice(0, 400) }]);
  return { ...to, valueSources: { ...((entry.valueSources as Entry | undefined) ?? {}), ...Object.fromEntries(read) } };
}
