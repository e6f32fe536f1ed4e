import { describe, expect, it } from 'vitest';
import { fixed, moment, money, signed } from './words';

describe('words for values', () => {
  it('writes numbers as the sentences of the program do', () => {
    expect(fixed(1234.5, 2)).toBe('1234.50');
    expect(fixed(-0.3, 1)).toBe('−0.3');
    expect(signed(0.04, 1)).toBe('±0.0');
    expect(signed(-2, 1)).toBe('−2.0');
    expect(signed(2.25, 2)).toBe('+2.25');
    expect(money(3, 'EUR')).toBe('3.00 EUR');
  });
  it('writes a moment as a day and a time, and what is none as it is', () => {
    expect(moment('2026-05-12T14:05:00')).toBe('2026-05-12 14:05');
    expect(moment('soon')).toBe('soon');
  });
});
