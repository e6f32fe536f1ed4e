<script lang="ts">
  // The rehearsal: the route's steps on stand-ins, done right or wrongly, with
  // what a builder would see and why. Nothing real is touched or stored.
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { api, type Action, type Rehearsal } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import { moveOf } from './words';

  const bench = new Loaded<Rehearsal>();
  let actions = $state.raw<Action[]>([]);
  let tool = $state('');
  let chargeOnly = $state(false);
  let battery = $state(80);
  let pack = $state(false);
  let offline = $state(false);
  let device = $state('');
  let unit = $state('');
  let mode = $state('');
  let back = $state(false); // the way back is rehearsed too

  onMount(() => void bench.take(api.rehearse([], back)));

  const step = $derived(bench.data?.plan.find((p) => !p.done) ?? bench.data?.back.find((p) => !p.done));
  const last = $derived(bench.data?.outcomes.at(-1));
  const units = $derived(bench.data?.devices.filter((d) => d.role === 'airUnit') ?? []);
  const others = $derived(bench.data?.devices.filter((d) => d.role !== 'airUnit') ?? []);
  const modes = $derived(bench.data?.modes.filter((m) => m.device === device) ?? []);

  async function go(...more: Action[]) {
    const next = [...actions, ...more];
    if (await bench.take(api.rehearse(next, back))) actions = next;
  }
  function setup() {
    return { tool, chargeOnly, batteryPct: battery, pack, offline };
  }
  /** Lays the bench out as the step asks for. */
  function layOut() {
    if (!step) return;
    ({ tool, chargeOnly, batteryPct: battery, pack, offline } = step.action.setup);
  }
  async function turnBack() {
    back = true;
    if (!(await bench.take(api.rehearse(actions, true)))) back = false;
  }
  async function again() {
    back = false;
    if (await bench.take(api.rehearse([], back))) actions = [];
  }
</script>

