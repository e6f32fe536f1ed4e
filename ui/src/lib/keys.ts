// Keys of the whole program and of each screen. A screen says what its keys do
// while it is shown; `?` lists them.

export interface Key {
  keys: string;
  does: string;
}

export const everywhere: Key[] = [
  { keys: 'g f', does: 'go to Fleet' },
  { keys: 'g d', does: 'go to Decide' },
  { keys: 'g r', does: 'go to Route' },
  { keys: 'g b', does: 'go to Bench' },
  { keys: 'g p', does: 'go to Prove' },
  { keys: 'g s', does: 'go to Shelf' },
  { keys: 'u', does: 'what was changed, to take it back' },
  { keys: 't', does: 'light or dark' },
  { keys: '?', does: 'this list' },
];

/** Whether a key press belongs to a control that types or picks by itself. */
export function typing(event: KeyboardEvent): boolean {
  const at = event.target;
  return (
    event.ctrlKey ||
    event.metaKey ||
    event.altKey ||
    at instanceof HTMLInputElement ||
    at instanceof HTMLSelectElement ||
    at instanceof HTMLTextAreaElement ||
    (at instanceof HTMLElement && at.isContentEditable)
  );
}
