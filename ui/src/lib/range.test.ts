import { describe, expect, it } from 'vitest';
import { rangeOf, spanOf } from './range';

describe('ranges over a row of releases', () => {
  const row = ['1.0', '1.0.6', '1.1'];
  it('says what is dragged', () => {
    expect(rangeOf(row, 0, 2)).toBe('<=1.0.6');
    expect(rangeOf(row, 3, 4)).toBe('>=1.1');
    expect(rangeOf(row, 1, 2)).toBe('>=1.0 <=1.0.6');
    expect(rangeOf(row, 2, 2)).toBe('1.0.6');
    expect(rangeOf(row, 0, 4)).toBe('');
    expect(rangeOf(row, 4, 4)).toBe('>1.1');
    expect(rangeOf(row, 0, 0)).toBe('<1.0');
  });
  it('finds back what it said, and nothing else', () => {
    for (let from = 0; from <= 4; from++)
      for (let to = from; to <= 4; to++) expect(spanOf(row, rangeOf(row, from, to))).toEqual([from, to]);
    expect(spanOf(row, '<2')).toBeNull();
    expect(spanOf(row, '*')).toEqual([0, 4]);
  });
});
