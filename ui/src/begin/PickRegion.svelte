<script lang="ts">
  // The region whose limits hold: one's own, or one copied from the trade shelf.
  import { api, type Failure, type ShelfEntry, type TradeEntry } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import Caution from '../lib/Caution.svelte';

  let { onpicked }: { onpicked: () => void } = $props();

  let own = $state.raw<ShelfEntry[]>([]);
  let shelf = $state.raw<TradeEntry[]>([]);
  let refused = $state.raw<Failure | null>(null);
  void api.shelf({ find: '' }).then((a) => a.ok && (own = a.data.entries.filter((e) => e.kind === 'region')));
  void api.trade('region').then((a) => a.ok && (shelf = a.data));
  const left = $derived(shelf.filter((t) => !own.some((e) => e.id === t.id)));

  async function pick(id: string, copy: boolean) {
    if (copy) {
      const taken = await api.takeFromTrade(id);
      if (!taken.ok) return void (refused = taken.failure);
    }
    const answer = await api.setRegion('', id);
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) onpicked();
  }
</script>

<ul class="grid gap-1">
  {#each own as e (e.id)}<li class="grid">
      <button type="button" class="button text-left" onclick={() => pick(e.id, false)}>{e.name}</button>
    </li>{/each}
  {#each left as t (t.id)}<li class="grid">
      <button type="button" class="button text-left" onclick={() => pick(t.id, true)}
        >{t.name} <small class="soft text-small block font-normal">{t.source}</small></button
      >
    </li>{/each}
</ul>
<Caution>Bands and power are your country's law. Ask your authority; some powers need a licence.</Caution>
{#if refused}<FailureNote failure={refused} />{/if}
