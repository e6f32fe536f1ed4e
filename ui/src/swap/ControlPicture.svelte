<script lang="ts">
  // The sticks' way from hand to flight board, and each switch's range.
  import type { ControlView } from '../api/client.svelte';
  import { percentScale } from '../lib/scale';
  import { fixed } from '../lib/words';

  let { view }: { view: ControlView } = $props();
  const low = 900;
  const high = 2100;
  const at = percentScale(low, high).clamp(true);
  const channels = $derived([...new Set(view.switches.map((s) => s.aux))].sort((a, b) => a - b));
  const words = (mode: string) => mode.replaceAll('-', ' ');
  const change = $derived(view.nowMS === undefined || view.nextMS === undefined ? undefined : view.nextMS - view.nowMS);
</script>

<figure class="panel px-3.5 py-2.5">
  <figcaption class="unseen">
    The way of the sticks: {view.way.map((h) => `${h.label}, ${h.set}`).join('; then ')}.
  </figcaption>
  {#if view.missing}
    <p>{view.missing}</p>
  {:else}
    <ol class="way flex flex-wrap gap-y-2 gap-x-5.5 mt-1 mb-2" aria-hidden="true">
      {#each view.way as hop, i (i)}<li class="relative border-2 border-ink leading-snug max-w-37.5 px-3 py-1.5">
          <b>{hop.label}</b><span class="block text-soft text-note">{hop.set}</span>
        </li>{/each}
    </ol>
    {#if view.nextMS !== undefined}
      <p>
        The sticks arrive <b>{fixed(view.nextMS, 0)} ms</b> late{change === undefined
          ? ''
          : Math.abs(change) < 0.5
            ? ', as today'
            : `, ${fixed(Math.abs(change), 0)} ms ${change > 0 ? 'later' : 'earlier'} than today`}.
      </p>
    {:else}
      <p class="soft">How late the sticks arrive is not stated.</p>
    {/if}
    {#if channels.length > 0}
      <div
        class="grid grid-cols-[60px_minmax(0,1fr)] gap-y-1 gap-x-2.5 mt-2"
        role="img"
        aria-label={view.switches
          .map((s) => `${words(s.mode)} on AUX ${s.aux} from ${s.fromUS} to ${s.toUS} microseconds`)
          .join('; ')}
      >
        {#each channels as aux (aux)}
          <span class="font-bold pt-0.5">AUX {aux}</span>
          <span class="relative min-h-5.5 bg-raised border border-line">
            {#each [1000, 1500, 2000] as t (t)}<i class="tick" style:left={`${at(t)}%`}></i>{/each}
            {#each view.switches.filter((s) => s.aux === aux) as s, i (s.mode + String(i))}
              <span
                class="range"
                class:arm={s.mode === 'arm'}
                style:left={`${at(s.fromUS)}%`}
                style:width={`${at(s.toUS) - at(s.fromUS)}%`}
                style:top={`${i * 24}px`}>{words(s.mode)}</span
              >
            {/each}
            <span class="block" style:height={`${view.switches.filter((s) => s.aux === aux).length * 24 + 4}px`}></span>
          </span>
        {/each}
        <span></span>
        <span class="foot relative min-h-5.5 border-0 bg-transparent"
          >{#each [1000, 1500, 2000] as t (t)}<b style:left={`${at(t)}%`}>{t}</b>{/each}</span
        >
      </div>
    {/if}
  {/if}
</figure>

<style>
  .way li:not(:last-child)::after {
    content: '';
    position: absolute;
    left: 100%;
    top: 50%;
    width: 1.4rem;
    border-top: 3px solid var(--accent);
  }
  .tick {
    position: absolute;
    top: 0;
    bottom: 0;
    border-left: 1.5px dashed var(--line);
  }
  .range {
    position: absolute;
    height: 22px;
    margin-top: 2px;
    padding: 0 0.4rem;
    background: var(--accent-wash);
    border: 2px solid var(--accent);
    font-size: 0.9rem;
    line-height: 18px;
    overflow: hidden;
    white-space: nowrap;
    text-overflow: ellipsis;
  }
  .range.arm {
    background: var(--unfit-wash);
    border: 2px solid var(--unfit);
    font-weight: 700;
  }
  .foot b {
    position: absolute;
    transform: translateX(-50%);
    font-weight: 500;
    font-size: 0.85rem;
    color: var(--soft);
  }
</style>
