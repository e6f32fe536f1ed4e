// Readings as people type them: a comma counts as a point. Whether a reading
// keeps its limits is judged by the server.

/** The number typed, or null where it is none. */
export function readNumber(text: string): number | null {
  const plain = text.trim().replace(',', '.');
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain)) return null;
  const value = Number(plain);
  return Number.isFinite(value) ? value : null;
}

/** Seconds as minutes and seconds: 95 is "1:35". */
export function clock(seconds: number): string {
  const s = Math.max(0, Math.ceil(seconds));
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
}
