// The forms come from the program, made from the published schemas; this finds one's way
// in them.
import type { components } from '../api/schema';
import { idFor, valueAt, withValue, type Entry } from './entry';

export type Form = components['schemas']['Form'];
export type Field = components['schemas']['Field'];

/** Whether a field is asked for, given what else is entered; what has a value is, other than an id. */
export function asked(field: Field, entry: Entry): boolean {
  if (field.made) return false;
  if (field.rare) return valueAt(entry, field.path) !== undefined;
  if (!field.onlyIf || valueAt(entry, field.path) !== undefined) return true;
  const value = valueAt(entry, field.onlyIf.path);
  return field.onlyIf.is ? value === field.onlyIf.is : value !== undefined;
}

/** How many of some fields have a value. */
export function stated(fields: readonly Field[], entry: Entry): number {
  return fields.filter((f) => !f.made && valueAt(entry, f.path) !== undefined).length;
}

/** Whether entries of a kind are of the fleet; all others are gear. */
export function ofFleet(kind: string): boolean {
  return ['kit', 'spare', 'quad', 'course', 'testFlight', 'task'].includes(kind);
}

/** The id of the control at a path such as pads[2].outV. */
export function controlID(path: string): string {
  return 'field-' + path.replaceAll(/[^a-zA-Z0-9]+/g, '-');
}

/**
 * Where a path as gates name it stands in a form: pads.10v.outV is pads[2].outV where the
 * third pad has that id. An entry that is not there yet leads to its list, an object to the
 * first of its fields.
 */
export function locate(fields: readonly Field[], entry: Entry, path: string, base = ''): string | undefined {
  for (const field of fields) {
    if (field.path === path || field.path.startsWith(path + '.')) return base + field.path;
    if (!path.startsWith(field.path + '.')) continue;
    const items = valueAt(entry, field.path);
    const [id = '', ...rest] = path.slice(field.path.length + 1).split('.');
    const at = Array.isArray(items)
      ? items.findIndex((item: Entry, i) => item.id === id || String(item.uart ?? item.from ?? i) === id)
      : -1;
    if (field.type !== 'list' || at < 0) return base + field.path;
    return (
      locate(field.fields ?? [], (items as Entry[])[at] ?? {}, rest.join('.'), `${base}${field.path}[${at}].`) ??
      base + field.path
    );
  }
  return undefined;
}

/** Something within another entry that can be picked. */
export interface Choice {
  value: string;
  name: string;
}

/** Finds entries by their ids, and those of a kind. */
export interface Shelf {
  entry: (id: string) => Entry | undefined;
  ofKind: (kind: string) => Entry[];
}

/** What can be picked for a field: the things themselves, and what stands in lists and maps of entries. */
export function within(field: Field, root: Entry, base: string, shelf: Shelf): Choice[] {
  const found = (field.picks ?? []).flatMap((p) => {
    if (p.choice) return [p.choice];
    const list = p.list ?? '';
    const lists = p.kind
      ? shelf.ofKind(p.kind).map((e) => valueAt(e, list))
      : [p.from ? valueAt(named(p.from, field, root, base, shelf), list) : nearest(list, field, root, base)];
    return lists.flatMap((l) => choicesIn(l, shelf)).map((c) => (p.before ? prefixed(c, p.before) : c));
  });
  return found.filter((c, i) => found.findIndex((other) => other.value === c.value) === i);
}

const prefixed = (c: Choice, before: string): Choice => ({
  value: before + c.value,
  name: c.name === c.value ? before + c.value : c.name,
});

/** The paths around a field, from the innermost out. */
function around(field: Field, base: string): string[] {
  const paths: string[] = [];
  for (let at = base + field.path; at !== '';) {
    at = at.slice(0, Math.max(0, at.lastIndexOf('.')));
    paths.push(at === '' ? '' : `${at}.`);
  }
  return paths;
}

/** The entry that one of some fields names, beside the field or further out; a piece of kit leads on to its model. */
function named(from: string, field: Field, root: Entry, base: string, shelf: Shelf): Entry | undefined {
  for (const path of around(field, base))
    for (const name of from.split('|')) {
      const id = valueIn(root, path + name);
      if (typeof id !== 'string') continue;
      const entry = shelf.entry(id);
      return typeof entry?.model === 'string' ? shelf.entry(entry.model) : entry;
    }
  return undefined;
}

/** A list of the entry itself, beside the field or further out. */
function nearest(list: string, field: Field, root: Entry, base: string): unknown {
  return around(field, base)
    .map((path) => valueIn(root, path + list))
    .find((found) => found !== undefined);
}

function choicesIn(list: unknown, shelf: Shelf): Choice[] {
  if (!Array.isArray(list))
    return Object.keys(list ?? {}).map((key) => ({ value: key, name: key.replaceAll('-', ' ') }));
  return (list as Entry[])
    .filter((item) => (item.id ?? item.version) !== undefined)
    .map((item) => {
      const value = String(item.id ?? item.version);
      const model = typeof item.model === 'string' ? shelf.entry(item.model) : undefined;
      return { value, name: String(item.name ?? model?.name ?? value) };
    });
}

/** What an id is made from: units stick to their numbers, and pads are called by what they give. */
const plain = (name: string) =>
  name
    .replace(/(\d+)\.(\d+)\s*v\b/i, '$1v$2')
    .replace(/(\d)\s+(?=v\b)/i, '$1')
    .replace(/\s+pad$/i, '');

/**
 * The entries of a list with an id for each that has none and says what it is called, free among all that stand
 * beside it; at last also for one that does not say.
 */
export function withIDs(field: Field, items: Entry[], beside: Iterable<string>, last = false): Entry[] {
  if (!field.makes) return items;
  const taken = new Set([...beside, ...(field.taken ?? []), ...items.map((item) => String(item.id))]);
  return items.map((item) => {
    const called = item[field.makes ?? ''] ?? (last ? field.path.split('.').at(-1) : undefined);
    if (item.id !== undefined || called === undefined) return item;
    const id = idFor(plain(String(called)), taken);
    taken.add(id);
    return { id, ...item };
  });
}

/** The ids of all that stands in the lists beside the one at a path. */
export function idsBeside(root: Entry, path: string): string[] {
  const cut = path.lastIndexOf('.');
  const holder = cut < 0 ? root : valueIn(root, path.slice(0, cut));
  return Object.values((holder ?? {}) as Entry).flatMap((list) =>
    Array.isArray(list) ? (list as Entry[]).map((item) => String(item?.id ?? '')) : [],
  );
}

/** The entry with an id for everything in its lists. */
export function whole(fields: readonly Field[], entry: Entry, root = entry, base = ''): Entry {
  return fields.reduce((made, field) => {
    const items = valueAt(made, field.path);
    if (field.type !== 'list' || !Array.isArray(items)) return made;
    const path = base + field.path;
    const inside = (items as Entry[]).map((item, i) => whole(field.fields ?? [], item, root, `${path}[${i}].`));
    return withValue(made, field.path, withIDs(field, inside, idsBeside(root, path), true));
  }, entry);
}

/** A value at a path that may lead through lists: next.osd.elements[0].id. */
function valueIn(entry: Entry, path: string): unknown {
  return valueAt(entry, path.replaceAll(/\[(\d+)\]/g, '.$1'));
}
