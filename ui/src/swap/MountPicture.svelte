<script lang="ts">
  // The unit's holes laid over the bay's, to scale and with dimensions, the screw
  // in section beside them, the height and the camera's tilt from the side.
  import type { MountView } from '../api/client.svelte';
  import CameraTilt from './CameraTilt.svelte';
  import WeightChange from './WeightChange.svelte';
  import { fixed } from '../lib/words';

  let { view }: { view: MountView } = $props();
  const pic = $derived(view.picture);
  interface Holes {
    xMM: number;
    yMM: number;
    screw?: string;
  }
  const words = (h: Holes) => `${h.xMM}×${h.yMM}`;

  // The patterns, in a square of 290 with room for the dimensions.
  const size = 290;
  const middle = size / 2 - 14;
  const solid = $derived(
    pic.solidXMM !== undefined && pic.solidYMM !== undefined ? { x: pic.solidXMM, y: pic.solidYMM } : null,
  );
  const largest = $derived(
    Math.max(10, ...[...pic.ofUnit, ...pic.ofBay].flatMap((h) => [h.xMM, h.yMM]), ...(solid ? [solid.x, solid.y] : [])),
  );
  const scale = $derived((size - 84) / largest);
  const corners = (h: Holes) =>
    [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ].map(([x = 0, y = 0]) => ({ x: middle + (x * h.xMM * scale) / 2, y: middle + (y * h.yMM * scale) / 2 }));
  const square = (x: number, y: number) => ({
    x: middle - (x * scale) / 2,
    y: middle - (y * scale) / 2,
    width: x * scale,
    height: y * scale,
  });
  // What is measured out: the pattern that holds, else the first of the unit.
  const held = $derived(pic.ofUnit.find((h) => words(h) === pic.holds) ?? pic.ofUnit[0]);
  const foot = $derived(middle + (largest * scale) / 2 + 16);

  // The screw in section, 9 px a millimetre, the head on top.
  const mm = 9;
  const clamped = $derived(pic.screw?.clamped ?? []);
  const depth = $derived(pic.screw ? pic.screw.mostMM - clamped.reduce((sum, c) => sum + c.mm, 0) : 0);
  const section = $derived(
    clamped.map((c, i) => ({ ...c, y: 40 + mm * clamped.slice(0, i).reduce((sum, b) => sum + b.mm, 0) })),
  );
  const below = $derived(40 + mm * clamped.reduce((sum, c) => sum + c.mm, 0));
  const tip = $derived(pic.chosen === undefined ? undefined : 40 + mm * pic.chosen);
  const tall = $derived(Math.max(below + depth * mm + 50, (tip ?? 0) + 40));

  const highest = $derived(Math.max(pic.stackMM ?? 0, pic.clearMM ?? 0, 1));
</script>

