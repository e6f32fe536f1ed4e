<script lang="ts">
  // Entering or changing one entry. What is not known stays empty and is shown
  // as unknown at the gate that needs it.
  import { Button } from 'flowbite-svelte';
  import { untrack } from 'svelte';
  import { api, type Failure, type ShelfEntry } from '../api/client.svelte';
  import ConflictNote from '../lib/ConflictNote.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { idFor, valueAt, type Entry } from './entry';
  import FieldInput from './FieldInput.svelte';
  import { asked, type Kind } from './fields';

  interface Props {
    kind: Kind;
    entries: ShelfEntry[];
    existing?: ShelfEntry | undefined;
    onsaved: (kind: string, id: string) => void;
    onclose: () => void;
    onreload: () => Promise<void>;
  }
  let { kind, entries, existing, onsaved, onclose, onreload }: Props = $props();

  // The form works on a copy of its own, taken when it opens.
  let entry = $state.raw<Entry>(untrack(() => (existing ? (structuredClone($state.snapshot(existing.entry)) as Entry) : {})));
  let revision = $state(untrack(() => existing?.revision ?? 0));
  let failure = $state.raw<Failure | null>(null);
  let missing = $state('');

  const isGear = $derived(!['kit', 'spare', 'quad'].includes(kind.kind));
  const wrong = $derived(Object.fromEntries((failure?.wrong ?? []).map((w) => [w.location, w.message])));
  const shown = $derived(new Set(kind.fields.map((f) => f.path)));
  const elsewhere = $derived((failure?.wrong ?? []).filter((w) => !shown.has(w.location) && !/\[\d+\]/.test(w.location)));

  function identify(): string {
    if (existing) return existing.id;
    if (kind.kind === 'spare') return String(entry.model ?? '');
    const taken = new Set(entries.filter((e) => (isGear ? !['kit', 'spare', 'quad'].includes(e.kind) : e.kind === kind.kind)).map((e) => e.id));
    const name = kind.kind === 'pairing' ? `${String(entry.airUnit)}-on-${String(entry.goggles)}` : String(entry.name ?? '');
    return idFor(name, taken);
  }

  async function save(at: number) {
    const lacking = kind.fields.filter((f) => asked(f, entry) && 'required' in f && f.required && valueAt(entry, f.path) === undefined);
    missing = lacking.length > 0 ? `Still needed: ${lacking.map((f) => f.label).join(', ')}.` : '';
    if (missing) return;
    const id = identify();
    const defaults: Record<string, Entry> = { spare: { count: 0 }, quad: { id, now: {} } };
    const body: Entry = { ...(defaults[kind.kind] ?? { id }), ...entry };
    const answer = await api.save(kind.kind, id, at, body);
    if (answer.ok) onsaved(kind.kind, id);
    else failure = answer.failure;
  }

  async function keepTheirs() {
    await onreload();
    onclose();
  }
</script>

<form class="panel" onsubmit={(e) => { e.preventDefault(); void save(revision); }} aria-label={`${existing ? 'Change' : 'Add'} ${kind.name}`}>
  <h2>{existing ? `Change ${existing.name}` : `Add a ${kind.name}`.replace('Add a air', 'Add an air').replace('Add a goggles', 'Add goggles')}</h2>
  <p class="soft">Leave empty what you do not know: the gate that needs it will say so, and never “fits”.</p>
  {#if failure?.conflict}
    <ConflictNote conflict={failure.conflict} {keepTheirs} applyMine={(at) => { revision = at; failure = null; void save(at); }} />
  {:else if failure}
    <FailureNote failure={{ ...failure, wrong: elsewhere }} />
  {/if}
  <div class="fields">
    {#each kind.fields.filter((f) => asked(f, entry)) as field (field.path)}
      <FieldInput {field} {entry} {entries} {wrong} onchange={(to) => (entry = to)} />
    {/each}
  </div>
  {#if missing}<p class="missing" role="alert">{missing}</p>{/if}
  <div class="buttons">
    <Button type="submit">{existing ? 'Save' : 'Add'}</Button>
    <Button type="button" color="alternative" onclick={onclose}>Cancel</Button>
  </div>
</form>

<style>
  form {
    padding: 1rem 1.2rem 1.2rem;
    display: grid;
    gap: 0.8rem;
  }
  h2 {
    font-size: 1.3rem;
    font-weight: 700;
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
    gap: 0.8rem 1.2rem;
  }
  .missing {
    color: var(--unfit);
    font-weight: 700;
  }
  .buttons {
    display: flex;
    gap: 0.6rem;
  }
  form :global(input),
  form :global(select) {
    background-color: var(--raised);
    color: var(--ink);
    border-color: var(--soft);
    min-height: 40px;
    font-size: 1rem;
  }
  form :global([aria-invalid='true']) {
    border: 2px solid var(--unfit);
  }
</style>
