<script lang="ts">
  // The sticks' way from hand to flight board, and each switch's range.
  import type { ControlView } from '../api/client.svelte';
  import { fixed } from '../lib/words';

  let { view }: { view: ControlView } = $props();
  const low = 900;
  const high = 2100;
  const at = (us: number) => ((Math.max(low, Math.min(high, us)) - low) / (high - low)) * 100;
  const channels = $derived([...new Set(view.switches.map((s) => s.aux))].sort((a, b) => a - b));
  const words = (mode: string) => mode.replaceAll('-', ' ');
  const change = $derived(view.nowMS === undefined || view.nextMS === undefined ? undefined : view.nextMS - view.nowMS);
</script>

<figure class="panel">
  <figcaption class="unseen">The way of the sticks: {view.way.map((h) => `${h.label}, ${h.set}`).join('; then ')}.</figcaption>
  {#if view.missing}
    <p>{view.missing}</p>
  {:else}
    <ol class="way" aria-hidden="true">
      {#each view.way as hop, i (i)}<li><b>{hop.label}</b><span>{hop.set}</span></li>{/each}
    </ol>
    {#if view.nextMS !== undefined}
      <p>The sticks arrive <b>{fixed(view.nextMS, 0)} ms</b> late{change === undefined ? '' : Math.abs(change) < 0.5 ? ', as today' : `, ${fixed(Math.abs(change), 0)} ms ${change > 0 ? 'later' : 'earlier'} than today`}.</p>
    {:else}
      <p class="soft">How late the sticks arrive is not stated.</p>
    {/if}
    {#if channels.length > 0}
      <div class="switches" role="img" aria-label={view.switches.map((s) => `${words(s.mode)} on AUX ${s.aux} from ${s.fromUS} to ${s.toUS} microseconds`).join('; ')}>
        {#each channels as aux (aux)}
          <span class="aux">AUX {aux}</span>
          <span class="scale">
            {#each [1000, 1500, 2000] as t (t)}<i class="tick" style:left={`${at(t)}%`}></i>{/each}
            {#each view.switches.filter((s) => s.aux === aux) as s, i (s.mode + String(i))}
              <span class="range" class:arm={s.mode === 'arm'} style:left={`${at(s.fromUS)}%`} style:width={`${at(s.toUS) - at(s.fromUS)}%`} style:top={`${i * 24}px`}>{words(s.mode)}</span>
            {/each}
            <span class="room" style:height={`${view.switches.filter((s) => s.aux === aux).length * 24 + 4}px`}></span>
          </span>
        {/each}
        <span></span>
        <span class="scale foot">{#each [1000, 1500, 2000] as t (t)}<b style:left={`${at(t)}%`}>{t}</b>{/each}</span>
      </div>
    {/if}
  {/if}
</figure>

<style>
  figure {
    margin: 0;
    padding: 0.6rem 0.9rem;
  }
  .way {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 1.4rem;
    list-style: none;
    margin: 0.2rem 0 0.5rem;
    padding: 0;
  }
  .way li {
    position: relative;
    border: 2px solid var(--ink);
    padding: 0.35rem 0.7rem;
    line-height: 1.25;
    max-width: 150px;
  }
  .way li:not(:last-child)::after {
    content: '';
    position: absolute;
    left: 100%;
    top: 50%;
    width: 1.4rem;
    border-top: 3px solid var(--accent);
  }
  .way span {
    display: block;
    color: var(--soft);
    font-size: 0.95rem;
  }
  .switches {
    display: grid;
    grid-template-columns: 60px minmax(0, 1fr);
    gap: 0.2rem 0.6rem;
    margin-top: 0.5rem;
  }
  .aux {
    font-weight: 700;
    padding-top: 2px;
  }
  .scale {
    position: relative;
    min-height: 22px;
    background: var(--raised);
    border: 1px solid var(--line);
  }
  .room {
    display: block;
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
  .foot {
    border: 0;
    background: none;
  }
  .foot b {
    position: absolute;
    transform: translateX(-50%);
    font-weight: 500;
    font-size: 0.85rem;
    color: var(--soft);
  }
</style>
