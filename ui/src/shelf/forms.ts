// The forms come from the program, made from the published schemas; this finds one's way
// in them.
import type { components } from '../api/schema';
import { valueAt, type Entry } from './entry';

export type Form = components['schemas']['Form'];
export type Field = components['schemas']['Field'];

/** Whether a field is asked for, given what else is entered; what has a value always is. */
export function asked(field: Field, entry: Entry): boolean {
  if (field.rare) return valueAt(entry, field.path) !== undefined;
  if (!field.onlyIf || valueAt(entry, field.path) !== undefined) return true;
  const value = valueAt(entry, field.onlyIf.path);
  return field.onlyIf.is ? value === field.onlyIf.is : value !== undefined;
}

/** How many of some fields have a value. */
export function stated(fields: readonly Field[], entry: Entry): number {
  return fields.filter((f) => valueAt(entry, f.path) !== undefined).length;
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

/**
 * What can be picked of a list, or of the keys of a map, within an entry that another field names. The field stands
 * beside this one or further out; a piece of kit leads on to its model.
 */
export function within(field: Field, root: Entry, base: string, entryOf: (id: string) => Entry | undefined): Choice[] {
  let holder: Entry | undefined = root;
  if (field.from) {
    let named: unknown;
    for (let at = base + field.path; named === undefined && at !== '';) {
      at = at.slice(0, Math.max(0, at.lastIndexOf('.')));
      named = valueIn(root, at === '' ? field.from : `${at}.${field.from}`);
    }
    holder = typeof named === 'string' ? entryOf(named) : undefined;
    if (holder && typeof holder.model === 'string') holder = entryOf(holder.model);
  }
  const list = valueAt(holder, field.list ?? '');
  if (!Array.isArray(list))
    return Object.keys(list ?? {}).map((key) => ({ value: key, name: key.replaceAll('-', ' ') }));
  return list.map((item: Entry) => ({ value: String(item.id), name: String(item.name ?? item.id) }));
}

/** A value at a path that may lead through lists: next.osd.elements[0].id. */
function valueIn(entry: Entry, path: string): unknown {
  return valueAt(entry, path.replaceAll(/\[(\d+)\]/g, '.$1'));
}
