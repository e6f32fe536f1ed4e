<script lang="ts">
  // What a pasted sheet says, each value beside the words it came from, read as it is
  // pasted; nothing is taken that is not ticked, and what the words leave open is not ticked.
  import { api, type Failure, type SheetFound } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { takeable, type Entry } from './entry';
  import { copyNamed } from './sheet';

  interface Props {
    kind: string;
    label?: string;
    ontake?: (found: SheetFound[]) => void; // absent: who asks takes what is picked
    picked?: SheetFound[];
    heading?: string; // what the text calls the thing
    entry?: Entry; // that takes it: what it has already need not be read
  }
  let {
    kind,
    label = 'Text of its manual, of a shop page, or a table',
    ontake,
    picked = $bindable([]),
    heading = $bindable(''),
    entry = {},
  }: Props = $props();

  let text = $state('');
  let found = $state.raw<SheetFound[] | null>(null);
  let taken = $state.raw<boolean[]>([]);
  let refused = $state.raw<Failure | null>(null);
  let waiting: ReturnType<typeof setTimeout> | undefined;

  async function read() {
    const asked = text;
    const answer = asked.trim() === '' ? null : await api.readSheet(kind, asked);
    if (asked !== text) return; // it has been written on
    refused = answer && !answer.ok ? answer.failure : null;
    found = answer?.ok ? answer.data.found : null;
    heading = answer?.ok ? (answer.data.name ?? '') : '';
    pick((found ?? []).map((f) => !f.ask && f.field !== ''));
  }
  function pick(which: boolean[]) {
    taken = which;
    picked = (found ?? []).filter((_, i) => which[i]);
  }
  function soon() {
    clearTimeout(waiting);
    waiting = setTimeout(() => void read(), 150);
  }

  const taking = $derived(takeable(entry, picked));
  /** What a ticked value waits for, where that is not ticked. */
  const waits = (f: SheetFound) =>
    picked.includes(f) && !taking.includes(f)
      ? (f.with ?? []).filter((path) => !picked.some((p) => p.field === path))
      : [];

  async function take() {
    const list = taking;
    refused = await copyNamed(list);
    if (refused) return;
    ontake?.(list);
    [found, text, picked] = [null, '', []];
  }
</script>

<div class="grid gap-2">
  <label class="grid gap-0.5"
    >{label}
    <textarea
      class="bg-raised text-ink border border-soft rounded p-2 min-h-20 w-full"
      placeholder="paste it here: what is found shows below"
      bind:value={text}
      oninput={soon}></textarea>
  </label>
  {#if refused}<FailureNote failure={refused} />{/if}
  {#if found}
    {#if found.length === 0}
      <p role="status">No value was found in it. Values need their units: “7.4 to 26.4 V”, “46 g”.</p>
    {:else}
      <p class="soft text-note" role="status">
        {found.length === 1 ? 'One value' : `${found.length} values`} found, {picked.length} ticked.
      </p>
      <ul class="grid gap-1" aria-label="What was found">
        {#each found as f, i (i)}
          <li class="grid grid-cols-[1.6rem_1fr] items-start gap-1.5 border-t border-t-line pt-1.5">
            {#if f.field !== ''}
              <input
                type="checkbox"
                class="mt-1"
                aria-label={`take ${f.shows} as ${f.field}`}
                checked={taken[i]}
                onchange={(e) => pick(taken.map((t, k) => (k === i ? e.currentTarget.checked : t)))}
              />
            {:else}<span></span>{/if}
            <span class="wrap-anywhere">
              {#if f.shows}<strong class="font-semibold">{f.shows}</strong>{/if}
              {#if f.field}<span class="soft mono text-small">{f.field}</span>{/if}
              <span class="soft text-note line-clamp-3">“{f.words}”</span>
              {#if f.note}<span class="block warn text-note">{f.note}</span>{/if}
              {#if waits(f).length > 0}<span class="block warn text-note"
                  >taken with <span class="mono">{waits(f).join(', ')}</span> alone</span
                >{/if}
            </span>
          </li>
        {/each}
      </ul>
      {#if ontake}
        <p class="buttons">
          <button type="button" class="button main" disabled={taking.length === 0} onclick={take}
            >Take {taking.length === 1 ? 'one value' : `${taking.length} values`}</button
          >
        </p>
      {/if}
    {/if}
  {/if}
</div>
