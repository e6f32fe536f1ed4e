<script lang="ts">
  // One missing value, entered where it is asked for: in its own field, on the picture, from
  // a sheet, or as a statement.
  import { untrack } from 'svelte';
  import { api, type Failure, type Missing, type SheetFound } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import FieldInput from '../shelf/FieldInput.svelte';
  import SheetReader from '../shelf/SheetReader.svelte';
  import { valueAt, withRead, withValue, type Entry } from '../shelf/entry';
  import type { Field } from '../shelf/forms';
  import type { Known } from './known.svelte';
  import PickAntennas from './PickAntennas.svelte';
  import PickOne from './PickOne.svelte';
  import PickRegion from './PickRegion.svelte';
  import { slotOf, spotAt } from './spot';
  import Statement from './Statement.svelte';

  interface Props {
    quad: string;
    today: boolean;
    missing: Missing;
    known: Known;
    onanswered: (says: string) => void;
  }
  let { quad, today, missing, known, onanswered }: Props = $props();

  let refused = $state.raw<Failure | null>(null);
  let draft = $state.raw<Entry | null>(null);
  let nothing = $state(false); // was entered

  const holder = $derived(
    known.entries.find(
      (e) => e.id === missing.id && (missing.of === 'gear' ? e.set !== undefined : e.kind === missing.of),
    ),
  );
  const form = $derived(holder && known.forms.find((f) => f.kind === holder.kind));
  const fields = $derived(form?.groups.flatMap((g) => g.fields) ?? []);
  const whole = $derived(draft ?? (holder?.entry as Entry | undefined) ?? {});
  const spot = $derived(holder ? spotAt(fields, whole, missing.field) : undefined);
  const shown = $derived(spot?.fields.filter((f) => !/(^|\.)(id|name)$/.test(f.path)) ?? []);
  const offered = (f: Field) =>
    known.shelf.filter((t) => (f.kinds ?? []).includes(t.kind) && !known.entries.some((e) => e.id === t.id));
  const names = $derived(shown.some((f) => ['ref', 'refs', 'within', 'list'].includes(f.type)));
  $effect(() => {
    if (names) void untrack(() => known.load());
  });
  const slot = $derived(missing.of === 'quad' ? slotOf(missing.field) : undefined);
  const wrong = $derived(Object.fromEntries((refused?.wrong ?? []).map((w) => [w.location, w.message])));

  async function save(entry: Entry, says: string) {
    if (!holder) return;
    const saved = await api.save(holder.kind, holder.id, holder.revision, entry);
    refused = saved.ok ? null : saved.failure;
    if (saved.ok) onanswered(says);
  }
  async function answer(event: SubmitEvent) {
    event.preventDefault();
    nothing = draft === null;
    if (!nothing) await save(whole, `Noted: ${missing.label}.`);
  }
  const takeRead = (found: SheetFound[]) =>
    holder &&
    save(
      withRead(holder.entry as Entry, found),
      `Noted: ${found.length === 1 ? 'one value' : `${found.length} values`} of ${holder.name}, with the words as their source.`,
    );

  /** Copies an entry of the trade shelf and names it. */
  async function copy(f: Field, id: string) {
    if (id === '') return;
    const taken = await api.takeFromTrade(id);
    refused = taken.ok ? null : taken.failure;
    if (!taken.ok || !spot) return;
    const many = valueAt(spot.entry, f.path);
    draft = spot.put(
      withValue(spot.entry, f.path, f.type === 'refs' ? [...(Array.isArray(many) ? (many as string[]) : []), id] : id),
    );
    await known.load();
  }
</script>

{#if missing.of === 'fleet'}
  <PickRegion onpicked={() => onanswered('Noted: the region.')} />
{:else if missing.field === 'pairings'}
  <Statement {quad} onsaid={() => onanswered('Noted: what is stated of the pair.')} />
{:else if slot}
  <p>
    <a class="button main inline-flex items-center" href={`#/fill/${quad}/${today ? 'today' : 'plan'}/${slot}`}
      >Put it in on the picture</a
    >
  </p>
{:else if missing.of === 'quad'}
  <PickOne {quad} {missing} onpicked={onanswered}>{@render typed()}</PickOne>
{:else if missing.of === 'kit' && missing.field === 'antennas'}
  <PickAntennas kit={missing.id} onpicked={(says) => onanswered(`${missing.label}: ${says}`)}
    >{@render typed()}</PickAntennas
  >
{:else}{@render typed()}{/if}
{#snippet typed()}{#if spot}
    <form class="entry grid gap-2" onsubmit={answer}>
      {#each shown as f (f.path)}
        <FieldInput
          field={f}
          entry={spot.entry}
          root={whole}
          entries={known.entries}
          {wrong}
          base={spot.base}
          onchange={(to) => {
            draft = spot.put(to);
            nothing = false;
          }}
        />
        {#if (f.type === 'ref' || f.type === 'refs') && offered(f).length > 0}
          <label class="grid gap-0.5 text-note"
            >{f.label}, from the trade shelf
            <select value="" onchange={(e) => copy(f, e.currentTarget.value)}>
              <option value="">none</option>
              {#each offered(f) as t (t.id)}<option value={t.id}>{t.name}</option>{/each}
            </select>
          </label>
        {/if}
        {#if f.about && shown.length === 1}<p class="soft text-small">{f.about}</p>{/if}
        {#if f.measure}<details>
            <summary class="min-h-8 cursor-pointer text-note">Measure it: how</summary>
            <p class="text-note">{f.measure}</p>
          </details>{/if}
      {/each}
      {#if refused}<FailureNote failure={refused} />{/if}
      {#if nothing}<p class="bad" role="alert">Nothing is entered yet.</p>{/if}
      <p class="buttons"><button class="button main">Note it</button></p>
    </form>
  {:else if holder}
    <p>
      <a href={`#/shelf/edit/${missing.of}/${missing.id}?field=${encodeURIComponent(missing.field)}`}
        >Enter it with all the rest of {holder.name}</a
      >
    </p>
  {/if}{/snippet}
{#if missing.of === 'gear' && holder}
  <details>
    <summary class="font-bold min-h-10 cursor-pointer">Have its sheet?</summary>
    <SheetReader kind={holder.kind} entry={holder.entry as Entry} ontake={takeRead} />
  </details>
{/if}
