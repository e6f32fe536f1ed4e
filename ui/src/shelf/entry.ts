// Reading and writing values of an entry by their path. An empty value takes
// the field out: nothing is ever stored as an empty string or zero by accident.

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

/** A number as typed; an empty text is no value, a comma counts as a point. */
export function parseNumber(text: string, whole = false): Parsed {
  const plain = text.trim().replace(',', '.');
  if (plain === '') return {};
  const value = Number(plain);
  if (!Number.isFinite(value)) return { wrong: `“${text}” is not a number` };
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
}

const holds = (list: unknown[], value: unknown) => list.some((v) => JSON.stringify(v) === JSON.stringify(value));

/** The entry with values read from a sheet: lists grow, and each value keeps its words as its source. */
export function withRead(entry: Entry, found: readonly Read[]): Entry {
  const sources = { ...((entry.valueSources as Entry | undefined) ?? {}) };
  let to = entry;
  for (const f of found) {
    const there = valueAt(to, f.field);
    const has = f.joins && Array.isArray(there) ? (there as unknown[]) : [];
    const further = f.joins && Array.isArray(f.value) ? (f.value as unknown[]).filter((v) => !holds(has, v)) : [];
    to = withValue(to, f.field, f.joins ? [...has, ...further] : f.value);
    sources[f.field] = { kind: 'maker', text: f.words.slice(0, 400) };
  }
  return found.length > 0 ? { ...to, valueSources: sources } : to;
}
