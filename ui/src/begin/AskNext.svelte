<script lang="ts">
  // One question at a time: what decides most, answered where it is asked, until nothing
  // that is missing matters.
  import { untrack } from 'svelte';
  import { api, type Ask, type Failure, type Question, type SheetFound, type ShelfEntry, type TradeEntry } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import FieldInput from '../shelf/FieldInput.svelte';
  import SheetReader from '../shelf/SheetReader.svelte';
  import { valueAt, withRead, withValue, type Entry } from '../shelf/entry';
  import type { Field, Form } from '../shelf/forms';
  import PickFeed from './PickFeed.svelte';
  import PickRegion from './PickRegion.svelte';
  import { slotOf, spotAt } from './spot';
  import Statement from './Statement.svelte';

  interface Props {
    quad: string;
    today: boolean;
    revision: number; // of the quad: what is asked follows it
    onanswered: () => void;
  }
  let { quad, today, revision, onanswered }: Props = $props();

  const report = new Loaded<Ask>();
  let entries = $state.raw<ShelfEntry[]>([]);
  let shelf = $state.raw<TradeEntry[]>([]);
  let forms = $state.raw<Form[]>([]);
  let skipped = $state.raw<string[]>([]);
  let refused = $state.raw<Failure | null>(null);
  let draft = $state.raw<Entry | null>(null);
  let said = $state('');
  let nothing = $state(false); // was entered

  async function load() {
    const [all, made, trade] = await Promise.all([api.shelf(), forms.length > 0 ? null : api.forms(), shelf.length > 0 ? null : api.trade('')]);
    if (all.ok) entries = all.data.entries;
    if (trade?.ok) shelf = trade.data;
    if (made?.ok) forms = made.data;
    await report.take(api.asks(quad, today));
  }
  $effect(() => {
    const [, ,] = [quad, today, revision];
    untrack(() => void load());
  });

  const keyOf = (q: Question) => `${q.of} ${q.id} ${q.field}`;
  const open = $derived((report.data?.next ?? []).filter((q) => !skipped.includes(keyOf(q))));
  const question = $derived(open[0]);
  const holder = $derived(question && entries.find((e) => e.id === question.id && (question.of === 'gear' ? e.set !== undefined : e.kind === question.of)));
  const form = $derived(holder && forms.find((f) => f.kind === holder.kind));
  const fields = $derived(form?.groups.flatMap((g) => g.fields) ?? []);
  const whole = $derived(draft ?? ((holder?.entry as Entry | undefined) ?? {}));
  const spot = $derived(question && holder ? spotAt(fields, whole, question.field) : undefined);
  const shownFields = $derived(spot?.fields.filter((f) => !/(^|\.)(id|name)$/.test(f.path)) ?? []);
  const offered = (f: Field) => shelf.filter((t) => (f.kinds ?? []).includes(t.kind) && !entries.some((e) => e.id === t.id));
  const slot = $derived(question?.of === 'quad' ? slotOf(question.field) : undefined);
  const wrong = $derived(Object.fromEntries((refused?.wrong ?? []).map((w) => [w.location, w.message])));

  async function answer(event: SubmitEvent) {
    event.preventDefault();
    if (!holder || !question) return;
    if (draft === null) {
      said = '';
      nothing = true;
      return;
    }
    const saved = await api.save(holder.kind, holder.id, holder.revision, whole);
    refused = saved.ok ? null : saved.failure;
    if (saved.ok) await answered(`Noted: ${question.label}.`);
  }
  async function answered(says: string) {
    said = says;
    draft = null;
    onanswered();
    await load();
  }
  /** Copies an entry of the trade shelf and names it. */
  async function copy(f: Field, id: string) {
    if (id === '') return;
    const taken = await api.takeFromTrade(id);
    refused = taken.ok ? null : taken.failure;
    if (!taken.ok || !spot) return;
    const many = valueAt(spot.entry, f.path);
    draft = spot.put(withValue(spot.entry, f.path, f.type === 'refs' ? [...(Array.isArray(many) ? (many as string[]) : []), id] : id));
    const all = await api.shelf();
    if (all.ok) entries = all.data.entries;
  }
  async function takeRead(found: SheetFound[]) {
    if (!holder) return;
    const saved = await api.save(holder.kind, holder.id, holder.revision, withRead(holder.entry as Entry, found));
    refused = saved.ok ? null : saved.failure;
    if (saved.ok) await answered(`Noted: ${found.length === 1 ? 'one value' : `${found.length} values`} of ${holder.name}, with the words as their source.`);
  }
  function skip(q: Question) {
    skipped = [...skipped, keyOf(q)];
    draft = null;
    refused = null;
    nothing = false;
  }
  const later = $derived((report.data?.later.length ?? 0) + skipped.length);
