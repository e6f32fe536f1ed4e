<script lang="ts">
  // The steps from left to right, and under each who can fly then and with what.
  import type { RouteLane, RouteStep } from '../api/client.svelte';
  import { moveOf } from './words';
  import Scroll from '../lib/Scroll.svelte';

  interface Props {
    steps: RouteStep[];
    lanes: RouteLane[];
    begins: string;
  }
  let { steps, lanes, begins }: Props = $props();
  const stops = $derived([null, ...steps]);
  const fliesAfter = (lane: RouteLane, done: number) => lane.turns.findLast((t) => t.after <= done)?.flies ?? [];
</script>

<Scroll label="Step by step" of="panel">
  <table>
    <thead>
      <tr>
        <th scope="col" class="quad"><span class="unseen">quad</span></th>
        {#each stops as step, i (i)}
          <th
            scope="col"
            class="stop min-w-27 max-w-44 wrap-anywhere align-top text-left font-normal border border-line rounded leading-snug bg-raised px-2 py-1.5"
            class:door={step?.oneWay}
          >
            {#if step}
              <span class="text-soft">{i}</span> <b>{step.label}</b>
              <span class="mono">{moveOf(step)}</span>
              {#if step.minutes !== undefined}<span class="soft">about {step.minutes} min</span>{/if}
              {#if step.tools.length > 0}<span class="soft">{step.tools.join(' or ')}</span>{/if}
              {#if step.oneWay}<span class="warn text-unfit font-bold">no way back</span>{/if}
              {#each step.warns as w, at (at)}<span class="warn text-unfit font-bold">{w}</span>{/each}
              {#if step.gains.length > 0}<span class="text-fits">gains {step.gains.join(', ')}</span>{/if}
              {#if step.loses.length > 0}<span class="text-unfit">loses {step.loses.join(', ')}</span>{/if}
            {:else}<b>{begins}</b>{/if}
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each lanes as lane (lane.quad)}
        <tr>
          <th scope="row" class="quad"
            >{lane.name}{#if lane.bench}<small class="block font-normal text-soft">its swap comes first</small>{/if}</th
          >
          {#each stops.keys() as i (i)}
            {@const flies = fliesAfter(lane, i)}
            <td class={flies.length > 0 ? (lane.bench ? 'bench' : 'flies') : 'dark'}
              >{flies.length > 0 ? flies.join(', ') : 'none'}</td
            >
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
</Scroll>

<style>
  table {
    border-collapse: separate;
    border-spacing: 3px;
    font-size: 0.88rem;
  }
  .quad {
    text-align: left;
    position: sticky;
    left: 0;
    background: var(--sheet);
    min-width: 5.6rem;
    font-weight: 700;
  }
  .stop span:not(.number) {
    display: block;
  }
  .door {
    border: 3px double var(--unfit);
  }
  td {
    text-align: center;
    border-radius: 4px;
    padding: 0.2rem 0.4rem;
    height: 30px;
  }
  .flies {
    background: var(--fits-wash);
    color: var(--fits);
    font-weight: 600;
  }
  .bench {
    border: 1.5px dashed var(--change);
    color: var(--change);
  }
  .dark {
    color: var(--soft);
    font-style: italic;
  }
</style>
