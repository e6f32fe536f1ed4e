import { describe, expect, it } from 'vitest';
import { asked, controlID, locate, within, type Field } from './forms';

const field = (path: string, more: Partial<Field> = {}): Field => ({
  path,
  label: path,
  type: 'text',
  required: false,
  rare: false,
  whole: false,
  numbers: false,
  ...more,
});

describe('finding a field', () => {
  const fields = [
    field('input.minV'),
    field('input.maxV'),
    field('pads', { type: 'list', fields: [field('id'), field('outV')] }),
    field('uarts', { type: 'list', fields: [field('id'), field('tx')] }),
  ];
  const entry = { pads: [{ id: '5v' }, { id: '10v' }], uarts: [{ id: 1 }, { id: 4 }] };
  it('leads to the value, to an entry of a list by its id, to the list where it is not there', () => {
    expect(locate(fields, entry, 'input.maxV')).toBe('input.maxV');
    expect(locate(fields, entry, 'input')).toBe('input.minV');
    expect(locate(fields, entry, 'pads.10v.outV')).toBe('pads[1].outV');
    expect(locate(fields, entry, 'pads.vbat')).toBe('pads');
    expect(locate(fields, entry, 'pads.vbat.outV')).toBe('pads');
    expect(locate(fields, entry, 'nothing')).toBeUndefined();
    expect(controlID('pads[1].outV')).toBe('field-pads-1-outV');
  });
});

describe('what is asked', () => {
  it('waits for what it hangs on, but never hides a value', () => {
    const f = field('outV', { onlyIf: { path: 'kind', is: 'regulated' } });
    expect(asked(f, {})).toBe(false);
    expect(asked(f, { kind: 'pack' })).toBe(false);
    expect(asked(f, { kind: 'regulated' })).toBe(true);
    expect(asked(f, { kind: 'pack', outV: 5 })).toBe(true);
    expect(asked(field('now.airUnit.model', { rare: true }), {})).toBe(false);
    expect(asked(field('now.airUnit.model', { rare: true }), { now: { airUnit: { model: 'x' } } })).toBe(true);
    expect(asked(field('a', { onlyIf: { path: 'b' } }), { b: 0 })).toBe(true);
  });
});

describe('what stands within another entry', () => {
  const shelf: Record<string, Record<string, unknown>> = {
    frame5: { bays: [{ id: 'rear', name: 'Rear bay' }, { id: 'mid' }] },
    'my-goggles': { model: 'goggles-c' },
    'goggles-c': { modes: [{ id: 'first', name: 'First' }] },
    tansy: { elements: [{ id: 'crosshair' }], modes: { arm: 0, 'return-home': 46 } },
  };
  const of = (id: string) => shelf[id];
  it('is found beside the field, further out, through a piece of kit, or in the entry itself', () => {
    expect(within(field('now.bay', { from: 'frame', list: 'bays' }), { now: { frame: 'frame5' } }, '', of)).toEqual([
      { value: 'rear', name: 'Rear bay' },
      { value: 'mid', name: 'mid' },
    ]);
    expect(
      within(
        field('now.goggles.mode', { from: 'kit', list: 'modes' }),
        { now: { goggles: { kit: 'my-goggles' } } },
        '',
        of,
      ),
    ).toEqual([{ value: 'first', name: 'First' }]);
    expect(
      within(
        field('id', { from: 'runs.id', list: 'elements' }),
        { now: { runs: { id: 'tansy' } } },
        'now.osd.elements[0].',
        of,
      ),
    ).toEqual([{ value: 'crosshair', name: 'crosshair' }]);
    expect(
      within(
        field('mode', { from: 'runs.id', list: 'modes' }),
        { now: { runs: { id: 'tansy' } } },
        'now.sticks.switches[0].',
        of,
      ),
    ).toEqual([
      { value: 'arm', name: 'arm' },
      { value: 'return-home', name: 'return home' },
    ]);
    expect(within(field('from', { list: 'modes' }), { modes: [{ id: 'a' }] }, 'modeSwitch[0].', of)).toEqual([
      { value: 'a', name: 'a' },
    ]);
    expect(within(field('now.bay', { from: 'frame', list: 'bays' }), {}, '', of)).toEqual([]);
  });
});
