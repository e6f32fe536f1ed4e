// A step of the route in few words.
import type { RouteStep } from '../api/client.svelte';

/** What a step changes: "4.1 → 4.4", "to mode Second" or "activate". */
export function moveOf(step: RouteStep): string {
  switch (step.do) {
    case 'update':
      return `${step.from || '?'} → ${step.to}`;
    case 'mode':
      return `to mode ${step.modeName}`;
    default:
      return 'activate';
  }
}

export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
