<script lang="ts">
  // The camera in its cage from the side: as it is to look, and as far as it goes.
  import type { MountView } from '../api/client.svelte';
  import { fixed } from '../lib/words';

  type Tilt = NonNullable<MountView['picture']['tilt']>;
  let { tilt }: { tilt: Tilt } = $props();

  const scale = $derived(180 / Math.max(30, tilt.downMM + tilt.upMM));
  const x = $derived(18 + tilt.behindMM * scale);
  const y = $derived(20 + tilt.upMM * scale);
  const width = $derived(x + (tilt.frontMM + 14) * scale);
  const height = $derived(20 + (tilt.upMM + tilt.downMM) * scale + 30);
  const shown = $derived(tilt.wanted ?? Math.max(0, Math.min(tilt.upDeg, 45)));
  const free = $derived(Math.floor(tilt.upDeg));
  const bad = $derived(shown > tilt.upDeg);
</script>

<div class="max-w-70">
  <svg
    viewBox={`0 0 ${width} ${height}`}
    {width}
    {height}
    role="img"
    aria-label={`Camera from the side, looking up by ${fixed(shown, 0)}°; ${free < 0 ? 'it touches as it lies' : `free up to ${free}°`}`}
  >
    <path d={`M 18 20 H ${width} M 18 ${20 + (tilt.upMM + tilt.downMM) * scale} H ${width}`} class="wall" />
    <path d={`M 18 20 V ${20 + (tilt.upMM + tilt.downMM) * scale}`} class="wall behind" />
    <g transform={`translate(${x} ${y}) rotate(${-shown})`}>
      <rect
        x={-tilt.backMM * scale}
        y={(-tilt.heightMM / 2) * scale}
        width={(tilt.backMM + tilt.frontMM) * scale}
        height={tilt.heightMM * scale}
        class="body"
        class:bad
      />
      <rect x={tilt.frontMM * scale} y={-3 * scale} width={4 * scale} height={6 * scale} class="lens" />
      <path d={`M ${(tilt.frontMM + 4) * scale} 0 h ${8 * scale}`} class="sight" />
    </g>
    <circle cx={x} cy={y} r="4" class="screw" />
    <text x="22" y="15">top plate</text>
    <text x="22" y={height - 12}>bottom plate</text>
  </svg>
  <p>
    <b>{tilt.wanted === undefined ? `drawn at ${fixed(shown, 0)}°` : `up by ${tilt.wanted}°`}</b>: {free < 0
      ? `level, it already touches ${tilt.touches}`
      : free >= 90
        ? 'turns freely'
        : `free up to ${free}°, then it touches ${tilt.touches}`}
  </p>
</div>

<style>
  svg {
    max-width: 100%;
    height: auto;
  }
  text {
    fill: var(--soft);
    font-size: 13px;
  }
  .wall {
    fill: none;
    stroke: var(--ink);
    stroke-width: 4;
  }
  .wall.behind {
    stroke: var(--soft);
    stroke-width: 3;
    stroke-dasharray: 5 4;
  }
  .body {
    fill: var(--accent-wash);
    stroke: var(--accent);
    stroke-width: 2;
  }
  .body.bad {
    fill: var(--unfit-wash);
    stroke: var(--unfit);
  }
  .lens {
    fill: var(--soft);
    stroke: var(--ink);
  }
  .sight {
    stroke: var(--accent);
    stroke-width: 2;
    stroke-dasharray: 4 3;
  }
  .screw {
    fill: var(--ink);
  }
</style>
