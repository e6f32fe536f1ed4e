<script lang="ts">
  // What the choice costs, line by line, and what it brings.
  import type { FleetDecision } from '../api/client.svelte';
  import { money } from '../lib/words';
  import Scroll from '../lib/Scroll.svelte';

  let { d }: { d: FleetDecision } = $props();
  const total = $derived(d.points[d.chosen]?.money ?? 0);

  function from(l: FleetDecision['bill'][number]): string {
    if (l.sold) return 'sold';
    const parts = [
      l.buy > 0 ? `${l.buy} to buy${l.used ? ', used' : ''}` : '',
      l.drawer ? `${l.drawer} in the drawer` : '',
      l.boxed ? `${l.boxed} in a box` : '',
      l.count === 0 ? 'for what comes with it' : '',
    ];
    return parts.filter(Boolean).join(', ');
  }
</script>

<section class="panel px-4 py-2.5" aria-labelledby="bill">
  <h2 id="bill" class="text-body m-0">
    The bill: {total < 0 ? `it brings ${money(-total, d.currency)}` : money(total, d.currency)}
  </h2>
  {#if d.bill.length === 0}
    <p>Nothing is bought.</p>
  {:else}
    <Scroll label="Lines of the bill" of="overflow-x-auto">
      <table>
        <thead
          ><tr
            ><th scope="col">what</th><th scope="col">where from</th><th scope="col">for</th><th scope="col"
              >there in</th
            ><th scope="col" class="text-right">{d.currency}</th></tr
          ></thead
        >
        <tbody>
          {#each d.bill as l, i (i)}
            <tr>
              <th scope="row"
                >{l.label}{#if l.with}<small class="block soft font-normal">with {l.with.join(', ')}</small>{/if}</th
              >
              <td>{from(l)}</td>
              <td>{l.for.join(', ')}</td>
              <td>{l.buy === 0 || l.sold ? '' : l.days === undefined ? 'not stated' : `${l.days} days`}</td>
              <td class="mono text-right whitespace-nowrap"
                >{money(l.amount, '').trim()}{#if l.assumed}<small class="block soft">assumed</small>{/if}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </Scroll>
  {/if}
</section>

<style>
  th,
  td {
    padding: 3px 14px 3px 0;
    text-align: left;
    vertical-align: top;
  }
  .text-right {
    text-align: right;
    padding-right: 0;
  }
</style>
