// Corners of an outline as a builder writes them down: two numbers a line.
import { parseNumber } from './entry';

export interface Corner {
  xMM: number;
  yMM: number;
}

export const cornersText = (corners: readonly Corner[]) => corners.map((c) => `${c.xMM} ${c.yMM}`).join('\n');

/** Corners from lines of two numbers, apart by a space, a semicolon or a comma with a space. */
export function parseCorners(text: string): { corners?: Corner[]; wrong?: string } {
  const corners: Corner[] = [];
  for (const [i, line] of text.split('\n').entries()) {
    const words = line
      .split(/[\s;]+/)
      .map((w) => w.replace(/,$/, ''))
      .filter(Boolean);
    if (words.length === 0) continue;
    const [x, y] = words.map((w) => parseNumber(w, false, 'mm').value);
    if (words.length !== 2 || typeof x !== 'number' || typeof y !== 'number')
      return { wrong: `Line ${i + 1}: expected two numbers, x and y, got “${line.trim()}”.` };
    corners.push({ xMM: x, yMM: y });
  }
  return corners.length > 0 ? { corners } : {};
}

/** Outlines as the path of a drawing, forward up and the left at the left. */
export const outlinePath = (outlines: readonly (readonly Corner[])[]) =>
  outlines.map((o) => o.map((c, i) => `${i === 0 ? 'M' : 'L'}${-c.yMM} ${-c.xMM}`).join('') + 'Z').join('');
