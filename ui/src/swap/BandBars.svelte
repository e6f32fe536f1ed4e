<script lang="ts">
  // The bands of both ends on one scale: what each port uses, what each antenna is
  // made for. Bars that stand over each other meet.
  import type { AntennaView } from '../api/client.svelte';
  import { percentScale } from '../lib/scale';

  let { ends }: { ends: AntennaView['picture']['ends'] } = $props();

  const rows = $derived(
    ends.flatMap((end, n) => {
      const port = { label: end.label, bands: end.uses, port: true };
      const kinds = end.antennas
        .filter((a, i) => end.antennas.findIndex((b) => b.label === a.label) === i)
        .map((a) => ({ label: a.label, bands: a.bands, port: false }));
      return n === 0 ? [port, ...kinds] : [...kinds, port];
    }),
  );
  const all = $derived(rows.flatMap((r) => r.bands).filter((b) => b.toMHz > 0));
  const at = $derived(
    percentScale(Math.min(...all.map((b) => b.fromMHz)) - 150, Math.max(...all.map((b) => b.toMHz)) + 150),
  );
  const ticks = $derived(at.ticks(5));
</script>

{#if all.length > 0}
  <div
    class="grid grid-cols-[minmax(70px,max-content)_minmax(0,1fr)] gap-y-0.5 gap-x-3 mt-2 pr-3"
    role="img"
    aria-label={rows.map((r) => `${r.label}: ${r.bands.map((b) => b.label).join(' and ') || 'not stated'}`).join('; ')}
  >
    {#each rows as r, i (i)}
      <span class="name text-note leading-snug" class:port={r.port}>{r.label}</span>
      <span class="relative min-h-5">
        {#each ticks as t (t)}<i class="tick" style:left={`${at(t)}%`}></i>{/each}
        {#each r.bands as b (b.band)}<i
            class="bar"
            class:port={r.port}
            class:unused={!b.used}
            style:left={`${at(b.fromMHz)}%`}
            style:width={`${Math.max(1, at(b.toMHz) - at(b.fromMHz))}%`}
          ></i>{/each}
      </span>
    {/each}
    <span></span>
    <span class="foot relative min-h-5"
      >{#each ticks as t (t)}<b style:left={`${at(t)}%`}>{t / 1000}</b>{/each}</span
    >
  </div>
  <p class="soft text-note text-right">GHz; solid: used at its end, hollow: not</p>
{/if}

<style>
  .name.port {
    font-weight: 700;
  }
  i,
  b {
    position: absolute;
  }
  .tick {
    top: 0;
    bottom: -2px;
    border-left: 1px solid var(--line);
  }
  .bar {
    top: 4px;
    height: 13px;
    background: var(--accent);
    border: 2px solid var(--accent);
  }
  .bar.port {
    background: var(--ink);
    border-color: var(--ink);
  }
  .bar.unused {
    background: none;
    border-style: dashed;
  }
  .foot b {
    transform: translateX(-50%);
    font-weight: 500;
    font-size: 0.85rem;
    color: var(--soft);
  }
</style>
