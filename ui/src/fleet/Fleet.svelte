<script lang="ts">
  // The yoke board: one row a quad, its gates as knots on a line, and for each
  // pair of goggles whether it links. Toggling what is brought asks anew.
  import { untrack } from 'svelte';
  import { push, replace, router } from 'svelte-spa-router';
  import { api, type Board, type WhatIf as Tried } from '../api/client.svelte';
  import Start from '../begin/Start.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { typing } from '../lib/keys';
  import { Loaded } from '../lib/loaded.svelte';
  import WhatIf from './WhatIf.svelte';
  import YokeRow from './YokeRow.svelte';

  const board = new Loaded<Board>();
  const whatIf = new Loaded<Tried>();
  const listed = (name: string) =>
    new URLSearchParams(router.querystring ?? '').get(name)?.split(',').filter(Boolean) ?? [];
  const left = $derived(listed('left'));
  const tried = $derived(listed('try'));
  let at = $state(-1);
  const atOnce = 200;
  let shown = $state(atOnce);

  const ask = () => void board.take(api.board(left, shown));
  const askWhatIf = () => void whatIf.take(api.whatIf(tried, left));
  $effect(() => {
    void [left, shown];
    untrack(ask);
  });
  $effect(() => {
    void [tried, left];
    untrack(askWhatIf);
  });

  const goggles = $derived(board.data?.devices.filter((d) => d.kind === 'goggles') ?? []);
  const columns = $derived(whatIf.data?.columns ?? []);
  const controllers = $derived(board.data?.devices.filter((d) => d.kind === 'controller') ?? []);

  function toggle(kit: string) {
    show(left.includes(kit) ? left.filter((k) => k !== kit) : [...left, kit], tried);
  }

  function show(leaving: string[], trying: string[]) {
    const query = [
      ['left', leaving],
      ['try', trying],
    ] as const;
    const text = query.filter(([, list]) => list.length > 0).map(([name, list]) => `${name}=${list.join(',')}`);
    void replace(text.length > 0 ? `/?${text.join('&')}` : '/');
  }

  function onkeydown(event: KeyboardEvent) {
    const rows = board.data?.rows ?? [];
    if (typing(event) || rows.length === 0) return;
    if (event.key === 'ArrowDown' || event.key === 'j') at = Math.min(at + 1, rows.length - 1);
    else if (event.key === 'ArrowUp' || event.key === 'k') at = Math.max(at - 1, 0);
    else return;
    event.preventDefault();
    document.getElementById(`open-${rows[at]?.quad}`)?.focus();
  }
</script>

<svelte:window {onkeydown} />

