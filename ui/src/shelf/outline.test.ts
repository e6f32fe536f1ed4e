import { describe, expect, it } from 'vitest';
import { kept, placeable, whole, withPad } from './outline';

describe('pads on an outline', () => {
  it('offers the pads of a board, and the pins of a part', () => {
    const board = {
      pads: [{ id: '5v', name: '5 V pad' }],
      uarts: [
        { id: 1, tx: true, rx: true },
        { id: 2, rx: true },
      ],
      signals: ['led'],
    };
    expect(placeable(board).map((p) => p.at)).toEqual(['ground', '5v', 'tx1', 'rx1', 'rx2', 'led']);
    expect(placeable({ plug: { pins: ['supply', '', 'ground'] } })).toEqual([
      { at: '1', words: 'pin 1, supply' },
      { at: '2', words: 'pin 2, empty' },
      { at: '3', words: 'pin 3, ground' },
    ]);
  });
  it('keeps a pad on the board, to a tenth of a millimetre', () => {
    expect(kept(-2, 30)).toBe(0);
    expect(kept(31, 30)).toBe(30);
    expect(kept(12.34, 30)).toBe(12.3);
  });
  it('takes out what is empty', () => {
    const one = { xMM: 30, yMM: 30, pads: [{ at: 'ground', xMM: 1, yMM: 1 }] };
    expect(withPad(one, 0, undefined)).toEqual({ xMM: 30, yMM: 30 });
    expect(withPad(one, 0, { at: 'tx1', xMM: 2, yMM: 2 })?.pads?.[0]?.at).toBe('tx1');
    expect(whole({})).toBeUndefined();
    expect(whole({ pads: [] })).toBeUndefined();
  });
});
