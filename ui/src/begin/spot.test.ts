import { describe, expect, it } from 'vitest';
import type { Field } from '../shelf/forms';
import { slotOf, spotAt } from './spot';

const field = (path: string, type: Field['type'], more: Partial<Field> = {}): Field => ({
  path,
  label: path,
  type,
  required: false,
  rare: false,
  whole: false,
  numbers: false,
  ...more,
});
const fields = [
  field('input.minV', 'number'),
  field('input.maxV', 'number'),
  field('plug.connector', 'ref'),
  field('plug.pins', 'pins'),
  field('uarts', 'list', {
    fields: [field('id', 'number', { required: true }), field('hardware', 'yesno'), field('invert', 'pick')],
  }),
  field('feeds', 'list', {
    fields: [field('to', 'text', { required: true }), field('from', 'text', { required: true })],
  }),
];

describe('where a missing value stands', () => {
  it('is one field, or all of an object', () => {
    expect(spotAt(fields, {}, 'input.maxV')?.fields.map((f) => f.path)).toEqual(['input.maxV']);
    expect(spotAt(fields, {}, 'plug')?.fields.map((f) => f.path)).toEqual(['plug.connector', 'plug.pins']);
    expect(spotAt(fields, {}, 'wings')).toBeUndefined();
  });
  it('is in the entry of a list that its name says', () => {
    const board = { uarts: [{ id: 1 }, { id: 4, invert: 'none' }] };
    const spot = spotAt(fields, board, 'uarts.4.hardware');
    expect(spot?.fields.map((f) => f.path)).toEqual(['hardware']);
    expect(spot?.base).toBe('uarts[1].');
    expect(spot?.put({ ...spot.entry, hardware: true })).toEqual({
      uarts: [{ id: 1 }, { id: 4, invert: 'none', hardware: true }],
    });
  });
  it('makes the entry that is not there yet', () => {
    const spot = spotAt(fields, { name: 'x' }, 'feeds.airUnit');
    expect(spot?.fields.map((f) => f.path)).toEqual(['from']);
    expect(spot?.put({ ...spot.entry, from: 'pack' })).toEqual({ name: 'x', feeds: [{ to: 'airUnit', from: 'pack' }] });
    expect(spotAt(fields, {}, 'uarts.2.invert')?.put({ id: 2, invert: 'pad' })).toEqual({
      uarts: [{ id: 2, invert: 'pad' }],
    });
  });
  it('knows the places of the picture', () => {
    expect(slotOf('next.runs')).toBe('firmware');
    expect(slotOf('now.antennas.models')).toBe('antennas');
    expect(slotOf('next.antennas.carbonMM')).toBeUndefined();
  });
});
