<script lang="ts">
  // Things that belong to no maker, to be copied to one's own.
  import { api, type Failure, type ShelfEntry, type TradeEntry } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import type { Form } from './forms';

  interface Props {
    entries: ShelfEntry[];
    kinds: Form[];
    onreload: () => Promise<void>;
  }
  let { entries, kinds, onreload }: Props = $props();

  const shelf = new Loaded<TradeEntry[]>();
  void shelf.take(api.trade(''));
  let find = $state('');
  let refused = $state.raw<Failure | null>(null);
  let said = $state('');
  const here = $derived(new Set(entries.map((e) => e.id)));
  const found = $derived((shelf.data ?? []).filter((t) => t.name.toLowerCase().includes(find.trim().toLowerCase())));
  const groups = $derived(
    kinds.map((k) => ({ kind: k, list: found.filter((t) => t.kind === k.kind) })).filter((g) => g.list.length > 0),
  );

  async function take(t: TradeEntry) {
    const answer = await api.takeFromTrade(t.id);
    refused = answer.ok ? null : answer.failure;
    if (!answer.ok) return;
    said = `${t.name} is yours now: change it as you like.`;
    await onreload();
  }
</script>

<h2 class="mb-1">The trade shelf</h2>
<p class="soft mb-2">
  What belongs to no maker, each with what it rests on. A copy is yours, and a later version of the program leaves it
  alone. What could burn something is on your own sheet, not here.
</p>
<p class="good mb-2" role="status">{said}</p>
{#if refused}<FailureNote failure={refused} />{/if}
{#if shelf.failure}<FailureNote failure={shelf.failure} again={() => shelf.take(api.trade(''))} />{/if}
<label class="flex gap-2.5 items-center mb-3"
  >Find<input type="search" class="w-[min(320px,100%)]" bind:value={find} /></label
>
{#each groups as g (g.kind.kind)}
  <section class="mb-4">
    <h3 class="mb-1">{g.kind.words} <span class="soft font-normal">{g.list.length}</span></h3>
    <ul class="panel">
      {#each g.list as t (t.id)}
        <li
          class="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto] gap-2.5 items-center border-b border-b-line min-h-11 wrap-anywhere text-note px-3.5 py-0.5"
        >
          <span class="font-semibold">{t.name}</span>
          <span class="soft text-small">{t.source}</span>
          {#if here.has(t.id)}<span class="soft">yours</span>{:else}<button
              type="button"
              class="button"
              onclick={() => take(t)}
              aria-label={`Take ${t.name}`}>take</button
            >{/if}
        </li>
      {/each}
    </ul>
  </section>
{/each}
