<script lang="ts">
  // A switch found by flipping it: which channel moved, between which ends; its range can
  // be dragged, and goes into the plan.
  import { api, type BoardLive, type Failure, type FlipSample, type FlipView } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';

  let { quad, live, hold = $bindable() }: { quad: string; live: BoardLive; hold: boolean } = $props();
  let chosen = $state('');
  const mode = $derived(chosen || (live.known[0] ?? ''));
  let safe = $state(false);
  let watching = $state(false);
  let samples: FlipSample[] = [];
  let found = $state.raw<FlipView | null>(null);
  let failure = $state.raw<Failure | null>(null);
  let said = $state('');

  $effect(() => {
    if (watching && live.held && samples.length < 2000)
      samples.push({ channels: [...live.channels], armed: live.armed, volts: live.volts, held: live.held });
  });

  function begin() {
    samples = [];
    found = null;
    failure = null;
    said = '';
    watching = hold = true;
  }
  async function ask(range?: { fromUS: number; toUS: number }) {
    watching = hold = false;
    const answer = await api.flip(quad, mode, samples, range);
    failure = answer.ok ? null : answer.failure;
    if (answer.ok) found = answer.data;
  }
  async function put() {
    if (!found) return;
    const now = await api.quad(quad);
    if (!now.ok) {
      failure = now.failure;
      return;
    }
    const answer = await api.plan(quad, now.data.revision, found.patch);
    failure = answer.ok ? null : answer.failure;
    said = answer.ok
      ? `${mode.replaceAll('-', ' ')} is in the plan on AUX ${found.flip.range.aux}, from ${found.flip.range.fromUS} to ${found.flip.range.toUS}.`
      : '';
  }
</script>

<details class="grid gap-1.5 mt-3">
  <summary class="font-bold min-h-9">Find a switch by flipping it</summary>
  <label><input type="checkbox" bind:checked={safe} /> props off, and no pack: the board runs from USB alone</label>
  <p class="buttons">
    <label
      >mode <select
        aria-label="mode of the switch"
        value={mode}
        onchange={(e) => (chosen = e.currentTarget.value)}
        disabled={watching}
        >{#each live.known as m (m)}<option value={m}>{m.replaceAll('-', ' ')}</option>{/each}</select
      ></label
    >
    {#if watching}
      <button type="button" class="button main" onclick={() => ask()}>That was it</button>
      <span role="status"
        >{live.held
          ? `Arming is held off. Flip your ${mode.replaceAll('-', ' ')} switch, and leave it where the mode shall be on.`
          : 'The board is told to hold its arming off: wait.'}</span
      >
    {:else}
      <button type="button" class="button" disabled={!safe || mode === ''} onclick={begin}>Begin</button>
    {/if}
  </p>
  {#if live.known.length === 0}<p class="warn">
      The plan names no flight firmware whose modes are known: state it first.
    </p>{/if}
  {#if failure}<FailureNote {failure} />{/if}
  {#if found}
    {@const r = found.flip.range}
    <p>{found.flip.says}</p>
    <p class="buttons">
      <label
        >from {r.fromUS} µs
        <input
          type="range"
          min="900"
          max="2100"
          step="25"
          value={r.fromUS}
          onchange={(e) => ask({ fromUS: Number(e.currentTarget.value), toUS: r.toUS })}
        /></label
      >
      <label
        >to {r.toUS} µs
        <input
          type="range"
          min="900"
          max="2100"
          step="25"
          value={r.toUS}
          onchange={(e) => ask({ fromUS: r.fromUS, toUS: Number(e.currentTarget.value) })}
        /></label
      >
    </p>
    {#each found.findings as f, i (i)}<p class={f.level === 'unfit' ? 'bad' : 'warn'}>{f.says}</p>{/each}
    <button type="button" class="button main" disabled={found.refused} onclick={put}>Put it into the plan</button>
  {/if}
  {#if said}<p class="good" role="status">{said}</p>{/if}
</details>