<figure class="panel px-3.5 py-2.5">
  <figcaption class="unseen">
    {pic.missing ||
      `${pic.unit} has holes of ${pic.ofUnit.map(words).join(' and ')} mm, the ${pic.bay} ${pic.ofBay.map(words).join(' and ')} mm. ${pic.holds ? `It is held on ${pic.holds}${pic.plate ? ` through the ${pic.plate}` : pic.drilled ? ' in new holes' : ''}.` : pic.held ? `It is held by ${pic.held}.` : 'They do not meet.'}`}
  </figcaption>
  {#if pic.missing}
    <p>{pic.missing}</p>
  {:else}
    <p class="legend flex flex-wrap gap-y-0.5 gap-x-5">
      <span
        ><svg width="26" height="14" aria-hidden="true"
          ><path d="M1 7h24" class="bay" /><circle cx="13" cy="7" r="5" class="bay-hole" /></svg
        >
        {pic.bay}: {pic.ofBay.map(words).join(' and ')} mm</span
      >
      <span
        ><svg width="26" height="14" aria-hidden="true"
          ><path d="M1 7h24" class="unit" /><path d="M8 7h10M13 2v10" class="unit-hole" /></svg
        >
        {pic.unit}: {pic.ofUnit.map((h) => `${words(h)}${h.screw ? ` ${h.screw}` : ''}`).join(' and ')}</span
      >
      {#if pic.holds}<b
          >held on {pic.holds}{pic.plate ? ` through the ${pic.plate}` : pic.drilled ? ', four new holes' : ''}</b
        >{:else if pic.held}<b>held by {pic.held}, not by its holes</b>{:else}<b>the holes do not meet</b>{/if}
    </p>
    <div class="flex flex-wrap gap-y-1.5 gap-x-5.5 items-start">
      <svg viewBox={`0 0 ${size} ${size}`} width={size} height={size} aria-hidden="true">
        {#if solid}<rect {...square(solid.x, solid.y)} class="plate" />{/if}
        {#each pic.ofBay as h, i (i)}
          <rect {...square(h.xMM, h.yMM)} class="bay" />
          {#each corners(h) as c, k (k)}<circle cx={c.x} cy={c.y} r="8" class="bay-hole" />{/each}
        {/each}
        {#each pic.ofUnit as h, i (i)}
          <rect {...square(h.xMM, h.yMM)} class="unit" />
          {#each corners(h) as c, k (k)}<path
              d={`M ${c.x - 5} ${c.y} h 10 M ${c.x} ${c.y - 5} v 10`}
              class="unit-hole"
            />{/each}
        {/each}
        {#if held}
          {@const box = square(held.xMM, held.yMM)}
          <path
            d={`M ${box.x} ${box.y + box.height} V ${foot + 5} M ${box.x + box.width} ${box.y + box.height} V ${foot + 5} M ${box.x} ${foot} H ${box.x + box.width}`}
            class="measure"
          />
          <text x={middle} y={foot + 18} text-anchor="middle">{held.xMM} mm</text>
          <path
            d={`M ${box.x + box.width} ${box.y} H ${foot + 5} M ${box.x + box.width} ${box.y + box.height} H ${foot + 5} M ${foot} ${box.y} V ${box.y + box.height}`}
            class="measure"
          />
          <text x={foot + 16} y={middle} text-anchor="middle" transform={`rotate(90 ${foot + 16} ${middle})`} dy="4"
            >{held.yMM} mm</text
          >
        {/if}
        {#if solid}<text x={middle} y={square(solid.x, solid.y).y - 5} text-anchor="middle" class="soft"
            >solid {solid.x}×{solid.y} mm</text
          >{/if}
      </svg>
      <div class="grid gap-2">
        {#if pic.screw}
          <svg viewBox={`0 0 270 ${tall}`} width="270" height={tall} aria-hidden="true">
            {#each section as c, i (i)}
              <rect x="20" y={c.y} width="120" height={c.mm * mm} class="clamped" />
              <text x="148" y={c.y + (c.mm * mm) / 2 + 5}>{c.mm} mm {c.what}</text>
            {/each}
            <rect x="20" y={below} width="120" height={depth * mm} class="thread" />
            <text x="148" y={below + (depth * mm) / 2 + 5}>{fixed(depth, 1)} mm thread</text>
            <rect x="20" y={below + depth * mm} width="120" height="14" class="board" />
            <text x="148" y={below + depth * mm + 13} class="soft">circuit board</text>
            <rect x="66" y="26" width="28" height="14" class="screw" />
            {#if tip !== undefined}
              <rect x="73" y="40" width="14" height={tip - 40} class="screw" class:bad={pic.wrongScrew} />
              <text x="80" y="18" text-anchor="middle" class="name">{pic.screw.size}×{pic.chosen}</text>
            {/if}
            <text x="20" y={tall - 12} class="name"
              >wanted: {fixed(pic.screw.leastMM, 1)} to {fixed(pic.screw.mostMM, 1)} mm</text
            >
          </svg>
        {:else if pic.holds}
          <p class="soft">The screw cannot be worked out: a thickness or depth is missing.</p>
        {/if}
        {#if pic.tilt}<CameraTilt tilt={pic.tilt} />{/if}
      </div>
    </div>
    {#if pic.stackMM !== undefined && pic.clearMM !== undefined}
      <dl
        class="height grid grid-cols-[max-content_minmax(80px,300px)_max-content] gap-y-0.5 gap-x-3 items-center mt-1"
      >
        <dt>unit, stacked</dt>
        <dd>
          <i class="block h-3.5 bg-accent" style:width={`${(pic.stackMM / highest) * 100}%`} class:over={pic.tooHigh}
          ></i>
        </dd>
        <dd class="mono">{fixed(pic.stackMM, 1)} mm</dd>
        <dt>clear in the bay</dt>
        <dd>
          <i
            class="block h-3.5 bg-transparent border-2 border-dashed border-soft"
            style:width={`${(pic.clearMM / highest) * 100}%`}
          ></i>
        </dd>
        <dd class="mono">{fixed(pic.clearMM, 1)} mm</dd>
      </dl>
      <p>
        <b
          >{pic.tooHigh
            ? `${fixed(-(pic.spareMM ?? 0), 1)} mm too high`
            : `${fixed(pic.spareMM ?? 0, 1)} mm of height to spare`}</b
        >
      </p>
    {/if}
  {/if}
</figure>
<WeightChange weight={view.weight} />

<style>
  .legend svg {
    display: inline-block;
  }
  svg {
    max-width: 100%;
  }
  text {
    fill: var(--ink);
    font-size: 14px;
  }
  text.name {
    font-weight: 700;
  }
  text.soft {
    fill: var(--soft);
  }
  .plate {
    fill: var(--raised);
    stroke: var(--line);
    stroke-width: 2;
  }
  .bay {
    fill: none;
    stroke: var(--soft);
    stroke-dasharray: 6 4;
  }
  .bay-hole {
    fill: none;
    stroke: var(--soft);
    stroke-width: 2.5;
  }
  .unit {
    fill: var(--accent-wash);
    fill-opacity: 0.5;
    stroke: var(--accent);
  }
  .unit-hole {
    stroke: var(--accent);
    stroke-width: 3;
  }
  .measure {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1;
  }
  .clamped {
    fill: var(--change-wash);
    stroke: var(--ink);
  }
  .thread {
    fill: var(--fits-wash);
    stroke: var(--ink);
  }
  .board {
    fill: var(--unfit-wash);
    stroke: var(--unfit);
  }
  .screw {
    fill: var(--soft);
    stroke: var(--ink);
  }
  .screw.bad {
    fill: var(--unfit);
  }
  .height i.over {
    background: var(--unfit);
  }
</style>
