// Numbers as people write them, with a unit or without, in the unit they are stored in.

/** How many of the stored unit one of each written unit is. */
const scales: Record<string, Record<string, number>> = {
  mm: { mm: 1, cm: 10, m: 1000, in: 25.4, inch: 25.4, '"': 25.4, mil: 0.0254 },
  km: { km: 1, m: 0.001 },
  g: { g: 1, kg: 1000, mg: 0.001, oz: 28.349523125 },
  V: { v: 1, mv: 0.001 },
  A: { a: 1, ma: 0.001 },
  W: { w: 1, mw: 0.001 },
  mW: { mw: 1, w: 1000 },
  mAh: { mah: 1, ah: 1000 },
  Wh: { wh: 1, mwh: 0.001 },
  MHz: { mhz: 1, ghz: 1000 },
  s: { s: 1, ms: 0.001, min: 60 },
  ms: { ms: 1, s: 1000 },
  minutes: { min: 1, minutes: 1, h: 60 },
  µF: { µf: 1, uf: 1, mf: 1000, nf: 0.001 },
  mΩ: { mω: 1, mohm: 1, ω: 1000, ohm: 1000 },
  cells: { s: 1, cells: 1, cell: 1 },
  '°': { '°': 1, deg: 1 },
  '%': { '%': 1 },
  '0 to 1': { '%': 0.01 },
};

const written = /^([-+]?(?:\d+(?:[.,]\d*)?|[.,]\d+))(?:\/(\d+))?\s*(.*)$/;

/**
 * A number with the unit people use, in the unit that is stored; undefined where the unit is
 * another kind of thing. Without a unit it is taken as it stands. “1/2 in” is a fraction, a
 * power may be written in dBm.
 */
export function inUnit(text: string, unit = ''): number | undefined {
  const m = written.exec(text.trim());
  if (!m) return undefined;
  const value = Number(m[1]!.replace(',', '.')) / (m[2] ? Number(m[2]) : 1);
  const said = m[3]!.trim().toLowerCase();
  if (said === '' || said === unit.toLowerCase()) return value;
  if (said === 'dbm' && (unit === 'mW' || unit === 'W')) {
    return round(10 ** (value / 10) / (unit === 'W' ? 1000 : 1));
  }
  const scale = scales[unit.split(' ')[0] === '0' ? unit : (unit.split(' ')[0] ?? '')]?.[said];
  return scale === undefined ? undefined : round(value * scale);
}

/** Without the dust of binary fractions. */
const round = (x: number) => Number(x.toPrecision(10));
