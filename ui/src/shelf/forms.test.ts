import { describe, expect, it } from 'vitest';
import { asked, controlID, locate, whole, within, withIDs, type Field } from './forms';

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
  const of = {
    entry: (id: string) => shelf[id],
    ofKind: (kind: string) => (kind === 'flightFirmware' ? [shelf.tansy!] : []),
  };
  it('is found beside the field, further out, through a piece of kit, or in the entry itself', () => {
    expect(
      within(field('now.bay', { picks: [{ from: 'frame', list: 'bays' }] }), { now: { frame: 'frame5' } }, '', of),
    ).toEqual([
      { value: 'rear', name: 'Rear bay' },
      { value: 'mid', name: 'mid' },
    ]);
    expect(
      within(
        field('now.goggles.mode', { picks: [{ from: 'kit', list: 'modes' }] }),
        { now: { goggles: { kit: 'my-goggles' } } },
        '',
        of,
      ),
    ).toEqual([{ value: 'first', name: 'First' }]);
    expect(
      within(
        field('id', { picks: [{ from: 'runs.id', list: 'elements' }] }),
        { now: { runs: { id: 'tansy' } } },
        'now.osd.elements[0].',
        of,
      ),
    ).toEqual([{ value: 'crosshair', name: 'crosshair' }]);
    expect(
      within(
        field('mode', { picks: [{ from: 'runs.id', list: 'modes' }] }),
        { now: { runs: { id: 'tansy' } } },
        'now.sticks.switches[0].',
        of,
      ),
    ).toEqual([
      { value: 'arm', name: 'arm' },
      { value: 'return-home', name: 'return home' },
    ]);
    expect(
      within(field('from', { picks: [{ list: 'modes' }] }), { modes: [{ id: 'a' }] }, 'modeSwitch[0].', of),
    ).toEqual([{ value: 'a', name: 'a' }]);
    expect(within(field('now.bay', { picks: [{ from: 'frame', list: 'bays' }] }), {}, '', of)).toEqual([]);
  });

  it('is taken of every entry of a kind, of lists beside the field, with what stands before it, and named by its model', () => {
    expect(within(field('builtIn', { picks: [{ kind: 'flightFirmware', list: 'elements' }] }), {}, '', of)).toEqual([
      { value: 'crosshair', name: 'crosshair' },
    ]);
    const fit = { now: { board: 'f7', parts: [{ id: 'gps', model: 'goggles-c' }], feeds: [{}] } };
    const shelf = {
      ...of,
      entry: (id: string) =>
        id === 'f7' ? { pads: [{ id: '5v', name: '5 V pad' }], uarts: [{ id: 4 }] } : { name: 'A satellite compass' },
    };
    const picks = [
      { choice: { value: 'pack', name: 'the pack' } },
      { from: 'board', list: 'pads', before: 'board.' },
      { from: 'board', list: 'uarts', before: 'tx' },
      { list: 'parts' },
    ];
    expect(within(field('from', { picks }), fit, 'now.feeds[0].', shelf)).toEqual([
      { value: 'pack', name: 'the pack' },
      { value: 'board.5v', name: '5 V pad' },
      { value: 'tx4', name: 'tx4' },
      { value: 'gps', name: 'A satellite compass' },
    ]);
  });
});

describe('ids in lists', () => {
  const pads = field('pads', { type: 'list', makes: 'name', taken: ['pack'], fields: [field('name'), field('outV')] });
  it('are made once from what a thing is called, and free among all beside it', () => {
    const named = (...names: string[]) => names.map((name) => ({ name }));
    const ids = (items: Record<string, unknown>[], beside: string[] = []) =>
      withIDs(pads, items, beside).map((item) => item.id);
    expect(ids(named('9 V pad', '4.5 V', 'Pack', 'rear LEDs', 'Rear LEDs'))).toEqual([
      '9v',
      '4v5',
      'pack-2',
      'rear-leds',
      'rear-leds-2',
    ]);
    expect(ids(named('gps'), ['gps'])).toEqual(['gps-2']);
    expect(ids([{ id: 'old', name: 'New name' }, { outV: 5 }])).toEqual(['old', undefined]);
  });
  it('are there for all that is saved, whatever was left empty', () => {
    expect(whole([pads], { pads: [{ outV: 5 }, { outV: 9 }] })).toEqual({
      pads: [
        { id: 'pads', outV: 5 },
        { id: 'pads-2', outV: 9 },
      ],
    });
    const turns = field('inTurn', { type: 'list', fields: [pads] });
    expect(whole([turns], { inTurn: [{ id: 'day', pads: [{ name: 'x' }] }] })).toEqual({
      inTurn: [{ id: 'day', pads: [{ id: 'x', name: 'x' }] }],
    });
  });
});