<h1>Rehearse the route on stand-ins</h1>
<p class="soft">Nothing real is touched: try the steps, also wrongly. <a href="#/route">Back to the route</a></p>
{#if bench.failure}<FailureNote failure={bench.failure} again={() => bench.take(api.rehearse(actions, back))} />{/if}
{#if bench.data}
  {@const b = bench.data}
  <div class="grid cols-fit-[320px] gap-4 items-start mt-3">
    <section class="panel grid gap-2 justify-items-start min-w-0 wrap-anywhere px-4 pt-3 pb-4" aria-labelledby="plan">
      <h2 id="plan">The route</h2>
      {#if b.plan.length === 0}<p>Nothing to update.</p>{/if}
      <ol class="list-decimal pl-5.5">
        {#each b.plan as p, i (i)}
          <li aria-current={p === step ? 'step' : undefined} class={p.done ? 'done' : ''}>
            {p.step.label}: <span class="mono">{moveOf(p.step)}</span>{p.done ? ' ✓ done' : ''}
          </li>
        {/each}
      </ol>
      {#if !back}
        <p class={b.off.length === 0 ? 'ok' : 'soft'} role="status">
          {b.off.length === 0 ? 'The bench is as the route promises.' : `Not yet as promised: ${b.off.length}.`}
        </p>
        {#if b.plan.length > 0 && b.off.length === 0}<Button size="sm" onclick={turnBack}>Now the way back</Button>{/if}
      {:else}
        <h2>The way back</h2>
        {#if b.doors.length > 0}<p class="bad text-unfit"><b>Does not open again:</b> {b.doors.join('. ')}.</p>{/if}
        <ol class="list-decimal pl-5.5">
          {#each b.back as p, i (i)}
            <li aria-current={p === step ? 'step' : undefined} class={p.done ? 'done' : ''}>
              {p.step.label}: <span class="mono">{moveOf(p.step)}</span>{p.done ? ' ✓ done' : ''}
            </li>
          {/each}
        </ol>
        <p class={b.astray.length === 0 ? 'ok' : 'soft'} role="status">
          {b.astray.length === 0
            ? 'The bench is back where it began, as far as doors allow.'
            : `Not yet back: ${b.astray.length}.`}
        </p>
      {/if}
      <Button size="sm" color="alternative" onclick={again}>Begin anew</Button>
    </section>
    <section class="panel grid gap-2 justify-items-start min-w-0 wrap-anywhere px-4 pt-3 pb-4" aria-labelledby="layout">
      <h2 id="layout">{step ? `Next: ${step.step.says}` : 'Every step is done'}</h2>
      <label
        >tool <select class="max-w-55" bind:value={tool}
          ><option value="">none open</option>{#each b.tools as t (t)}<option>{t}</option>{/each}</select
        ></label
      >
      <label><input type="checkbox" bind:checked={chargeOnly} /> the cable only charges</label>
      <label>battery <input type="number" min="0" max="100" bind:value={battery} /> %</label>
      <label><input type="checkbox" bind:checked={pack} /> a flight pack is connected</label>
      <label><input type="checkbox" bind:checked={offline} /> no internet</label>
      <div class="buttons">
        <Button size="sm" color="alternative" disabled={!step} onclick={layOut}>Lay out as it should be</Button>
        <Button size="sm" disabled={!step} onclick={() => step && go({ ...step.action, setup: setup() })}
          >{step?.step.do === 'activate' ? 'Activate' : step?.step.do === 'mode' ? 'Switch' : 'Update'}</Button
        >
      </div>
      <div
        class="seen {last ? (last.done ? 'ok' : 'bad') : ''} border-l-6 border-l-line w-full min-h-16 px-3 py-2"
        aria-live="polite"
      >
        {#if last}<p><b>{last.done ? 'Done.' : 'It fails.'}</b> {last.sees}</p>
          {#if last.why}<p>{last.why}</p>{/if}{:else}<p class="soft">What you would see stands here.</p>{/if}
      </div>
      <h2>Bind, or switch a mode</h2>
      <label
        >device <select class="max-w-55" bind:value={device}
          ><option value="">choose</option>{#each others as d (d.kit)}<option value={d.kit}>{d.label}</option
            >{/each}</select
        ></label
      >
      <label
        >air unit <select class="max-w-55" bind:value={unit}
          ><option value="">choose</option>{#each units as d (d.kit)}<option value={d.kit}>{d.label}</option
            >{/each}</select
        ></label
      >
      <label
        >mode <select class="max-w-55" bind:value={mode}
          ><option value="">choose</option>{#each modes as m (m.id)}<option value={m.id}>{m.name}</option
            >{/each}</select
        ></label
      >
      <div class="buttons">
        <Button size="sm" disabled={!device || !unit} onclick={() => go({ do: 'bind', device, unit, setup: setup() })}
          >Bind</Button
        >
        <Button
          size="sm"
          color="alternative"
          disabled={!device || !mode}
          onclick={() => go({ do: 'mode', device, mode, setup: setup() })}>Switch mode</Button
        >
      </div>
    </section>
    <section
      class="panel grid gap-2 justify-items-start min-w-0 wrap-anywhere px-4 pt-3 pb-4"
      aria-labelledby="devices"
    >
      <h2 id="devices">On the bench</h2>
      <table class="rows">
        <thead
          ><tr
            ><th scope="col">device</th><th scope="col">release</th><th scope="col">mode</th><th scope="col">state</th
            ></tr
          ></thead
        >
        <tbody>
          {#each b.devices as d (d.kit)}
            <tr
              ><th scope="row">{d.label}</th><td class="mono">{d.firmware || '?'}</td><td
                >{b.modes.find((m) => m.device === d.kit && m.id === d.mode)?.name ?? ''}</td
              ><td>{d.activated ? '' : 'not activated'}{d.bound.length > 0 ? ` bound to ${d.bound.length}` : ''}</td
              ></tr
            >
          {/each}
        </tbody>
      </table>
    </section>
  </div>
{:else if !bench.failure}
  <p class="soft" role="status">Setting out the bench…</p>
{/if}

<style>
  li[aria-current] {
    font-weight: 700;
    background: var(--accent-wash);
  }
  .done {
    color: var(--fits);
  }
  label {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: center;
    min-height: 36px;
  }
  input[type='number'] {
    width: 5.5rem;
  }
  .seen.ok {
    border-color: var(--fits);
    background: var(--fits-wash);
  }
  .seen.bad {
    border-color: var(--unfit);
    background: var(--unfit-wash);
  }
  p.ok {
    color: var(--fits);
    font-weight: 700;
  }
  th,
  td {
    padding: 0.15rem 0.4rem 0.15rem 0;
    overflow-wrap: normal;
  }
</style>
