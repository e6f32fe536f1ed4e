// What is wanted, as the matrix on screen cycles through it.
import type { RouteView } from '../api/client.svelte';

type Goals = RouteView['goals'];
export type Weight = 'must' | 'wish' | null;

export function weightOf(goals: Goals, quad: string, goggles: string): Weight {
  const want = goals.wants?.find((w) => w.quad === quad && w.goggles === goggles);
  return want ? (want.weight === 'must' ? 'must' : 'wish') : null;
}

/** The goals with one want set; null takes it out. */
export function withWant(goals: Goals, quad: string, goggles: string, weight: Weight): Goals {
  const wants = (goals.wants ?? []).filter((w) => w.quad !== quad || w.goggles !== goggles);
  const controller = controllerOf(goals, quad) || undefined;
  return { ...goals, wants: weight ? [...wants, { quad, goggles, controller, weight }] : wants };
}

/** The controller asked for with a quad, 'separate' for a receiver; empty: as planned. */
export function controllerOf(goals: Goals, quad: string): string {
  return goals.wants?.find((w) => w.quad === quad)?.controller ?? '';
}

/** The goals with one controller for all that is wanted of a quad. */
export function withController(goals: Goals, quad: string, controller: string): Goals {
  const wants = (goals.wants ?? []).map((w) => (w.quad === quad ? { ...w, controller: controller || undefined } : w));
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
