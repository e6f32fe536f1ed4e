import { describe, expect, it } from 'vitest';
import { cornersText, outlinePath, parseCorners } from './corners';

describe('corners of an outline', () => {
  it('reads two numbers a line, however they are apart', () => {
    const corners = [
      { xMM: -60, yMM: -20 },
      { xMM: 60.5, yMM: -20 },
      { xMM: 0, yMM: 20.25 },
    ];
    expect(parseCorners('-60 -20\n60.5; -20\n\n 0, 20.25 \n').corners).toEqual(corners);
    expect(parseCorners(cornersText(corners)).corners).toEqual(corners);
    expect(parseCorners('60,5 3').corners).toEqual([{ xMM: 60.5, yMM: 3 }]);
    expect(parseCorners(' \n')).toEqual({});
  });
  it('says which line is wrong', () => {
    expect(parseCorners('1 2\n3').wrong).toContain('Line 2');
    expect(parseCorners('1 2\n3 4 5').wrong).toContain('“3 4 5”');
    expect(parseCorners('1 up').wrong).toContain('Line 1');
  });
  it('draws forward up', () => {
    const triangle = [
      { xMM: 1, yMM: 2 },
      { xMM: 3, yMM: 4 },
      { xMM: 5, yMM: -6 },
    ];
    expect(outlinePath([triangle])).toBe('M-2 -1L-4 -3L6 -5Z');
  });
});
