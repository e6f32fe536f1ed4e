<script lang="ts">
  // What a pasted sheet says, each value beside the words it came from; nothing is taken
  // that is not ticked, and what the words leave open is not ticked.
  import { api, type Failure, type SheetFound } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';

  interface Props {
    kind: string;
    ontake: (found: SheetFound[]) => void;
  }
  let { kind, ontake }: Props = $props();

  let text = $state('');
  let found = $state.raw<SheetFound[] | null>(null);
  let taken = $state.raw<boolean[]>([]);
  let refused = $state.raw<Failure | null>(null);
  let busy = $state(false);

  async function read() {
    busy = true;
    const answer = await api.readSheet(kind, text);
    busy = false;
    refused = answer.ok ? null : answer.failure;
    found = answer.ok ? answer.data.found : null;
    taken = (found ?? []).map((f) => !f.ask && f.field !== '');
  }
  const count = $derived(taken.filter(Boolean).length);

  async function take() {
    const list = (found ?? []).filter((_, i) => taken[i]);
    for (const f of list) {
      if (typeof f.value !== 'string' || !f.value.startsWith('trade-')) continue;
      const copied = await api.takeFromTrade(f.value);
      if (!copied.ok) return void (refused = copied.failure);
    }
    ontake(list);
    found = null;
    text = '';
  }
</script>

<div class="grid gap-2">
  <label class="grid gap-0.5"
    >Text of its manual, of a shop page, or a table
    <textarea class="bg-raised text-ink border border-soft rounded p-2 min-h-28 w-full" bind:value={text}></textarea>
  </label>
  <p class="buttons">
    <button type="button" class="button" disabled={busy || text.trim() === ''} onclick={read}>Find its values</button>
  </p>
  {#if refused}<FailureNote failure={refused} />{/if}
  {#if found}
    {#if found.length === 0}
      <p role="status">No value was found in it. Values need their units: “7.4 to 26.4 V”, “46 g”.</p>
    {:else}
      <ul class="grid gap-1" aria-label="What was found">
        {#each found as f, i (i)}
          <li class="grid grid-cols-[1.6rem_1fr] items-start gap-1.5 border-t border-t-line pt-1.5">
            {#if f.field !== ''}
              <input
                type="checkbox"
                class="mt-1"
                aria-label={`take ${f.shows} as ${f.field}`}
                checked={taken[i]}
                onchange={(e) => (taken = taken.map((t, k) => (k === i ? e.currentTarget.checked : t)))}
              />
            {:else}<span></span>{/if}
            <span class="wrap-anywhere">
              {#if f.shows}<strong class="font-semibold">{f.shows}</strong>{/if}
              {#if f.field}<span class="soft mono text-small">{f.field}</span>{/if}
              <span class="block soft text-note">“{f.words}”</span>
              {#if f.note}<span class="block warn text-note">{f.note}</span>{/if}
            </span>
          </li>
        {/each}
      </ul>
      <p class="buttons">
        <button type="button" class="button main" disabled={count === 0} onclick={take}
          >Take {count === 1 ? 'one value' : `${count} values`}</button
        >
      </p>
    {/if}
  {/if}
</div>
