import { describe, expect, it } from 'vitest';
import { wireColour } from './wirecolours';

describe('the colours of wires', () => {
  it('knows them however written, and draws others grey', () => {
    expect(wireColour('Red')).toBe(wireColour('red'));
    expect(wireColour('grey')).toBe(wireColour('gray'));
    expect(wireColour('mauve')).toBe(wireColour(undefined));
    expect(wireColour('red')).not.toBe(wireColour('orange'));
  });
});
