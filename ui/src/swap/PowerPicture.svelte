<script lang="ts">
  // The supply as a ladder: one rung a part, its window as an open channel, the
  // voltage it will really see as a bar in it. What sticks out is hatched.
  import type { Path } from '../api/client.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { levelOf, levelWords } from '../lib/levels';
  import { shortVolts, voltageScale } from '../lib/scale';
  import { fixed } from '../lib/words';

  let { path }: { path: Path } = $props();
  let width = $state(640);
  const side = 26;
  const inner = $derived(Math.max(200, width - 2 * side));
  const highest = $derived(
    Math.max(
      5,
      ...path.nodes.flatMap((n) => [n.sees.full ?? 0, Math.min(n.maxV ?? 0, 2.2 * (n.sees.full ?? n.maxV ?? 0))]),
    ),
  );
  const scale = $derived(voltageScale(highest, inner));
  const end = $derived(scale.ticks(6).at(-1) ?? highest);
  const limit = (v: number) => scale(Math.min(v, end));

  function words(n: Path['nodes'][number]): string {
    const sees =
      n.sees.full === undefined
        ? 'a voltage not known'
        : `${n.sees.lowest === undefined ? 'not known' : shortVolts(n.sees.lowest)} to ${shortVolts(n.sees.full)} volts`;
    const window =
      n.minV === undefined && n.maxV === undefined
        ? ''
        : `, window ${n.minV ?? 'not known'} to ${n.maxV ?? 'not known'} volts`;
    return `${n.label} sees ${sees}${window}: ${levelWords[levelOf(n.level)]}.`;
  }
</script>

