// What is held side by side of each candidate, in words. Core says in which order they come.
import type { Candidate } from '../api/client.svelte';
import { fixed, money, signed } from '../lib/words';

export interface Side {
  id: string;
  title: string;
  says: (c: Candidate) => string;
}

const unknown = 'not known';

export const best = (c: Candidate) => c.found.plans[0] ?? c.found.hanging[0];

export const has = (c: Candidate) => c.key === 'leave' || best(c) !== undefined || c.ready !== undefined;

/** What is to be paid, with what has no price. */
export function price(c: Candidate): string {
  if (c.key === 'leave') return 'nothing';
  if (c.ready) {
    const { price: new_, used, currency } = c.ready;
    const words = [
      new_ !== undefined ? money(new_, currency) : '',
      used !== undefined ? `used ${money(used, currency)}` : '',
    ];
    return words.filter(Boolean).join(', ') || 'no price stated';
  }
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
  },
  {
    id: 'price',
    title: 'to pay',
    says: price,
  },
  {
    id: 'mass',
    title: 'mass',
    says: (c) => (c.outcome.massG === undefined ? unknown : `${signed(c.outcome.massG, 1)} g`),
  },
  {
    id: 'hover',
    title: 'hover time',
    says: (c) => {
      const { hoverMin, flightTime } = c.outcome;
      if (hoverMin !== undefined) return `${fixed(hoverMin, 1)} min`;
      return flightTime === undefined ? unknown : times(flightTime);
    },
  },
  {
    id: 'front',
    title: 'range ahead',
    says: (c) => (front(c) === undefined ? unknown : times(front(c)!)),
  },
  {
    id: 'behind',
    title: 'behind',
    says: (c) => (behind(c) === undefined ? unknown : times(behind(c)!)),
  },
  {
    id: 'bitrate',
    title: 'bit rate',
    says: (c) => (c.outcome.bitrateMbps === undefined ? unknown : `${fixed(c.outcome.bitrateMbps, 0)} Mb/s`),
  },
  {
    id: 'bench',
    title: 'at the bench',
    says: (c) => {
      const { bench } = c.outcome;
      if (c.ready) return 'to be looked at';
      if (!bench) return c.key === 'leave' ? 'nothing to do' : unknown;
      const sum = `${Math.floor(bench.minutes / 60)} h ${String(bench.minutes % 60).padStart(2, '0')}`;
      return bench.guessed === bench.minutes ? `${sum}, guessed` : bench.guessed > 0 ? `${sum}, in part guessed` : sum;
    },
  },
  {
    id: 'lag',
    title: 'sticks late by',
    says: (c) => (c.outcome.sticksLagMS === undefined ? unknown : `${fixed(c.outcome.sticksLagMS, 0)} ms`),
  },
];

/** In the order of a side. */
export function sorted(list: Candidate[], by: string): Candidate[] {
  const side = sides.some((s) => s.id === by) ? by : 'gate';
  return list.toSorted((a, b) => (a.ranks[side] ?? 0) - (b.ranks[side] ?? 0));
}

export function origin(c: Candidate): string {
  if (c.key === 'leave') return 'as it flies';
  return (
    { today: 'on it today', owned: 'owned', elsewhere: `on ${c.from}`, 'to-buy': 'to buy', ready: 'bought ready-made' }[
      c.origin
    ] ?? c.origin
  );
}
