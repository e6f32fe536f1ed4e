import { api, type Failure, type SheetFound } from '../api/client.svelte';

/** Copies what values name of the trade shelf, so that they can be taken; what hindered it, else null. */
export async function copyNamed(found: readonly SheetFound[]): Promise<Failure | null> {
  for (const f of found) {
    if (typeof f.value !== 'string' || !f.value.startsWith('trade-')) continue;
    const copied = await api.takeFromTrade(f.value);
    if (!copied.ok) return copied.failure;
  }
  return null;
}
