<script lang="ts">
  // The link held against today's as a waterfall: from today's link each part
  // lifts or lowers it, and the last bar is what is left.
  import type { AntennaView } from '../api/client.svelte';
  import { percentScale } from '../lib/scale';
  import { fixed, signed } from '../lib/words';

  let { budget }: { budget: AntennaView['budgets'][number] } = $props();

  const rows = $derived.by(() => {
    let level = 0;
    return budget.rows.map((r) => {
      const change = r.nowDB !== undefined && r.nextDB !== undefined ? r.nextDB - r.nowDB : undefined;
      const from = level;
      level += change ?? 0;
      return { ...r, change, from, to: level };
    });
  });
  const low = $derived(Math.min(-3, ...rows.map((r) => r.to)) - 1);
  const high = $derived(Math.max(3, ...rows.map((r) => r.to)) + 1);
  const at = $derived(percentScale(low, high));
  const bar = (from: number, to: number) =>
    `left:${at(Math.min(from, to))}%;width:${Math.max(0.8, at(Math.max(from, to)) - at(Math.min(from, to)))}%`;
  const dB = (x: number | undefined) => (x === undefined ? '?' : fixed(x, 1));
</script>

<section class="panel px-3.5 py-2.5" aria-label={`Link on ${budget.label} against today`}>
  <h3>{budget.says}</h3>
  {#if rows.length > 0}
    <table class="w-full border-collapse text-note">
      <thead
        ><tr
          ><th class="text-soft" scope="col">dB</th><th class="text-soft" scope="col">today</th><th
            class="text-soft"
            scope="col">next</th
          ><th class="text-soft" scope="col">change</th><th scope="col" class="fall text-soft"
            ><span class="zero" style:left={`${at(0)}%`}>today</span><span class="unseen">as bars</span></th
          ></tr
        ></thead
      >
      <tbody>
        {#each rows as r (r.what)}
          <tr>
            <th scope="row">{r.what}</th>
            <td class="mono">{dB(r.nowDB)}</td>
            <td class="mono">{dB(r.nextDB)}</td>
            <td class="mono">{r.change === undefined ? 'left out' : signed(r.change, 1)}</td>
            <td class="fall" aria-hidden="true"
              ><span class="line" style:left={`${at(0)}%`}></span>{#if r.change === undefined}<i
                  class="gap"
                  style={bar(r.from, r.from)}
                ></i>{:else if Math.abs(r.change) > 0.05}<i
                  class={r.change > 0 ? 'up' : 'down'}
                  style={bar(r.from, r.to)}
                ></i>{:else}<i class="same" style={bar(r.from, r.from)}></i>{/if}</td
            >
          </tr>
        {/each}
        {#if budget.changeDB !== undefined}
          <tr class="sum">
            <th scope="row">together</th><td></td><td></td>
            <td class="mono">{signed(budget.changeDB, 1)}</td>
            <td class="fall" aria-hidden="true"
              ><span class="line" style:left={`${at(0)}%`}></span><i
                class={budget.changeDB < -0.05 ? 'down' : budget.changeDB > 0.05 ? 'up' : 'same'}
                style={bar(0, budget.changeDB)}
              ></i></td
            >
          </tr>
        {/if}
      </tbody>
    </table>
  {/if}
</section>

<style>
  th,
  td {
    text-align: left;
    font-weight: 500;
    padding: 0.1rem 0.8rem 0.1rem 0;
  }
  .fall {
    width: 38%;
    min-width: 90px;
    position: relative;
    padding: 0;
  }
  .zero,
  .line,
  i {
    position: absolute;
  }
  .zero {
    transform: translateX(-50%);
    top: 0;
    font-size: 0.85rem;
  }
  .line {
    top: 0;
    bottom: 0;
    border-left: 1.5px dashed var(--soft);
  }
  i {
    top: 5px;
    height: 15px;
  }
  .up {
    background: var(--fits);
  }
  .down {
    background: var(--unfit);
  }
  .same {
    background: var(--soft);
  }
  .gap {
    border-left: 2px dotted var(--ink);
  }
  .sum th,
  .sum td {
    font-weight: 750;
    border-top: 1.5px solid var(--soft);
  }
  @media (max-width: 520px) {
    th,
    td {
      padding-right: 0.4rem;
      font-size: 0.9rem;
    }
    .fall {
      min-width: 60px;
      padding: 0;
    }
  }
</style>
