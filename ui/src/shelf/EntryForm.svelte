<script lang="ts">
  // Entering or changing one entry. What is not known stays empty and is shown
  // as unknown at the gate that needs it.
  import { Button } from 'flowbite-svelte';
  import { onDestroy, onMount, tick, untrack } from 'svelte';
  import { api, place, type Failure, type ShelfEntry } from '../api/client.svelte';
  import ConflictNote from '../lib/ConflictNote.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { idFor, valueAt, withRead, type Entry } from './entry';
  import { draftOf, dropDraft, keepDraft } from './draft';
  import FieldInput from './FieldInput.svelte';
  import SheetReader from './SheetReader.svelte';
  import { asked, controlID, locate, ofFleet, stated, whole, type Form } from './forms';

  interface Props {
    form: Form;
    entries: ShelfEntry[];
    existing?: ShelfEntry | undefined;
    field?: string | undefined; // the value to lead to, as gates name it
    onsaved: (kind: string, id: string) => void;
    onclose: () => void;
    onreload: () => Promise<void>;
  }
  let { form, entries, existing, field, onsaved, onclose, onreload }: Props = $props();

  // The form works on a copy of its own, taken when it opens.
  let revision = $state(untrack(() => existing?.revision ?? 0));
  const original = untrack(() => (existing ? (structuredClone($state.snapshot(existing.entry)) as Entry) : {}));
  const ownID = untrack(() => existing?.id ?? '');
  const begun = untrack(() => draftOf(form.kind, ownID, revision));
  let entry = $state.raw<Entry>(begun?.entry ?? original);
  let again = $state(begun !== undefined); // what was entered before is there again
  $effect(() => {
    if (JSON.stringify(entry) === JSON.stringify(original)) dropDraft(form.kind, ownID);
    else keepDraft(form.kind, ownID, { revision, entry });
  });
  function startOver() {
    entry = original;
    again = false;
  }
  function leave() {
    dropDraft(form.kind, ownID);
    onclose();
  }
  let failure = $state.raw<Failure | null>(null);
  let missing = $state('');
  let said = $state('');
  let heading = $state(''); // what a pasted sheet calls it

  const isGear = $derived(!ofFleet(form.kind));
  const fields = $derived(form.groups.flatMap((g) => g.fields));
  const wrong = $derived(Object.fromEntries((failure?.wrong ?? []).map((w) => [w.location, w.message])));
  const shown = $derived(new Set(fields.map((f) => f.path)));
  const under = $derived(fields.map((f) => f.path));
  const elsewhere = $derived(
    (failure?.wrong ?? []).filter(
      (w) =>
        !shown.has(w.location) && !under.some((p) => w.location.startsWith(p + '[') || w.location.startsWith(p + '.')),
    ),
  );

  function identify(): string {
    if (existing) return existing.id;
    if (form.kind === 'spare') return String(entry.model ?? '');
    const taken = new Set(entries.filter((e) => (isGear ? !ofFleet(e.kind) : e.kind === form.kind)).map((e) => e.id));
    const name =
      form.kind === 'pairing' ? `${String(entry.airUnit)}-on-${String(entry.goggles)}` : String(entry.name ?? '');
    return idFor(name, taken);
  }

  // Open are the groups that hold something, and for a new entry the first ones; the
  // others are a press away. A small form is open as a whole.
  const small = untrack(() => fields.length <= 20);
  let open = $state(
    untrack(() =>
      form.groups.map((g, i) => !g.folded && (small || stated(g.fields, entry) > 0 || i === 0 || (!existing && i < 3))),
    ),
  );

  // A finding that lacks a value leads to its very field.
  const target = untrack(() => (field ? locate(fields, entry, field) : undefined));
  onMount(async () => {
    if (!target) return;
    const at = form.groups.findIndex((g) =>
      g.fields.some((f) => target === f.path || target.startsWith(f.path + '[') || target.startsWith(f.path + '.')),
    );
    if (at >= 0) open[at] = true;
    await tick();
    const control = document.getElementById(controlID(target));
    control?.scrollIntoView({ block: 'center' });
    (control?.matches('input,select') ? control : control?.querySelector<HTMLElement>('input,select,button'))?.focus();
  });

  // Who has gone on to another screen meanwhile is not brought back.
  let left = false;
  onDestroy(() => (left = true));

  async function save(at: number) {
    const lacking = fields.filter((f) => asked(f, entry) && f.required && valueAt(entry, f.path) === undefined);
    missing = lacking.length > 0 ? `Still needed: ${lacking.map((f) => f.label).join(', ')}.` : '';
    if (missing) return;
    const id = identify();
    const defaults: Record<string, Entry> = { spare: { count: 0 }, quad: { id, now: {} } };
    const body: Entry = { ...(defaults[form.kind] ?? { id }), ...whole(fields, entry) };
    const answer = await api.save(form.kind, id, at, body);
    if (answer.ok) {
      dropDraft(form.kind, ownID);
      if (!left) onsaved(form.kind, id);
    } else failure = answer.failure;
  }

  async function keepTheirs() {
    await onreload();
    leave();
  }
