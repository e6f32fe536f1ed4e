<script lang="ts">
  // Each spot with both sides: where the lowest bit rate was, and where it is now. The same
  // stands as a table for readers.
  import { scaleLinear } from 'd3-scale';
  import type { Proof } from '../api/client.svelte';

  let { proof }: { proof: Proof } = $props();
  let width = $state(640);
  const row = 46;
  const top = 26;
  const left = $derived(Math.min(190, width * 0.4));
  const most = $derived(
    Math.max(1, ...proof.spots.flatMap((s) => [s.before.lowestMbps ?? 0, s.after.lowestMbps ?? 0])),
  );
  const x = $derived(scaleLinear([0, most * 1.08], [left, width - 46]).nice(4));
  const height = $derived(top + row * proof.spots.length + 6);
  const signs: Record<string, string> = { better: '▲', worse: '▼', same: '=', open: '?', 'left out': '–' };
  const froze = (n: number | undefined) =>
    n === undefined ? 'not counted' : n === 0 ? 'none' : `${+n.toFixed(1)} a pass`;
  const rate = (n: number | undefined) => (n === undefined ? 'not read' : `${+n.toFixed(2)} Mbit/s`);
</script>

<figure class="panel px-3 py-2 m-0" bind:clientWidth={width}>
  <svg class="block w-full" {height} viewBox={`0 0 ${width} ${height}`} aria-hidden="true">
    {#each x.ticks(4) as t (t)}
      <line class="grid-line" x1={x(t)} x2={x(t)} y1={top - 6} y2={height} />
      <text x={x(t)} y={12} text-anchor="middle">{t}</text>
    {/each}
    <text x={4} y={12}>lowest Mbit/s</text>
    {#each proof.spots as s, i (s.id)}
      {@const y = top + row * i + row / 2}
      {@const was = s.before.lowestMbps}
      {@const is = s.after.lowestMbps}
      <text class="name" x={4} y={y - 2}>{s.label.length > 26 ? s.label.slice(0, 25) + '…' : s.label}</text>
      {#if s.atM !== undefined}<text x={4} y={y + 14}>{s.atM} m</text>{/if}
      {#if was !== undefined && is !== undefined}<line
          class={`pair ${s.rate}`}
          x1={x(was)}
          x2={x(is)}
          y1={y}
          y2={y}
        />{/if}
      {#if was !== undefined}<circle class="was" cx={x(was)} cy={y} r="6" />{/if}
      {#if is !== undefined}<rect class={`is ${s.rate}`} x={x(is) - 6.5} y={y - 6.5} width="13" height="13" />{/if}
      <text class={`sign ${s.rate}`} x={width - 24} y={y + 6}>{signs[s.rate]}</text>
    {/each}
  </svg>
  <figcaption class="grid grid-cols-[minmax(0,1fr)] gap-1">
    <span class="soft text-note flex flex-wrap gap-x-5"
      ><span>○ before: {proof.before.label}</span><span>■ after: {proof.after.label}</span><span
        >▲ better, ▼ worse, = the same, ? not read on both sides</span
      ></span
    >
    <details>
      <summary class="cursor-pointer min-h-8 font-semibold">As a table</summary>
      <div class="scroll">
        <table class="rows">
          <thead
            ><tr
              ><th scope="col">spot</th><th scope="col">before</th><th scope="col">after</th><th scope="col"
                >bit rate</th
              ><th scope="col">frozen, before</th><th scope="col">frozen, after</th><th scope="col">picture</th></tr
            ></thead
          >
          <tbody>
            {#each proof.spots as s (s.id)}
              <tr>
                <th scope="row"
                  >{s.label}{#if s.behind}<small class="soft block font-normal">behind {s.behind}</small>{/if}</th
                >
                <td class="mono">{rate(s.before.lowestMbps)}</td>
                <td class="mono">{rate(s.after.lowestMbps)}</td>
                <td>{s.rate}</td>
                <td>{froze(s.before.freezes)}</td>
                <td>{froze(s.after.freezes)}</td>
                <td>{[...new Set([...(s.before.pictures ?? []), ...(s.after.pictures ?? [])])].join(', ')}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    </details>
  </figcaption>
</figure>

<style>
  text {
    font-size: 12px;
    fill: var(--soft);
  }
  .name {
    font-size: 14px;
    font-weight: 650;
    fill: var(--ink);
  }
  .grid-line {
    stroke: var(--line);
  }
  .pair {
    stroke: var(--soft);
    stroke-width: 3;
  }
  .was {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 2;
  }
  .is {
    fill: var(--ink);
  }
  .is.better,
  .sign.better {
    fill: var(--fits);
  }
  .pair.better {
    stroke: var(--fits);
  }
  .is.worse,
  .sign.worse {
    fill: var(--unfit);
  }
  .pair.worse {
    stroke: var(--unfit);
  }
  .sign {
    font-size: 17px;
    font-weight: 700;
  }
</style>
