<script lang="ts">
  // How long the unit may run without moving air: counts down, and says stop.
  import { onDestroy } from 'svelte';
  import { clock } from './reading';

  let { seconds }: { seconds: number } = $props();
  let started = $state<number | null>(null);
  let now = $state(0);
  let timer: ReturnType<typeof setInterval> | undefined;

  const left = $derived(started === null ? seconds : seconds - (now - started) / 1000);

  function start() {
    started = now = performance.now();
    clearInterval(timer);
    timer = setInterval(() => (now = performance.now()), 250);
  }
  function stop() {
    clearInterval(timer);
    started = null;
  }
  onDestroy(() => clearInterval(timer));
</script>

<div
  class="timer flex flex-wrap items-center gap-y-1.5 gap-x-3.5 border-2 border-dashed border-caution rounded-md px-3.5 py-2"
  class:over={left <= 0}
>
  <span class="mono" role="timer">{clock(left)}</span>
  <span>{left <= 0 ? 'Unplug now and let it cool.' : 'may run without moving air'}</span>
  {#if started === null}<button type="button" class="button" onclick={start}>Pack is in: start</button>{:else}<button
      type="button"
      class="button"
      onclick={stop}>Pack is out: reset</button
    >{/if}
  <span class="unseen" role="status">{left <= 0 ? 'Time is up: unplug now and let it cool.' : ''}</span>
</div>

<style>
  .timer .mono {
    font-size: 1.8rem;
    font-weight: 700;
  }
  .over {
    background: var(--unfit-wash);
    border: 3px solid var(--unfit);
    color: var(--unfit);
    font-weight: 700;
  }
</style>
