// What is wanted, as the matrix on screen cycles through it.
import type { RouteView } from '../api/client.svelte';

type Goals = RouteView['goals'];
export type Weight = 'must' | 'wish' | null;

type Want = NonNullable<Goals['wants']>[number];

/** The row a want stands in: its quad, or a fit that quad carries in turn. */
export function rowOf(want: Want): string {
  return want.turn ? `${want.quad}/${want.turn}` : want.quad;
}

/** The quad of a row, and the fit in turn where the row is one. */
function ofRow(row: string): Pick<Want, 'quad' | 'turn'> {
  const [quad = '', turn] = row.split('/');
  return turn === undefined ? { quad } : { quad, turn };
}

export function weightOf(goals: Goals, row: string, goggles: string): Weight {
  const want = goals.wants?.find((w) => rowOf(w) === row && w.goggles === goggles);
  return want ? (want.weight === 'must' ? 'must' : 'wish') : null;
}

/** The goals with one want set; null takes it out. */
export function withWant(goals: Goals, row: string, goggles: string, weight: Weight): Goals {
  const wants = (goals.wants ?? []).filter((w) => rowOf(w) !== row || w.goggles !== goggles);
  const controller = controllerOf(goals, row) || undefined;
  return { ...goals, wants: weight ? [...wants, { ...ofRow(row), goggles, controller, weight }] : wants };
}

/** The controller asked for with a quad, 'separate' for a receiver; empty: as planned. */
export function controllerOf(goals: Goals, row: string): string {
  return goals.wants?.find((w) => rowOf(w) === row)?.controller ?? '';
}

/** The goals with one controller for all that is wanted of a quad. */
export function withController(goals: Goals, row: string, controller: string): Goals {
  const wants = (goals.wants ?? []).map((w) => (rowOf(w) === row ? { ...w, controller: controller || undefined } : w));
  return { ...goals, wants };
}

/** Not needed, then a wish, then a must, then not needed again. */
export function next(weight: Weight): Weight {
  return weight === null ? 'wish' : weight === 'wish' ? 'must' : null;
}

/** The goals with a feature that matters, or without it. */
export function withValue(goals: Goals, feature: string, on: boolean): Goals {
  const values = (goals.values ?? []).filter((v) => v !== feature);
  return { ...goals, values: on ? [...values, feature] : values };
}
