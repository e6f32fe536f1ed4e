<script lang="ts">
  // The steps from left to right, and under each who can fly then and with what.
  import type { RouteView } from '../api/client';

  let { plan }: { plan: RouteView['plan'] } = $props();
  const stops = $derived([{ label: 'today', step: null }, ...plan.steps.map((step) => ({ label: step.label, step }))]);
</script>

<section aria-labelledby="steps">
  <h2 id="steps">{plan.steps.length === 0 ? 'Nothing to update' : 'The steps, and who can fly after each'}</h2>
  {#if plan.lanes.length > 0}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex: what scrolls must be reached by keyboard -->
    <div class="scroll panel" role="group" aria-label="Step by step" tabindex="0">
      <table>
        <thead>
          <tr>
            <th scope="col" class="quad"><span class="unseen">quad</span></th>
            {#each stops as s, i (i)}
              <th scope="col" class="stop" class:door={s.step?.oneWay}>
                {#if s.step}
                  <span class="number">{i}</span> <b>{s.label}</b>
                  <span class="mono">{s.step.to ? `${s.step.from || '?'} → ${s.step.to}` : 'activate'}</span>
                  <span class="soft">{s.step.tools.join(' or ') || 'tool not stated'}</span>
                  {#if s.step.oneWay}<span class="warn">no way back</span>{/if}
                  {#if s.step.avoid}<span class="warn">best avoided: {s.step.avoid}</span>{/if}
                {:else}<b>today</b>{/if}
              </th>
            {/each}
          </tr>
        </thead>
        <tbody>
          {#each plan.lanes as lane (lane.quad)}
            <tr>
              <th scope="row" class="quad">{lane.name}{#if lane.bench}<small>its swap comes first</small>{/if}</th>
              {#each stops as _, i (i)}
                {@const flies = lane.flies[i] ?? []}
                <td class={flies.length > 0 ? (lane.bench ? 'bench' : 'flies') : 'dark'}>{flies.length > 0 ? flies.join(', ') : 'none'}</td>
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
  {#if plan.steps.length > 0}
    <div class="back">
      <h2>The way back</h2>
      {#each plan.doors as d (d)}<p class="warn">{d}</p>{/each}
      {#if plan.back.length > 0}
        <ol>
          {#each plan.back as s, i (i)}<li>{s.label}: <span class="mono">{s.from} → {s.to}</span> <span class="soft">{s.tools.join(' or ')}</span></li>{/each}
        </ol>
      {:else if plan.doors.length === 0}
        <p>Nothing has to be put back.</p>
      {/if}
    </div>
  {/if}
</section>

<style>
  h2 {
    font-weight: 700;
    margin-bottom: 0.3rem;
  }
  .scroll {
    overflow-x: auto;
  }
  table {
    border-collapse: separate;
    border-spacing: 4px;
    font-size: 0.92rem;
  }
  .quad {
    text-align: left;
    position: sticky;
    left: 0;
    background: var(--sheet);
    min-width: 7.5rem;
    font-weight: 700;
  }
  .quad small {
    display: block;
    font-weight: 400;
    color: var(--soft);
  }
  .stop {
    min-width: 8.2rem;
    max-width: 11rem;
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
  .warn {
    color: var(--unfit);
    font-weight: 700;
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
  .back {
    margin-top: 1rem;
  }
  ol {
    margin: 0;
    padding-left: 1.3rem;
    list-style: decimal;
  }
</style>
