import type { BoardKept } from '../api/client.svelte';
import { moment } from '../lib/words';

/** What kept settings are called in a list to choose from. */
export const keptName = (k: BoardKept) => (k.name ? `${k.name} (${moment(k.at)})` : `kept ${moment(k.at)}, ${k.why}`);