</script>

<form
  class="entry panel grid gap-3 px-5 pt-4 pb-5"
  onsubmit={(e) => {
    e.preventDefault();
    void save(revision);
  }}
  aria-label={`${existing ? 'Change' : 'Add'} ${form.word}`}
>
  <h2>{existing ? `Change ${existing.name}` : `Add: ${form.word}`}</h2>
  <p class="soft">Leave empty what you do not know: the gate that needs it will say so, and never “fits”.</p>
  {#if again}<p class="flex flex-wrap gap-3 items-center bg-caution-wash px-3 py-1.5" role="status">
      What you had entered and not saved is here again. <button type="button" class="button" onclick={startOver}
        >Start over</button
      >
    </p>{/if}
  {#if failure?.conflict}
    <ConflictNote
      conflict={failure.conflict}
      {keepTheirs}
      applyMine={(at) => {
        revision = at;
        failure = null;
        void save(at);
      }}
    />
  {:else if failure}
    <FailureNote failure={{ ...failure, wrong: elsewhere }} />
  {/if}
  {#if isGear}
    <details class="border-t border-t-line pt-2">
      <summary class="font-bold text-body min-h-10 cursor-pointer">Read it off a sheet</summary>
      <SheetReader
        kind={form.kind}
        bind:heading
        {entry}
        ontake={(found) => {
          entry = withRead(heading && !entry.name ? { ...entry, name: heading } : entry, found);
          said = `${found.length === 1 ? 'One value is' : `${found.length} values are`} filled in below; nothing is saved yet.`;
        }}
      />
      <p class="good" role="status">{said}</p>
    </details>
    {#if existing}<p>
        <a href={`${place}/api/entries/${form.kind}/${existing.id}/sheet`} target="_blank">Its sheet in words</a>, as it
        is saved: to print, or to be read in elsewhere
      </p>{/if}
  {/if}
  {#each form.groups as group, i (group.title)}
    <details class="border-t border-t-line pt-2" bind:open={open[i]}>
      <summary class="font-bold text-body min-h-10 cursor-pointer"
        >{group.title}
        <span class="soft font-normal text-note"
          >{stated(group.fields, entry)} of {group.fields.filter((f) => asked(f, entry)).length} stated{#if group.gate},
            for the {group.gate} gate{/if}</span
        ></summary
      >
      {#if open[i]}
        <div class="grid cols-fill-[210px] gap-y-3 gap-x-5">
          {#each group.fields.filter((f) => asked(f, entry)) as f (f.path)}
            <FieldInput field={f} {entry} root={entry} {entries} {wrong} onchange={(to) => (entry = to)} />
          {/each}
        </div>
      {/if}
    </details>
  {/each}
  {#if missing}<p class="bad" role="alert">{missing}</p>{/if}
  <div class="buttons">
    <Button type="submit">{existing ? 'Save' : 'Add'}</Button>
    <Button type="button" color="alternative" onclick={leave}>Cancel</Button>
  </div>
</form>

<style>
  summary::first-letter {
    text-transform: uppercase;
  }
</style>
