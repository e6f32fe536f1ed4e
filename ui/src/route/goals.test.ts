import { describe, expect, it } from 'vitest';
import { controllerOf, next, weightOf, withController, withValue, withWant } from './goals';

describe('what is wanted', () => {
  const goals = { wants: [{ quad: 'a', goggles: 'g', weight: 'must' }], values: ['recording'] };
  it('cycles and comes back', () => {
    expect(next(next(next(null)))).toBeNull();
  });
  it('sets, changes and takes out one want, leaving the others', () => {
    const two = withWant(goals, 'b', 'g', 'wish');
    expect(weightOf(two, 'a', 'g')).toBe('must');
    expect(weightOf(two, 'b', 'g')).toBe('wish');
    expect(withWant(two, 'a', 'g', null).wants).toEqual([{ quad: 'b', goggles: 'g', weight: 'wish' }]);
    expect(weightOf(goals, 'b', 'g')).toBeNull();
  });
  it('keeps one controller for all that is wanted of a quad', () => {
    const asked = withWant(withController(goals, 'a', 'separate'), 'a', 'h', 'wish');
    expect(asked.wants?.map((w) => w.controller)).toEqual(['separate', 'separate']);
    expect(controllerOf(withController(asked, 'a', ''), 'a')).toBe('');
    expect(controllerOf(asked, 'b')).toBe('');
  });
  it('wants a fit in turn apart from the quad that carries it', () => {
    const both = withWant(withWant({}, 'a', 'g', 'must'), 'a/old', 'g', 'wish');
    expect(both.wants).toEqual([
      { quad: 'a', goggles: 'g', weight: 'must' },
      { quad: 'a', turn: 'old', goggles: 'g', weight: 'wish' },
    ]);
    expect(weightOf(both, 'a/old', 'g')).toBe('wish');
    expect(controllerOf(withController(both, 'a/old', 'c'), 'a')).toBe('');
    expect(withWant(both, 'a', 'g', null).wants).toHaveLength(1);
  });
  it('takes a feature in once and out again', () => {
    expect(withValue(withValue(goals, 'flip', true), 'flip', true).values).toEqual(['recording', 'flip']);
    expect(withValue(goals, 'recording', false).values).toEqual([]);
  });
});
