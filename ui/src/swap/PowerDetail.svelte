<script lang="ts">
  // Below the picture of the supply: the peak at plug-in, what lives on USB, and
  // every way to feed the air unit, the best first.
  import { Button } from 'flowbite-svelte';
  import type { Patch, SupplyView } from '../api/client.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { shortVolts } from '../lib/scale';
  import { fixed } from '../lib/words';

  interface Props {
    power: SupplyView;
    onpick: (patch: Patch, says: string) => void;
  }
  let { power, onpick }: Props = $props();
  const known = $derived(power.plugins.filter((p) => p.peakV !== undefined));
  const usb = $derived(power.usb.alive.length + power.usb.dead.length + power.usb.unknown.length > 0);
</script>

<div class="grid gap-2.5">
  {#if known.length > 0}
    <section class="panel px-3.5 py-2.5" aria-labelledby="plugin">
      <h3 class="mb-1" id="plugin">When the pack is plugged in</h3>
      {#each known as p (p.node)}
        {@const full = Math.max(p.peakV ?? 0, p.withoutV ?? 0, p.limitV ?? 0) * 1.05}
        <p>
          <LevelMark level={p.level} size={16} /> <strong>{p.label}</strong> peaks at {shortVolts(p.peakV ?? 0)} V, its limit
          is {shortVolts(p.limitV ?? 0)} V{p.withoutV !== undefined
            ? `; without the capacitor ${shortVolts(p.withoutV)} V`
            : ''}
        </p>
        <div class="bar relative h-4 bg-sheet border border-line mx-0 mt-1 mb-1.5" aria-hidden="true">
          {#if p.withoutV !== undefined}<i class="without" style:width={`${(100 * p.withoutV) / full}%`}></i>{/if}
          <i class={p.level} style:width={`${(100 * (p.peakV ?? 0)) / full}%`}></i>
          <i class="limit" style:left={`${(100 * (p.limitV ?? 0)) / full}%`}></i>
        </div>
      {/each}
    </section>
  {/if}
  {#if usb}
    <p class="panel px-3.5 py-2.5">
      <b>With USB alone:</b>
      {#if power.usb.alive.length > 0}alive: {power.usb.alive.join(', ')}.
      {/if}
      {#if power.usb.dead.length > 0}dead: {power.usb.dead.join(', ')}.
      {/if}
      {#if power.usb.unknown.length > 0}not stated: {power.usb.unknown.join(', ')}.{/if}
    </p>
  {/if}
  {#if power.feeds.length > 0}
    <section class="panel px-3.5 py-2.5" aria-labelledby="feeds">
      <h3 class="mb-1" id="feeds">Every way to feed it, the best first</h3>
      <ol>
        {#each power.feeds as f, i (i)}
          <li
            class="grid grid-cols-[22px_minmax(0,1fr)_auto] gap-2.5 items-start border-t border-t-line leading-snug px-0 py-1.5"
            class:chosen={f.chosen}
          >
            <LevelMark level={f.level} size={18} />
            <div>
              <b>{f.says}</b>
              <span class="soft"
                >{[
                  f.costs,
                  f.wires > 0 ? `${f.wires} wires` : '',
                  f.heatW !== undefined ? `${fixed(f.heatW, 1)} W of heat` : '',
                ]
                  .filter(Boolean)
                  .join(', ')}</span
              >
              <p class="text-note">{f.why}</p>
            </div>
            {#if f.chosen}<span class="soft">as planned</span>{:else}<Button
                size="xs"
                color="alternative"
                onclick={() => onpick(f.patch, `Planned: ${f.says}.`)}>Take it</Button
              >{/if}
          </li>
        {/each}
      </ol>
    </section>
  {/if}
</div>

<style>
  .bar i {
    position: absolute;
    top: 2px;
    bottom: 2px;
    left: 0;
    background: var(--fits);
  }
  .bar .without {
    background: none;
    border: 1.5px dashed var(--soft);
  }
  .bar .caution {
    background: var(--caution);
  }
  .bar .change,
  .bar .unfit {
    background: var(--unfit);
  }
  .bar .limit {
    width: 3px;
    top: -3px;
    bottom: -3px;
    background: var(--ink);
  }
  .chosen {
    background: var(--accent-wash);
  }
</style>
