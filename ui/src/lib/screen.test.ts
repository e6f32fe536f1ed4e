import { describe, expect, it } from 'vitest';
import { failureOf } from '../api/client.svelte';
import { clock, readNumber } from '../bench/reading';
import { reachWords } from '../fleet/reach';
import { shortVolts, voltageScale } from './scale';
import { levelOf } from './levels';

describe('levels', () => {
  it('shows a level it does not know as unknown, never as good', () => {
    expect(levelOf('fits')).toBe('fits');
    expect(levelOf('splendid')).toBe('unknown');
    expect(levelOf('')).toBe('unknown');
  });
});

describe('readings', () => {
  it('reads what a meter shows', () => {
    expect(readNumber('12,6')).toBe(12.6);
    expect(readNumber(' .5')).toBe(0.5);
    expect(readNumber('-3')).toBe(-3);
    for (const bad of ['', ' ', 'OL', '1e5', '1.2.3', '--4', 'Infinity']) expect(readNumber(bad)).toBeNull();
  });
  it('counts down in minutes and seconds', () => {
    expect(clock(95)).toBe('1:35');
    expect(clock(-4)).toBe('0:00');
  });
});

describe('the voltage scale', () => {
  it('ends on a round voltage above the highest and starts at zero', () => {
    for (const highest of [4.35, 5, 12.6, 25.2, 50.4]) {
      const x = voltageScale(highest, 600);
      const ticks = x.ticks(6);
      expect(ticks[0]).toBe(0);
      expect(ticks.at(-1)).toBeGreaterThanOrEqual(highest);
      expect(ticks.length).toBeLessThanOrEqual(11);
      expect(x(0)).toBe(0);
      expect(x(ticks.at(-1)!)).toBeCloseTo(600);
    }
  });
  it('prints volts as a meter does', () => {
    expect([25.2, 4.35, 5, 3.367].map(shortVolts)).toEqual(['25.2', '4.35', '5.0', '3.37']);
  });
});

describe('the board', () => {
  const reach = { goggles: 'g', says: '', swap: false, updates: 0 };
  it('says how far a pair of goggles is away', () => {
    expect(reachWords({ ...reach, reach: 'now' })).toBe('now');
    expect(reachWords({ ...reach, reach: 'now', swap: true })).toBe('after swap');
    expect(reachWords({ ...reach, reach: 'after', updates: 1 })).toBe('1 update');
    expect(reachWords({ ...reach, reach: 'after', updates: 3 })).toBe('3 updates');
    expect(reachWords({ ...reach, reach: 'after' })).toBe('mode switch');
    expect(reachWords({ ...reach, reach: 'never' })).toBe('never');
    expect(reachWords({ ...reach, reach: 'something new' })).toBe('unknown');
  });
});

describe('failures', () => {
  it('keeps what the server said, and what it did not say', () => {
    expect(failureOf(422, { detail: 'no', errors: [{ location: 'a.b', message: 'c' }] }).wrong).toEqual([
      { location: 'a.b', message: 'c' },
    ]);
    expect(failureOf(500, undefined).detail).toContain('500');
    expect(failureOf(409, { detail: 'held' }).conflict).toBeUndefined();
    expect(failureOf(409, { revision: 3, differences: [] }).conflict).toEqual({ revision: 3, differences: [] });
  });
});
