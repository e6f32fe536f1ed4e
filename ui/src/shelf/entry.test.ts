import { describe, expect, it } from 'vitest';
import {
  fromOthers,
  heldAgainst,
  heldAgainstOwn,
  idFor,
  parseNumber,
  parseWords,
  takeable,
  valueAt,
  withRead,
  withSource,
  withValue,
} from './entry';

describe('values by path', () => {
  it('sets and reads a value, leaving the original alone', () => {
    const before = { input: { minV: 7 } };
    const after = withValue(before, 'input.maxV', 17);
    expect(after).toEqual({ input: { minV: 7, maxV: 17 } });
    expect(before).toEqual({ input: { minV: 7 } });
    expect(valueAt(after, 'input.maxV')).toBe(17);
    expect(valueAt(after, 'no.such.path')).toBeUndefined();
  });
  it('takes an emptied value out, and a group with nothing left in it', () => {
    expect(withValue({ id: 'a', input: { maxV: 17 } }, 'input.maxV', undefined)).toEqual({ id: 'a' });
    expect(withValue({ name: 'x' }, 'name', '')).toEqual({});
  });
  it('keeps no and zero, which are values', () => {
    expect(withValue({}, 'activation.needed', false)).toEqual({ activation: { needed: false } });
    expect(withValue({}, 'input.minV', 0)).toEqual({ input: { minV: 0 } });
  });
});

describe('what is typed', () => {
  it('reads numbers with a comma or a point, and refuses the rest', () => {
    expect(parseNumber('7,4')).toEqual({ value: 7.4 });
    expect(parseNumber(' 26.4 ')).toEqual({ value: 26.4 });
    expect(parseNumber('')).toEqual({});
    expect(parseNumber('six').wrong).toContain('not a number');
    expect(parseNumber('1e999').wrong).toContain('not a number');
    expect(parseNumber('3.5', true).wrong).toContain('whole');
  });
  it('reads words', () => {
    expect(parseWords(' a, b ,,c ')).toEqual(['a', 'b', 'c']);
    expect(parseWords(' , ')).toBeUndefined();
  });
  it('makes ids that the format takes and that are free', () => {
    expect(idFor('My Ünit (2nd)', new Set())).toBe('my-u-nit-2nd');
    expect(idFor('Two', new Set(['two', 'two-2']))).toBe('two-3');
    expect(idFor('…', new Set())).toMatch(/^[a-z0-9][a-z0-9-]{0,63}$/);
  });
});

describe('what is read off a sheet', () => {
  it('comes with its words, and lists grow', () => {
    const read = withRead(
      { id: 'u', mount: { patterns: [{ xMM: 20, yMM: 20 }] }, valueSources: { massG: { kind: 'measured' } } },
      [
        { field: 'input.maxV', value: 26.4, words: '7.4-26.4 V', joins: false },
        { field: 'mount.patterns', value: [{ xMM: 20, yMM: 20 }], words: '20 x 20 mm', joins: true }, // there already
        { field: 'mount.patterns', value: [{ xMM: 25.5, yMM: 25.5 }], words: '25.5 x 25.5 mm', joins: true },
      ],
    );
    expect(read.input).toEqual({ maxV: 26.4 });
    expect(read.mount).toEqual({
      patterns: [
        { xMM: 20, yMM: 20 },
        { xMM: 25.5, yMM: 25.5 },
      ],
    });
    expect(read.valueSources).toEqual({
      massG: { kind: 'measured' },
      'input.maxV': { kind: 'maker', text: '7.4-26.4 V' },
      'mount.patterns': { kind: 'maker', text: '25.5 x 25.5 mm' },
    });
    expect(withRead({ id: 'u' }, [])).toEqual({ id: 'u' });
  });

  it('waits for what it cannot be stated without', () => {
    const connector = { field: 'plug.connector', value: 'sh', words: 'SH', joins: false, with: ['plug.pins'] };
    const pins = { field: 'plug.pins', value: ['supply'], words: 'VCC', joins: false };
    expect(takeable({ id: 'u' }, [connector])).toEqual([]);
    expect(takeable({ id: 'u' }, [connector, pins])).toEqual([connector, pins]);
    expect(takeable({ id: 'u', plug: { pins: [] } }, [connector])).toEqual([connector]);
  });

  it('says once what an antenna gains on a band', () => {
    const read = withRead({ bands: [{ band: '2.4' }, { band: '5.8' }] }, [
      { field: 'bands', value: [{ band: '5.8', gainDBi: 2 }], words: '2 dBi', joins: true },
    ]);
    expect(read.bands).toEqual([{ band: '2.4' }, { band: '5.8', gainDBi: 2 }]);
  });

  it('is not made more of than it says itself, and what has an id takes the place of its like', () => {
    const read = withRead({ id: 'b', pads: [{ id: '5v' }, { id: '9v', outV: 9 }] }, [
      { field: 'source.kind', value: 'practice', words: 'source: common practice', joins: false },
      { field: 'pads', value: [{ id: '9v', outV: 9.2 }], words: 'pads', joins: true },
    ]);
    expect(read).toEqual({ id: 'b', pads: [{ id: '5v' }, { id: '9v', outV: 9.2 }], source: { kind: 'practice' } });
  });
});

describe('what a value rests on', () => {
  it("is practice until it is held against one's own, by its own source or its sheet's", () => {
    const sheet = { source: { kind: 'maker' }, plug: { pins: ['supply'] } };
    expect(heldAgainst(sheet, 'plug.pins')).toBeUndefined();
    const picked = withSource(sheet, 'plug.pins', fromOthers);
    expect(heldAgainst(picked, 'plug.pins')).toBe(false);
    expect(heldAgainst(withSource(picked, 'plug.pins', heldAgainstOwn), 'plug.pins')).toBe(true);
    expect(heldAgainst({ ...sheet, source: { kind: 'practice' } }, 'plug.pins')).toBe(false);
  });
});
