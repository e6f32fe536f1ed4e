<script lang="ts">
  // The choice in order: what is ordered when, what is done on which bench day, what flies after it.
  import { untrack } from 'svelte';
  import { api, type Asked, type OrderView } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import { money } from '../lib/words';

  interface Props {
    asked: Asked;
    by: string;
    every: string; // days between two bench days; empty: as is usual
    onshow: (days: Record<string, string>) => void; // by and every
  }
  let { asked, by, every, onshow }: Props = $props();
  const view = new Loaded<OrderView>();
  const query = $derived({ ...asked, ...(by ? { by } : {}), ...(every ? { every: Number(every) } : {}) });
  $effect(() => {
    const of = query;
    untrack(() => void view.take(api.order(of)));
  });
  const list = (words: string[]) => words.join(', ');
</script>

<section class="panel px-4 py-2.5 grid gap-2" aria-labelledby="months">
  <h2 id="months" class="text-body m-0">{view.data?.says ?? 'In order'}</h2>
  <div class="flex flex-wrap gap-3">
    <label class="grid gap-0.5"
      >Done by <input type="date" value={by} onchange={(e) => onshow({ by: e.currentTarget.value })} /></label
    >
    <label class="grid gap-0.5"
      >A bench day every … days <input
        type="number"
        min="1"
        max="90"
        class="w-24"
        value={every || String(view.data?.every ?? '')}
        onchange={(e) => e.currentTarget.reportValidity() && onshow({ every: e.currentTarget.value })}
      /></label
    >
  </div>
  {#if view.failure}<FailureNote failure={view.failure} again={() => view.take(api.order(query))} />{/if}
  {#if view.data}
    {@const d = view.data}
    <p class="soft">
      {d.purse.stated
        ? `From ${money(d.purse.now, d.currency)} today${d.purse.month > 0 ? ` and ${money(d.purse.month, d.currency)} more each month` : ''}`
        : `As if the budget of ${money(d.purse.now, d.currency)} were there today; what there is can be stated below`},
      one bench day every {d.every === 1 ? 'day' : `${d.every} days`}. {d.exact
        ? 'No other order brings more worth sooner.'
        : 'Built step by step: another order may bring more worth sooner.'} Nothing is bought that a later step makes useless.
    </p>
    {#if d.sells.length > 0}<p>Left over from today on, to sell: {list(d.sells)}.</p>{/if}
    <ol class="grid gap-2 list-none p-0 m-0" aria-label="Bench days">
      {#each d.stages as s, i (i)}
        <li class="stage grid gap-1 pl-3">
          <strong
            ><time datetime={s.benchOn}>{s.benchOn}</time>: {list(
              s.quads.map((q) => `${q.name} gets ${q.label}`),
            )}</strong
          >
          {#if s.orderOn}
            <span
              >Order on {s.orderOn}: {list(s.buys)}, {money(s.amount, d.currency)}; there on {s.thereOn}{s.assumed
                ? ', as far as delivery times are stated'
                : ''}.</span
            >
          {:else}<span>Nothing to order.</span>{/if}
          {#if s.updates.length > 0}<span>Goggles: {list(s.updates)}.</span>{/if}
          {#if s.sells.length > 0}<span>Left over to sell: {list(s.sells)}.</span>{/if}
          <span
            >{s.flies}
            {s.flies === 1 ? 'quad flies' : 'quads fly'} digital then{s.waits.length > 0
              ? `; ${list(s.waits)} ${s.waits.length === 1 ? 'waits' : 'wait'} on the ground for its turn`
              : ''}. {money(s.left, d.currency)} are left.</span
          >
        </li>
      {/each}
    </ol>
  {:else if !view.failure}<p class="soft" role="status">Putting it in order…</p>{/if}
</section>

<style>
  .stage {
    border-left: 4px solid var(--line);
  }
</style>
