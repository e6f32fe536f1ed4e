<script lang="ts">
  // The steps from left to right, and under each who can fly then and with what.
  import type { RouteLane, RouteStep } from '../api/client.svelte';
  import { moveOf } from './words';

  interface Props {
    steps: RouteStep[];
    lanes: RouteLane[];
    begins: string;
  }
  let { steps, lanes, begins }: Props = $props();
  const stops = $derived([null, ...steps]);
  const fliesAfter = (lane: RouteLane, done: number) => lane.turns.findLast((t) => t.after <= done)?.flies ?? [];
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex: what scrolls must be reached by keyboard -->
<div class="scroll panel" role="group" aria-label="Step by step" tabindex="0">
  <table>
    <thead>
      <tr>
        <th scope="col" class="quad"><span class="unseen">quad</span></th>
        {#each stops as step, i (i)}
          <th scope="col" class="stop" class:door={step?.oneWay}>
            {#if step}
              <span class="number">{i}</span> <b>{step.label}</b>
              <span class="mono">{moveOf(step)}</span>
              {#if step.minutes !== undefined}<span class="soft">about {step.minutes} min</span>{/if}
              {#if step.tools.length > 0}<span class="soft">{step.tools.join(' or ')}</span>{/if}
              {#if step.oneWay}<span class="warn">no way back</span>{/if}
              {#each step.warns as w, at (at)}<span class="warn">{w}</span>{/each}
              {#if step.gains.length > 0}<span class="gain">gains {step.gains.join(', ')}</span>{/if}
              {#if step.loses.length > 0}<span class="loss">loses {step.loses.join(', ')}</span>{/if}
            {:else}<b>{begins}</b>{/if}
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each lanes as lane (lane.quad)}
        <tr>
          <th scope="row" class="quad">{lane.name}{#if lane.bench}<small>its swap comes first</small>{/if}</th>
          {#each stops as _, i (i)}
            {@const flies = fliesAfter(lane, i)}
            <td class={flies.length > 0 ? (lane.bench ? 'bench' : 'flies') : 'dark'}>{flies.length > 0 ? flies.join(', ') : 'none'}</td>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
</div>

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
  .quad small {
    display: block;
    font-weight: 400;
    color: var(--soft);
  }
  .stop {
    min-width: 6.7rem;
    max-width: 11rem;
    overflow-wrap: anywhere;
    vertical-align: top;
    text-align: left;
    font-weight: 400;
    border: 1px solid var(--line);
    border-radius: 4px;
    padding: 0.35rem 0.5rem;
    line-height: 1.25;
    background: var(--raised);
  }
  .stop span:not(.number) {
    display: block;
  }
  .door {
    border: 3px double var(--unfit);
  }
  .number {
    color: var(--soft);
  }
  .warn,
  .loss {
    color: var(--unfit);
  }
  .warn {
    font-weight: 700;
  }
  .gain {
    color: var(--fits);
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
