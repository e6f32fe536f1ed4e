import { describe, expect, it } from 'vitest';
import { inUnit } from './units';

describe('numbers in the units people use', () => {
  it.each([
    ['16.8V', 'V', 16.8],
    ['16,8 v', 'V', 16.8],
    ['2S', 'cells', 2],
    ['1/2 in', 'mm', 12.7],
    ['1"', 'mm', 25.4],
    ['3 cm', 'mm', 30],
    ['30 dBm', 'mW', 1000],
    ['27dBm', 'mW', 501.1872336],
    ['1.2 W', 'mW', 1200],
    ['1 W', 'mW EIRP', 1000],
    ['92 %', '0 to 1', 0.92],
    ['1.1 Ah', 'mAh', 1100],
    ['-94 dBm', 'dBm', -94],
    ['5.8 GHz', 'MHz', 5800],
    ['4 mOhm', 'mΩ', 4],
    ['7', 'mm', 7],
    ['7', '', 7],
    ['.5', 'mm', 0.5],
    ['5.', 'mm', 5],
    [',5 mm', 'mm', 0.5],
  ])('%s in %s', (text, unit, value) => expect(inUnit(text, unit)).toBe(value));

  it.each([
    ['2S', 'V'],
    ['3 g', 'mm'],
    ['seven', 'mm'],
    ['1/0 in', 'g'],
    ['', 'mm'],
  ])('%s is no number of %s', (text, unit) => expect(inUnit(text, unit)).toBeUndefined());
});
