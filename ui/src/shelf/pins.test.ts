import { describe, expect, it } from 'vitest';
import { knownRows, parseRow, straight, withPin, withUsual } from './pins';

describe('a row of pins as it is typed', () => {
  it('takes a whole row at once, a dash for an empty slot', () => {
    expect(parseRow('10v, ground, tx4,rx4, -')).toEqual(['10v', 'ground', 'tx4', 'rx4', '']);
    expect(withPin(['', '', ''], 1, 'tx1, rx1, ground')).toEqual(['', 'tx1', 'rx1', 'ground']);
    expect(withPin(['a', 'b'], 0, ' c ')).toEqual(['c', 'b']);
  });
  it('makes a straight cable from its colours and keeps crossings', () => {
    expect(straight(['red', '', 'white'], false, [{ from: 3, to: 4, awg: 28 }])).toEqual([
      { from: 1, to: 1, colour: 'red' },
      { from: 3, to: 4, colour: 'white', awg: 28 },
    ]);
    expect(straight(['red'], true, [])[0]?.to).toBeUndefined();
  });
});

describe('orders of pins that are known', () => {
  const of = (name: string, ...pins: string[]) => ({ name, entry: { pins } });
  const rowsOf = (e: unknown) => [(e as { pins: string[] }).pins];
  it('has each once, the one most have first', () => {
    const rows = knownRows(
      [of('A', 'supply', 'ground'), of('B', 'ground', 'supply'), of('C', 'ground', 'supply')],
      rowsOf,
      [],
    );
    expect(rows).toEqual([
      { pins: ['ground', 'supply'], of: ['B', 'C'] },
      { pins: ['supply', 'ground'], of: ['A'] },
    ]);
  });
  it('leaves out what the pins here cannot be, and single pins', () => {
    expect(knownRows([of('A', 'supply', 'sda'), of('B', 'supply')], rowsOf, ['supply', 'ground'])).toEqual([]);
    expect(knownRows([of('A', 'supply', '')], rowsOf, ['supply'])).toHaveLength(1);
  });
});

describe('usual orders', () => {
  it('stand behind those that are known, each once', () => {
    const known = [{ pins: ['supply', 'ground'], of: ['One'] }];
    expect(
      withUsual(
        [
          ['supply', 'ground'],
          ['ground', 'supply'],
        ],
        known,
      ),
    ).toEqual([...known, { pins: ['ground', 'supply'], of: [], usual: true }]);
  });
});