</script>

<section class="panel grid gap-2.5 px-5 py-4" aria-labelledby="ask-title">
  <h2 id="ask-title">What would decide most</h2>
  <p class="good" role="status">{said}</p>
  {#if report.failure}<FailureNote failure={report.failure} again={() => load()} />{/if}
  {#if question}
    {#key keyOf(question)}
      <p class="font-semibold first-letter:uppercase wrap-anywhere">{question.label}?</p>
      <p class="soft text-note">
        {#each question.gates as gate, i (gate)}{i > 0 ? ', ' : ''}<a href={`#/swap/${quad}/${gate}`}>{gate}</a>{/each}
        {question.gates.length === 1 ? 'waits' : 'wait'} for it{#if open.length > 1}; {open.length - 1} more after it{/if}
      </p>
      {#if question.of === 'fleet'}
        <PickRegion onpicked={() => answered('Noted: the region.')} />
      {:else if question.field === 'pairings'}
        <Statement {quad} onsaid={() => answered('Noted: what is stated of the pair.')} />
      {:else if !today && question.field.endsWith('feeds.airUnit')}
        <PickFeed {quad} onpicked={() => answered('Noted: what feeds the air unit.')} />
      {:else if slot}
        <p><a class="button main inline-flex items-center" href={`#/fill/${quad}/${today ? 'today' : 'plan'}/${slot}`}>Put it in on the picture</a></p>
      {:else if spot}
        <form class="entry grid gap-2" onsubmit={answer}>
          {#each shownFields as f (f.path)}
            <FieldInput field={f} entry={spot.entry} root={whole} {entries} {wrong} base={spot.base} onchange={(to) => { draft = spot.put(to); nothing = false; }} />
            {#if (f.type === 'ref' || f.type === 'refs') && offered(f).length > 0}
              <label class="grid gap-0.5 text-note">{f.label}, from the trade shelf
                <select value="" onchange={(e) => copy(f, e.currentTarget.value)}>
                  <option value="">none</option>
                  {#each offered(f) as t (t.id)}<option value={t.id}>{t.name}</option>{/each}
                </select>
              </label>
            {/if}
            {#if f.about && shownFields.length === 1}<p class="soft text-small">{f.about}</p>{/if}
          {/each}
          {#if refused}<FailureNote failure={refused} />{/if}
          {#if nothing}<p class="bad" role="alert">Nothing is entered yet.</p>{/if}
          <p class="buttons"><button class="button main">Note it</button></p>
        </form>
      {:else if holder}
        <p><a href={`#/shelf/edit/${question.of}/${question.id}?field=${encodeURIComponent(question.field)}`}>Enter it with all the rest of {holder.name}</a></p>
      {/if}
      {#if question.of === 'gear' && holder}
        <details>
          <summary class="font-bold min-h-10 cursor-pointer">Have its sheet?</summary>
          <SheetReader kind={holder.kind} ontake={takeRead} />
        </details>
      {/if}
      <p><button type="button" class="button" onclick={() => skip(question)}>I don't know: ask the next</button></p>
    {/key}
  {:else if report.data}
    <p>{report.data.moot.length + later === 0 ? 'Nothing is missing that a gate asks for.' : later > 0 ? 'There is nothing else to ask now.' : 'Settled: of what is still missing, no answer that was tried changes any level.'}</p>
    {#if skipped.length > 0}<p><button type="button" class="button" onclick={() => (skipped = [])}>Ask again what I did not know ({skipped.length})</button></p>{/if}
  {:else if !report.failure}<p class="soft" role="status">Looking for what decides most…</p>{/if}
</section>
