<script lang="ts">
  // Money against worth: a step for each choice that no other beats. The points are buttons
  // in a list as well, for keys and readers.
  import { scaleLinear } from 'd3-scale';
  import type { FleetDecision } from '../api/client.svelte';
  import { money as inWords } from '../lib/words';

  interface Props {
    points: FleetDecision['points'];
    chosen: number;
    currency: string;
    onchoose: (money: number) => void;
  }
  let { points, chosen, currency, onchoose }: Props = $props();
  let width = $state(640);
  const height = 220;
  const edge = { left: 56, right: 14, top: 12, bottom: 34 };
  const least = $derived(Math.min(0, ...points.map((p) => p.money)));
  const most = $derived(Math.max(1, ...points.map((p) => p.money)));
  const worths = $derived(points.map((p) => p.worth));
  const x = $derived(scaleLinear([least * 1.05, most * 1.05], [edge.left, width - edge.right]));
  const y = $derived(
    scaleLinear(
      [Math.min(...worths), Math.max(...worths, Math.min(...worths) + 1)],
      [height - edge.bottom, edge.top + 10],
    ).nice(4),
  );
  const line = $derived(
    points
      .map((p, i) => `${i === 0 ? `M${x(p.money)}` : `H${x(p.money)}`} ${i === 0 ? y(p.worth) : `V${y(p.worth)}`}`)
      .join(' ') + ` H${width - edge.right}`,
  );
  const price = (m: number) => (m > 0 ? inWords(m, currency) : m < 0 ? `brings ${inWords(-m, currency)}` : 'nothing');
</script>

<figure class="panel px-3 py-2 m-0" bind:clientWidth={width}>
  <svg class="block w-full" {height} viewBox={`0 0 ${width} ${height}`} aria-hidden="true">
    {#each y.ticks(4) as t (t)}
      <line x1={edge.left} x2={width - edge.right} y1={y(t)} y2={y(t)} class="grid-line" />
      <text x={edge.left - 8} y={y(t) + 4} text-anchor="end">{t}</text>
    {/each}
    {#each x.ticks(Math.max(2, width / 120)) as t (t)}
      <text x={x(t)} y={height - 14} text-anchor="middle">{t}</text>
    {/each}
    <text x={width - edge.right} y={height - 1} text-anchor="end">{currency}</text>
    <text x={4} y={edge.top}>worth</text>
    <path d={line} class="step" />
    {#each points as p, i (i)}
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
      <g class="point" class:on={i === chosen} onclick={() => onchoose(p.money)}>
        <circle cx={x(p.money)} cy={y(p.worth)} r="14" class="touch" />
        <circle cx={x(p.money)} cy={y(p.worth)} r={i === chosen ? 8 : 5} />
      </g>
    {/each}
  </svg>
  <figcaption>
    <div class="flex flex-wrap gap-1.5" role="group" aria-label="Choices, the cheapest first">
      {#each points as p, i (i)}
        <button type="button" class="button" aria-pressed={i === chosen} onclick={() => onchoose(p.money)}
          >{price(p.money)}<span class="soft text-note">&nbsp;worth {p.worth}</span></button
        >
      {/each}
    </div>
  </figcaption>
</figure>

<style>
  text {
    font-size: 13px;
    fill: var(--soft);
  }
  .grid-line {
    stroke: var(--line);
  }
  .step {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  .point circle {
    fill: var(--raised);
    stroke: var(--ink);
    stroke-width: 2;
    cursor: pointer;
  }
  .point.on circle {
    fill: var(--ink);
  }
  .point .touch,
  .point.on .touch {
    fill: transparent;
    stroke: none;
  }
  .button[aria-pressed='true'] .soft {
    color: inherit;
  }
</style>
