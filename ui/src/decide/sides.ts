// What is held side by side of each candidate, in words, with the number it is sorted by.
// What is not known comes last, whichever way a row is sorted.
import type { Candidate } from '../api/client.svelte';
import { levelOf } from '../lib/levels';
import { fixed, money, signed } from '../lib/words';

export interface Side {
  id: string;
  title: string;
  says: (c: Candidate) => string;
  /** What it is sorted by, the best first; undefined: not known. */
  by: (c: Candidate) => number | undefined;
}

const unknown = 'not known';
const order = ['fits', 'caution', 'change', 'unknown', 'unfit'];

export const best = (c: Candidate) => c.found.plans[0] ?? c.found.hanging[0];

export const has = (c: Candidate) => c.key === 'leave' || best(c) !== undefined;

/** What is to be paid, with what has no price. */
export function price(c: Candidate): string {
  if (c.key === 'leave') return 'nothing';
  const cost = best(c)?.cost;
  if (!cost) return '—';
  const sum = cost.price > 0 ? money(cost.price, cost.currency ?? '') : 'nothing';
  const parts = cost.unpriced ?? 0;
  if (parts === 0) return sum;
  return `${cost.price > 0 ? `${sum} and ` : ''}${parts} ${parts === 1 ? 'part' : 'parts'} without a price`;
}

const times = (x: number) => `${fixed(x, 2)} ×`;

const front = (c: Candidate) => c.outcome.bands.find((b) => b.front !== undefined)?.front;
const behind = (c: Candidate) => c.outcome.bands.find((b) => b.behind !== undefined)?.behind;

export const sides: Side[] = [
  {
    id: 'gate',
    title: 'worst gate',
    says: () => '',
    by: (c) =>
      (has(c) ? 0 : 10) + (c.found.plans.length > 0 || c.key === 'leave' ? 0 : 5) + order.indexOf(levelOf(c.level)),
  },
  {
    id: 'price',
    title: 'to pay',
    says: price,
    by: (c) => {
      if (c.key === 'leave') return 0;
      const cost = best(c)?.cost;
      return cost && (cost.unpriced ?? 0) * 1e6 + cost.price;
    },
  },
  {
    id: 'mass',
    title: 'mass',
    says: (c) => (c.outcome.massG === undefined ? unknown : `${signed(c.outcome.massG, 1)} g`),
    by: (c) => c.outcome.massG,
  },
  {
    id: 'hover',
    title: 'hover time',
    says: (c) => {
      const { hoverMin, flightTime } = c.outcome;
      if (hoverMin !== undefined) return `${fixed(hoverMin, 1)} min`;
      return flightTime === undefined ? unknown : times(flightTime);
    },
    by: (c) => (c.outcome.flightTime === undefined ? undefined : -c.outcome.flightTime),
  },
  {
    id: 'front',
    title: 'range ahead',
    says: (c) => (front(c) === undefined ? unknown : times(front(c)!)),
    by: (c) => (front(c) === undefined ? undefined : -front(c)!),
  },
  {
    id: 'behind',
    title: 'behind',
    says: (c) => (behind(c) === undefined ? unknown : times(behind(c)!)),
    by: (c) => (behind(c) === undefined ? undefined : -behind(c)!),
  },
  {
    id: 'bitrate',
    title: 'bit rate',
    says: (c) => (c.outcome.bitrateMbps === undefined ? unknown : `${fixed(c.outcome.bitrateMbps, 0)} Mb/s`),
    by: (c) => (c.outcome.bitrateMbps === undefined ? undefined : -c.outcome.bitrateMbps),
  },
  {
    id: 'lag',
    title: 'sticks late by',
    says: (c) => (c.outcome.sticksLagMS === undefined ? unknown : `${fixed(c.outcome.sticksLagMS, 0)} ms`),
    by: (c) => c.outcome.sticksLagMS,
  },
];

/** In order of a side; leaving it as it is comes first, what is not known last. */
export function sorted(list: Candidate[], by: string): Candidate[] {
  const side = sides.find((s) => s.id === by) ?? sides[0]!;
  const [first, ...rest] = list;
  if (!first) return [];
  const rank = (c: Candidate) => (has(c) ? (side.by(c) ?? 1e12) : 2e12);
  return [first, ...rest.toSorted((a, b) => rank(a) - rank(b) || sides[0]!.by(a)! - sides[0]!.by(b)!)];
}

export function origin(c: Candidate): string {
  if (c.key === 'leave') return 'as it flies';
  return { today: 'on it today', owned: 'owned', elsewhere: `on ${c.from}`, 'to-buy': 'to buy' }[c.origin] ?? c.origin;
}
