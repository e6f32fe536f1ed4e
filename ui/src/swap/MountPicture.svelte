<script lang="ts">
  // The unit's holes laid over the bay's, to scale, the screw in section beside
  // them, and below what comes and leaves in grams.
  import type { MountView } from '../api/client';

  let { view }: { view: MountView } = $props();
  const pic = $derived(view.picture);
  const size = 250;
  const largest = $derived(Math.max(10, ...[...pic.ofUnit, ...pic.ofBay].flatMap((h) => [h.xMM, h.yMM])));
  const scale = $derived((size - 70) / largest);
  const corners = (h: { xMM: number; yMM: number }) => [[-1, -1], [1, -1], [1, 1], [-1, 1]].map(([x = 0, y = 0]) => ({ x: size / 2 + (x * h.xMM * scale) / 2, y: size / 2 + (y * h.yMM * scale) / 2 }));
  const words = (h: { xMM: number; yMM: number }) => `${h.xMM}×${h.yMM}`;

  // The screw in section, 9 px a millimetre, the head on top.
  const mm = 9;
  const clamped = $derived(pic.screw?.clamped ?? []);
  const depth = $derived(pic.screw ? pic.screw.mostMM - clamped.reduce((sum, c) => sum + c.mm, 0) : 0);
  const section = $derived(clamped.map((c, i) => ({ ...c, y: 40 + mm * clamped.slice(0, i).reduce((sum, b) => sum + b.mm, 0) })));
  const below = $derived(40 + mm * clamped.reduce((sum, c) => sum + c.mm, 0));
  const tip = $derived(pic.chosen === undefined ? undefined : 40 + mm * pic.chosen);
  const grams = (g: number) => `${g > 0 ? '+' : g < 0 ? '−' : '±'}${Math.abs(g).toFixed(1)} g`;
</script>

<figure class="panel">
  <figcaption class="unseen">
    {pic.missing || `${pic.unit} has holes of ${pic.ofUnit.map(words).join(' and ')} mm, the ${pic.bay} ${pic.ofBay.map(words).join(' and ')} mm. ${pic.holds ? `It is held on ${pic.holds}${pic.plate ? ` through the ${pic.plate}` : ''}.` : 'They do not meet.'}`}
  </figcaption>
  {#if pic.missing}
    <p>{pic.missing}</p>
  {:else}
    <p class="legend">
      <span><svg width="26" height="14" aria-hidden="true"><path d="M1 7h24" class="bay" /><circle cx="13" cy="7" r="5" class="bay-hole" /></svg> {pic.bay}: {pic.ofBay.map(words).join(' and ')} mm</span>
      <span><svg width="26" height="14" aria-hidden="true"><path d="M1 7h24" class="unit" /><path d="M8 7h10M13 2v10" class="unit-hole" /></svg> {pic.unit}: {pic.ofUnit.map((h) => `${words(h)}${h.screw ? ` ${h.screw}` : ''}`).join(' and ')}</span>
      {#if pic.holds}<b>held on {pic.holds}{pic.plate ? ` through the ${pic.plate}` : ''}</b>{/if}
    </p>
    <div class="draw">
      <svg viewBox={`0 0 ${size} ${size}`} width={size} height={size} aria-hidden="true">
        {#each pic.ofBay as h, i (i)}
          <rect x={corners(h)[0]?.x} y={corners(h)[0]?.y} width={h.xMM * scale} height={h.yMM * scale} class="bay" />
          {#each corners(h) as c, k (k)}<circle cx={c.x} cy={c.y} r="8" class="bay-hole" />{/each}
        {/each}
        {#each pic.ofUnit as h, i (i)}
          <rect x={corners(h)[0]?.x} y={corners(h)[0]?.y} width={h.xMM * scale} height={h.yMM * scale} class="unit" />
          {#each corners(h) as c, k (k)}<path d={`M ${c.x - 5} ${c.y} h 10 M ${c.x} ${c.y - 5} v 10`} class="unit-hole" />{/each}
        {/each}
      </svg>
      {#if pic.screw}
        <svg viewBox="0 0 260 250" width="260" height="250" aria-hidden="true">
          {#each section as c, i (i)}
            <rect x="20" y={c.y} width="120" height={c.mm * mm} class="clamped" />
            <text x="148" y={c.y + (c.mm * mm) / 2 + 5}>{c.what} {c.mm} mm</text>
          {/each}
          <rect x="20" y={below} width="120" height={depth * mm} class="thread" />
          <text x="148" y={below + (depth * mm) / 2 + 5}>thread {depth.toFixed(1)} mm</text>
          <rect x="20" y={below + depth * mm} width="120" height="14" class="board" />
          <text x="148" y={below + depth * mm + 13} class="soft">circuit board</text>
          <rect x="66" y="26" width="28" height="14" class="screw" />
          {#if tip !== undefined}
            <rect x="73" y="40" width="14" height={tip - 40} class="screw" class:bad={pic.chosen !== undefined && (pic.chosen > pic.screw.mostMM || pic.chosen < pic.screw.leastMM)} />
            <text x="80" y="18" text-anchor="middle">{pic.screw.size}×{pic.chosen}</text>
          {/if}
          <text x="20" y="240" class="soft">wanted: {pic.screw.leastMM.toFixed(1)} to {pic.screw.mostMM.toFixed(1)} mm</text>
        </svg>
      {:else}
        <p class="soft">{pic.holds ? 'The screw cannot be worked out: a thickness or depth is missing.' : 'The holes do not meet.'}</p>
      {/if}
    </div>
  {/if}
</figure>
{#if view.weight.parts.length > 0}
  <section class="panel weight" aria-labelledby="weight">
    <h3 id="weight">
      {#if view.weight.changeG !== undefined}{grams(view.weight.changeG)}{view.weight.afterG === undefined ? '' : `: ${view.weight.beforeG} g becomes ${view.weight.afterG.toFixed(0)} g`}{view.weight.flightTime === undefined ? '' : `, hover time about ${view.weight.flightTime.toFixed(2)} of today's`}{:else}Weight not known: {view.weight.unknown.join(', ')}{/if}
    </h3>
    <ul>
      {#each view.weight.parts as p, i (i)}<li>{p.comes ? 'in' : 'out'}: {p.label} <span class="mono">{p.massG === undefined ? '? g' : `${p.massG} g`}</span></li>{/each}
    </ul>
    {#if view.weight.measuredG !== undefined}<p><b>Measured: {view.weight.measuredG} g</b>{view.weight.errorG === undefined ? '' : `, ${grams(view.weight.errorG)} against what was added up`}.</p>{/if}
    <p class="soft">Weigh it before and after in the same configuration: what the scale says goes before what is added up.</p>
  </section>
{/if}

<style>
  figure,
  .weight {
    margin: 0;
    padding: 0.6rem 0.9rem;
  }
  .legend {
    display: flex;
    flex-wrap: wrap;
    gap: 0.1rem 1.2rem;
  }
  .legend svg {
    display: inline-block;
  }
  .draw {
    display: flex;
    flex-wrap: wrap;
    gap: 1rem;
    align-items: center;
  }
  svg {
    max-width: 100%;
  }
  text {
    fill: var(--ink);
    font-size: 13.5px;
  }
  text.soft {
    fill: var(--soft);
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
  h3 {
    font-weight: 700;
  }
  ul {
    margin: 0.2rem 0;
    padding: 0;
    list-style: none;
  }
</style>
