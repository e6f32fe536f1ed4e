<script lang="ts">
  // What else could be had: devices to buy, added as columns, each with what it opens and what it
  // costs.
  import type { RouteWhatIf, WhatIf } from '../api/client.svelte';
  import { money } from '../lib/words';

  interface Props {
    whatIf: WhatIf | RouteWhatIf;
    off?: string; // where from a column is taken off
    ontry: (models: string[]) => void;
  }
  let { whatIf, off = 'the board', ontry }: Props = $props();

  const kinds = { goggles: 'goggles', controller: 'controllers', airUnit: 'air units' } as const;
  const tried = $derived(whatIf.columns.map((c) => c.model));
  const groups = $derived(
    Object.entries(kinds)
      .map(([kind, title]) => ({
        title,
        devices: whatIf.devices.filter((d) => d.kind === kind && !tried.includes(d.model)),
      }))
      .filter((g) => g.devices.length > 0),
  );

  type Offered = WhatIf['devices'][number];
  function price(d: Offered & { count?: number }): string {
    const times = (d.count ?? 1) > 1 ? `${d.count} × ` : '';
    const new_ = d.price === undefined ? 'no price stated' : times + money(d.price / 100, d.currency);
    return d.used === undefined ? new_ : `${new_}, used ${times}${money(d.used / 100, d.currency)}`;
  }
</script>

{#if whatIf.devices.length > 0}
  <section class="mb-2.5 text-note" aria-label="What if you had more">
    {#if groups.length > 0}
      <label class="soft"
        >What if you had
        <select
          class="min-h-9 border border-line rounded bg-raised text-ink px-2 max-w-full"
          value=""
          onchange={(e) => ontry([...tried, e.currentTarget.value])}
        >
          <option value="" disabled>choose one to try…</option>
          {#each groups as g (g.title)}
            <optgroup label={g.title}>
              {#each g.devices as d (d.model)}<option value={d.model}>{d.name}: {price(d)}</option>{/each}
            </optgroup>
          {/each}
        </select></label
      >
    {/if}
    {#if whatIf.columns.length > 0}
      <ul class="list-none p-0 mt-1.5 mb-0" aria-live="polite">
        {#each whatIf.columns as c (c.model)}
          <li class="flex flex-wrap items-baseline gap-x-2.5">
            <span><strong>{c.says}</strong> <span class="soft">{price(c)}</span></span>
            <button
              type="button"
              class="min-h-8 cursor-pointer bg-transparent border-0 p-0 text-soft underline"
              onclick={() => ontry(tried.filter((m) => m !== c.model))}
              >take it off {off}<span class="unseen">: {c.name}</span></button
            >
          </li>
        {/each}
      </ul>
    {/if}
  </section>
{/if}
