import { api, type Failure, type SheetFound } from '../api/client.svelte';

/** Copies what values name of the trade shelf, so that they can be taken; what hindered it, else null. */
export async function copyNamed(found: readonly SheetFound[]): Promise<Failure | null> {
  const named = new Set(found.flatMap((f) => wordsIn(f.value)).filter((word) => word.startsWith('trade-')));
  if (named.size === 0) return null;
  const shelf = await api.trade('');
  if (!shelf.ok) return shelf.failure;
  for (const { id } of shelf.data.filter((entry) => named.has(entry.id))) {
    const copied = await api.takeFromTrade(id);
    if (!copied.ok) return copied.failure;
  }
  return null;
}

/** All texts within a value. */
function wordsIn(value: unknown): string[] {
  if (typeof value === 'string') return [value];
  return value !== null && typeof value === 'object' ? Object.values(value).flatMap(wordsIn) : [];
}
