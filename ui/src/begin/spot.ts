// Where the fields of a missing value stand: the entry, or the entry of a list, they are
// below, and how a change there comes back to the whole.
import type { Entry } from '../shelf/entry';
import { valueAt, withValue } from '../shelf/entry';
import type { Field } from '../shelf/forms';

export interface Spot {
  fields: Field[];
  entry: Entry;
  base: string; // the path of entry below the whole, as the program names it in errors
  put: (entry: Entry) => Entry;
}

/**
 * The fields at a path as gates name it: one value, all those of an object, or those of one
 * entry of a list. An entry that is not there yet is made; the list itself where nobody can
 * tell which.
 */
export function spotAt(fields: readonly Field[], entry: Entry, path: string): Spot | undefined {
  const inside = fields.filter((f) => f.path === path || f.path.startsWith(path + '.'));
  if (inside.length > 0) return { fields: inside, entry, base: '', put: (to) => to };
  const list = fields.find((f) => path.startsWith(f.path + '.'));
  if (!list) return undefined;
  const whole: Spot = { fields: [list], entry, base: '', put: (to) => to };
  if (list.type !== 'list') return whole;
  const items = (valueAt(entry, list.path) as Entry[] | undefined) ?? [];
  const [key = '', ...rest] = path.slice(list.path.length + 1).split('.');
  const name = (list.fields ?? []).find((f) => f.required)?.path ?? 'id';
  const at = items.findIndex((item) => String(item[name]) === key);
  const number = list.fields?.find((f) => f.path === name)?.type === 'number';
  const item: Entry = items[at] ?? { [name]: number ? Number(key) : key };
  const others = (list.fields ?? []).filter((f) => f.path !== name);
  const below =
    rest.length > 0
      ? spotAt(list.fields ?? [], item, rest.join('.'))
      : { fields: others.slice(0, 1), entry: item, base: '', put: (to: Entry) => to };
  if (!below) return whole;
  const place = at < 0 ? items.length : at;
  return {
    fields: below.fields,
    entry: below.entry,
    base: `${list.path}[${place}].${below.base}`,
    put: (to) => withValue(entry, list.path, [...items.slice(0, place), below.put(to), ...items.slice(place + 1)]),
  };
}

/** The place of a quad's picture a missing value belongs to, where it is one. */
export function slotOf(field: string): string | undefined {
  const slots: Record<string, string> = {
    airUnit: 'airUnit',
    goggles: 'goggles',
    controller: 'controller',
    receiver: 'receiver',
    board: 'board',
    pack: 'pack',
    runs: 'firmware',
    'antennas.models': 'antennas',
    antennas: 'antennas',
    frame: 'frame',
    camera: 'camera',
  };
  return slots[field.replace(/^(now|next)\./, '')];
}
