import { describe, expect, it } from 'vitest';
import { next, weightOf, withValue, withWant } from './goals';

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
  it('takes a feature in once and out again', () => {
    expect(withValue(withValue(goals, 'flip', true), 'flip', true).values).toEqual(['recording', 'flip']);
    expect(withValue(goals, 'recording', false).values).toEqual([]);
  });
});
