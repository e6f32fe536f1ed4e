// What is being entered survives a closed tab: kept by the browser until it is saved or left.
import { place } from '../api/client.svelte';
import type { Entry } from './entry';

export interface Draft {
  revision: number; // of the entry it was begun on
  entry: Entry;
}

const keyOf = (kind: string, id: string) => `draft ${place} ${kind} ${id}`;

/** The draft of an entry, where one was begun on the same revision; a new entry has no id. */
export function draftOf(kind: string, id: string, revision: number): Draft | undefined {
  try {
    const kept = localStorage.getItem(keyOf(kind, id));
    const draft = kept ? (JSON.parse(kept) as Draft) : undefined;
    return draft && draft.revision === revision && typeof draft.entry === 'object' ? draft : undefined;
  } catch {
    return undefined; // a browser that keeps nothing, or something else kept there
  }
}

export function keepDraft(kind: string, id: string, draft: Draft): void {
  try {
    localStorage.setItem(keyOf(kind, id), JSON.stringify(draft));
  } catch {
    // a browser that keeps nothing: the form works all the same
  }
}

export function dropDraft(kind: string, id: string): void {
  try {
    localStorage.removeItem(keyOf(kind, id));
  } catch {
    // nothing was kept
  }
}
