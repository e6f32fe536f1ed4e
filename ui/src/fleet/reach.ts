// How a goggles' answer reads on the board.
import type { Row } from '../api/client.svelte';

type Reach = Row['goggles'][number];

export function reachWords(r: Reach): string {
  switch (r.reach) {
    case 'now':
      return r.swap ? 'after swap' : 'now';
    case 'after':
      return !r.updates ? 'mode switch' : `${r.updates} update${r.updates === 1 ? '' : 's'}`;
    case 'never':
      return 'never';
    default:
      return 'unknown';
  }
}