{#if board.failure}
  <FailureNote
    failure={board.failure}
    again={() => {
      ask();
      askWhatIf();
    }}
  />
{/if}
{#if board.data}
  {@const b = board.data}
  {#if b.of > 0}
    <div class="grid mb-2.5">
      <p class="soft">{b.title}</p>
      <h1 class="sentence" aria-live="polite">{b.says}</h1>
    </div>
  {/if}
  {#if b.rows.length === 0}
    <Start />
  {:else}
    <div
      class="bring flex flex-wrap items-center gap-2 mb-2.5"
      role="group"
      aria-label="What you will bring; the board answers"
    >
      <span class="soft">Bring</span>
      {#each [...goggles, ...controllers] as d (d.kit)}
        <button type="button" aria-pressed={d.brought} onclick={() => toggle(d.kit)}>
          <span class="tick" aria-hidden="true">{d.brought ? '●' : '○'}</span>
          {d.name}
          <small class="font-normal text-small"
            >{d.brought ? (d.firmware ? `on ${d.firmware}` : 'firmware not known') : 'left at home'}</small
          >
        </button>
      {/each}
      <span class="self-center ml-auto flex flex-wrap gap-x-5 gap-y-1"
        ><a href="#/begin">Begin another</a> <a href="#/together">Who can fly together?</a></span
      >
    </div>
    {#if whatIf.failure && !board.failure}
      <FailureNote failure={whatIf.failure} again={askWhatIf} />
      <button type="button" class="button" onclick={() => show(left, [])}>Take what is tried off the board</button>
    {/if}
    {#if whatIf.data}<WhatIf whatIf={whatIf.data} ontry={(models) => show(left, models)} />{/if}
    <div class="scroll">
      <table
        class="w-full border-collapse bg-sheet border border-line"
        style:--least={`${490 + 68 * b.gates.length + 92 * (goggles.length + columns.length)}px`}
      >
        <caption class="unseen">The fleet: each quad with its gates and the goggles it links with</caption>
        <thead>
          <tr>
            <th scope="col">quad</th>
            <th scope="col" class="now">now</th>
            {#each b.gates as g (g.gate)}<th scope="col" class="gate">{g.title}</th>{/each}
            <th scope="col">next</th>
            {#each columns as c (c.model)}<th scope="col" class="eyes tried">what if: {c.name}</th>{/each}
            {#each goggles as g (g.kit)}<th scope="col" class="eyes" class:home={!g.brought}>{g.name}</th>{/each}
          </tr>
        </thead>
        <tbody>
          {#each b.rows as row, i (row.quad)}
            <YokeRow
              {row}
              gates={b.gates}
              {goggles}
              {columns}
              {left}
              ontoggle={toggle}
              onopen={(gate) => push(`/swap/${row.quad}${gate ? `/${gate}` : ''}`)}
              onfocusrow={() => (at = i)}
            />
          {/each}
        </tbody>
      </table>
    </div>
    {#if b.of > b.rows.length}
      <p class="mt-3">
        <button
          type="button"
          class="button min-h-10.5 border border-accent rounded bg-raised text-ink font-bold px-4 py-0"
          disabled={board.busy}
          onclick={() => (shown += atOnce)}>Show {Math.min(atOnce, b.of - b.rows.length)} more</button
        > <span class="soft">{b.rows.length} of {b.of} quads are shown; the sentence above speaks of all.</span>
      </p>
    {/if}
    <p class="soft text-note mt-2.5">
      Each quad is judged for itself: two quads may ask one pair of goggles for different releases.
    </p>
  {/if}
{:else if !board.failure}
  <p class="soft" role="status">Judging the fleet…</p>
{/if}

<style>
  .bring button {
    display: inline-flex;
    align-items: baseline;
    gap: 0.45rem;
    padding: 0.3rem 0.8rem;
    min-height: 40px;
    border: 2px solid var(--line);
    border-radius: 20px;
    background: transparent;
    color: var(--soft);
    cursor: pointer;
    font-weight: 600;
  }
  .bring button[aria-pressed='true'] {
    background: var(--accent-wash);
    border-color: var(--accent);
    color: var(--ink);
  }
  th {
    text-align: left;
    font-weight: 500;
    color: var(--soft);
    padding: 0.3rem 0.75rem;
    border-bottom: 2px solid var(--ink);
    font-size: 0.92rem;
  }
  th.gate,
  th.eyes {
    text-align: center;
    padding-inline: 0.3rem;
  }
  th.tried {
    border-inline: 2px dashed var(--line);
  }
  th.eyes.home {
    text-decoration: line-through;
  }
  /* Laid out by the first row alone: a fleet of hundreds repaints at once. */
  @media (min-width: 1121px) {
    table {
      table-layout: fixed;
      min-width: var(--least);
    }
    th:first-child {
      width: 150px;
    }
    th.now {
      width: 118px;
    }
    th.gate {
      width: 68px;
    }
    th.eyes {
      width: 92px;
    }
  }
  @media (max-width: 1120px) {
    table,
    tbody {
      display: block;
    }
    thead {
      display: none;
    }
  }
  @media (max-width: 760px) {
    .bring button {
      flex: 1 1 auto;
      justify-content: center;
    }
  }
</style>
