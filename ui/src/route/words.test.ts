import { describe, expect, it } from 'vitest';
import type { RouteStep } from '../api/client.svelte';
import { capital, moveOf } from './words';

const step = (part: Partial<RouteStep>) => ({ do: 'update', ...part }) as RouteStep;

describe('a step of the route in few words', () => {
  it('says what it changes', () => {
    expect(moveOf(step({ from: '4.1', to: '4.4' }))).toBe('4.1 → 4.4');
    expect(moveOf(step({ to: '4.4' }))).toBe('? → 4.4');
    expect(moveOf(step({ do: 'mode', modeName: 'Second' }))).toBe('to mode Second');
    expect(moveOf(step({ do: 'activate' }))).toBe('activate');
  });
  it('begins a sentence', () => {
    expect(capital('put 4.4 on it')).toBe('Put 4.4 on it');
    expect(capital('')).toBe('');
  });
});