<figure class="panel overflow-hidden px-0 pt-2 pb-1" bind:clientWidth={width}>
  <figcaption class="unseen">The voltage at each part against its window. {path.nodes.map(words).join(' ')}</figcaption>
  <ol aria-hidden="true">
    {#each path.nodes as n (n.id)}
      <li class="relative">
        <div class="flex flex-wrap items-center gap-y-0 gap-x-2 text-note leading-snug px-7 py-0">
          {#if n.id !== 'pack'}<LevelMark level={n.level} size={16} />{/if}
          <strong>{n.label}</strong>
          <span class="soft"
            >{n.id === 'pack'
              ? 'full charge, nominal (the notch), lowest under load'
              : n.from
                ? `from ${n.from}`
                : 'fed from nothing yet'}</span
          >
          {#if n.sees.full === undefined || n.sees.lowest === undefined}<em class="text-unknown font-semibold"
              >a voltage is not known</em
            >{/if}
          <span class="mono flex flex-wrap gap-3.5 text-small leading-normal ml-auto">
            {#if n.sees.full !== undefined}<span class="font-bold"
                >sees {n.sees.lowest === undefined ? '?' : shortVolts(n.sees.lowest)} to {shortVolts(n.sees.full)} V</span
              >{/if}
            {#if n.id !== 'pack'}<span class="soft"
                >takes {n.minV === undefined ? '?' : shortVolts(n.minV)} to {n.maxV === undefined
                  ? '?'
                  : shortVolts(n.maxV)} V</span
              >{/if}
          </span>
        </div>
        <svg width={width - 2} height="30">
          <defs>
            <pattern
              id={`hatch-${n.id}`}
              width="6"
              height="6"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <rect width="6" height="6" class="hatch-ground" /><rect width="3" height="6" class="hatch-line" />
            </pattern>
          </defs>
          <g transform={`translate(${side} 0)`}>
            <line x1="0" x2={inner} y1="15" y2="15" class="axis" />
            {#if n.maxV !== undefined && n.minV !== undefined}
              <rect
                x={scale(n.minV)}
                y="4"
                width={Math.max(2, limit(n.maxV) - scale(n.minV))}
                height="22"
                class="window"
              />
              <line x1={scale(n.minV)} x2={scale(n.minV)} y1="1" y2="29" class="stop" />
              {#if n.maxV <= end}<line x1={scale(n.maxV)} x2={scale(n.maxV)} y1="1" y2="29" class="stop" />{/if}
            {/if}
            {#if n.sees.full !== undefined}
              {@const low = n.sees.lowest ?? n.sees.full}
              {@const top = n.sees.full}
              <rect
                x={scale(low)}
                y="9"
                width={Math.max(3, scale(top) - scale(low))}
                height="12"
                class="sees {n.sees.lowest === undefined ? 'unsure' : ''}"
              />
              {#if n.sees.nominal !== undefined}<line
                  x1={scale(n.sees.nominal)}
                  x2={scale(n.sees.nominal)}
                  y1="9"
                  y2="21"
                  class="nominal"
                />{/if}
              {#if n.over && n.maxV !== undefined}
                <rect
                  x={scale(Math.max(n.maxV, low))}
                  y="6"
                  width={Math.max(3, scale(top) - scale(Math.max(n.maxV, low)))}
                  height="18"
                  fill={`url(#hatch-${n.id})`}
                  class="out"
                />
              {/if}
              {#if n.under && n.minV !== undefined}
                <rect
                  x={scale(low)}
                  y="6"
                  width={Math.max(3, scale(Math.min(n.minV, top)) - scale(low))}
                  height="18"
                  fill={`url(#hatch-${n.id})`}
                  class="out"
                />
              {/if}
            {/if}
          </g>
        </svg>
      </li>
    {/each}
  </ol>
  <svg width={width - 2} height="22" aria-hidden="true" class="ticks">
    <g transform={`translate(${side} 0)`}>
      {#each scale.ticks(6) as t (t)}
        <line x1={scale(t)} x2={scale(t)} y1="0" y2="5" class="axis" />
        <text x={scale(t)} y="18" text-anchor="middle">{t}{t === end ? ' V' : ''}</text>
      {/each}
    </g>
  </svg>
  {#if path.rails.length > 0}
    <ul class="flex border-t border-t-line flex-wrap gap-y-0.5 gap-x-6 text-note mt-1 px-7 pt-1.5 pb-1">
      {#each path.rails as r (r.id)}
        <li class="relative inline-flex flex-wrap items-center gap-y-0 gap-x-1.5">
          <LevelMark level={r.level} size={16} />
          {r.label}:
          <strong
            >{r.loadA === undefined ? '?' : fixed(r.loadA, 2)} of {r.maxA === undefined ? '?' : fixed(r.maxA, 2)} A</strong
          >
          <span class="soft"
            >at peak{r.typicalA === undefined ? '' : `, ${fixed(r.typicalA, 2)} A typical`}{r.heatW === undefined
              ? ''
              : `, ${fixed(r.heatW, 1)} W of heat`}</span
          >
          <ul>
            {#each r.carries as c, k (k)}<li class="soft relative inline-flex flex-wrap items-center gap-y-0 gap-x-1.5">
                {c.label}: {c.peakA === undefined ? 'peak not known' : `${fixed(c.peakA, 2)} A`}{c.typicalA ===
                undefined
                  ? ''
                  : `, ${fixed(c.typicalA, 2)} A typical`}
              </li>{/each}
          </ul>
        </li>
      {/each}
    </ul>
  {/if}
</figure>

<style>
  .axis {
    stroke: var(--line);
    stroke-width: 1;
  }
  .window {
    fill: var(--fits-wash);
    stroke: none;
  }
  .stop {
    stroke: var(--ink);
    stroke-width: 2.5;
  }
  .nominal {
    stroke: var(--sheet);
    stroke-width: 2;
  }
  .sees {
    fill: var(--accent);
  }
  .unsure {
    fill: none;
    stroke: var(--unknown);
    stroke-width: 2;
    stroke-dasharray: 4 3;
  }
  .out {
    stroke: var(--unfit);
    stroke-width: 2;
  }
  .hatch-ground {
    fill: var(--unfit-wash);
  }
  .hatch-line {
    fill: var(--unfit);
  }
  text {
    fill: var(--soft);
    font-size: 12px;
    font-family: var(--font-mono);
  }
</style>
