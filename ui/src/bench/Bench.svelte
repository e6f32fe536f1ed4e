<script lang="ts">
  // The bench sheet: one step at a time beside the iron, the whole list on the
  // left and on paper.
  import { tick, untrack } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { api, type Board, type Failure, type Run } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { typing } from '../lib/keys';
  import { Loaded } from '../lib/loaded.svelte';
  import Finish from './Finish.svelte';
  import TakePhoto from '../photos/TakePhoto.svelte';
  import StepCard from './StepCard.svelte';
  import StepList from './StepList.svelte';

  let { params }: { params: { quad?: string } } = $props();

  const run = new Loaded<Run>();
  const board = new Loaded<Board>();
  let shown = $state('');
  let refused = $state.raw<Failure | null>(null);
  let recorded = $state('');

  const onBench = $derived(params.quad);
  $effect(() => {
    const quad = onBench;
    untrack(() => {
      run.data = null;
      refused = null;
      shown = '';
      recorded = '';
      if (quad) void load(quad);
      else void board.take(api.board([]));
    });
  });

  async function load(quad: string) {
    if (await run.take(api.bench(quad))) shown = run.data?.next || run.data?.states[0]?.id || '';
  }

  const at = $derived(run.data?.states.findIndex((s) => s.id === shown) ?? -1);
  const step = $derived(run.data?.states[at]);

  let card = $state<HTMLElement>();

  function go(by: number) {
    const to = run.data?.states[at + by];
    if (to) {
      shown = to.id;
      refused = null;
    }
  }

  async function confirm(done: boolean, value?: number, read?: string) {
    if (!run.data || !step) return;
    const device = step.reads;
    const answer = await api.confirm(run.data.quad, step.id, done, value, read);
    if (!answer.ok) {
      refused = answer.failure;
      return;
    }
    refused = null;
    const was = step.id;
    run.data = answer.data;
    const now = answer.data.states.find((s) => s.id === was);
    recorded = '';
    if (done && device) {
      recorded = `Recorded: ${device.label} ${device.do === 'update' ? `carries ${read}` : device.do === 'mode' ? 'is in its mode' : 'is activated'}.`;
      if (!now) shown = answer.data.next || answer.data.states[0]?.id || '';
    }
    if (done && now?.state === 'done') {
      const after = answer.data.states.slice(answer.data.states.indexOf(now) + 1).find((s) => s.state === 'todo');
      shown = after?.id ?? (answer.data.next || was);
    }
  }

  function onkeydown(event: KeyboardEvent) {
    if (typing(event) || !run.data) return;
    if (event.key === 'ArrowDown' || event.key === 'j') go(1);
    else if (event.key === 'ArrowUp' || event.key === 'k') go(-1);
    else return;
    event.preventDefault();
  }
</script>

<svelte:window {onkeydown} />

{#if !params.quad}
  <h1>Which quad is on the bench?</h1>
  {#if board.failure}
    <FailureNote failure={board.failure} again={() => board.take(api.board([]))} />
  {:else if board.data}
    <p>
      <a
        class="panel flex flex-wrap gap-y-1 gap-x-4 no-underline text-ink border-l-6 border-l-accent mt-4 px-4 py-3"
        href="#/walk"
        ><strong>The route of the whole fleet</strong>
        <span class="soft">firmware, modes and activation, one step at a time</span></a
      >
      <a
        class="panel flex flex-wrap gap-y-1 gap-x-4 no-underline text-ink border-l-6 border-l-accent mt-4 px-4 py-3"
        href="#/shopping"
        ><strong>Parts to have before the bench day</strong>
        <span class="soft">from every plan, less what is owned</span></a
      >
      <a
        class="panel flex flex-wrap gap-y-1 gap-x-4 no-underline text-ink border-l-6 border-l-accent mt-4 px-4 py-3"
        href="#/bench-day"
        ><strong>Two quads on one day</strong>
        <span class="soft">which steps when, with one iron and one pair of goggles</span></a
      >
    </p>
    <ul class="grid cols-fill-[240px] gap-2.5 mt-4">
      {#each board.data.rows as row (row.quad)}
        <li>
          <a class="panel grid no-underline text-ink min-h-16 px-4 py-3" href={`#/bench/${row.quad}`}
            ><strong>{row.name}</strong><span class="soft"
              >{row.stays ? `${row.now} stays` : `${row.now} to ${row.next}`}</span
            ></a
          >
        </li>
      {:else}
        <li class="soft">
          No quads yet: <a class="grid no-underline text-ink min-h-16 px-4 py-3" href="#/shelf/add/quad">add one</a>.
        </li>
      {/each}
    </ul>
  {:else}
    <p class="soft" role="status">Looking…</p>
  {/if}
{:else if run.failure}
  <FailureNote failure={run.failure} again={() => params.quad && load(params.quad)} />
{:else if !run.data}
  <p class="soft" role="status">Writing the sheet…</p>
{:else}
  {@const r = run.data}
  <div class="title">
    <h1>{r.name} on the bench</h1>
    <p class="soft">
      {r.from === r.to ? `${r.to} stays` : `${r.from} to ${r.to}`}. {r.done} of {r.states.length} steps done.{#if r.minutes > 0}&nbsp;The
        updates take about {r.minutes} minutes.{/if}{#if r.untimed > 0}&nbsp;{r.untimed === 1
          ? 'One update does'
          : `${r.untimed} updates do`} not say how long.{/if}{#if r.day.learned > 0}&nbsp;By how long such steps took
        before, all of it takes about {r.day.minutes === 1 ? 'a minute' : `${r.day.minutes} minutes`}{r.day.untimed > 0
          ? `, not counting ${r.day.untimed === 1 ? 'one step that was' : `${r.day.untimed} steps that were`} never timed`
          : ''}.{/if}
    </p>
    <span class="screen-only flex gap-3 items-center ml-auto">
      <a href={`#/swap/${r.quad}`}>Plan</a>
      <a href={`#/turns/${r.quad}`}>In turn</a>
      <a href={`#/board/${r.quad}`}>Flight board</a>
      <a href={`#/photos/${r.quad}`}>Photos</a>
      <a href={`#/fault/${r.quad}`}>It does not work</a>
      <button type="button" class="button" onclick={() => print()}>Print</button>
    </span>
  </div>
  {#if r.holds.length > 0}
    <div class="bg-change-wash border-l-6 border-l-change mb-3 px-3.5 py-2.5" role="note">
      <h2>The plan is not ready: some steps are held</h2>
      <ul class="list-disc wrap-anywhere mt-1 pl-4.5">
        {#each r.holds as f, i (i)}
          <li><a href={`#/swap/${r.quad}/${f.gate}`}>{f.title}</a>: {f.says}</li>
        {/each}
      </ul>
    </div>
  {/if}
  {#if refused}<FailureNote failure={refused} />{/if}
  <p class="recorded good" role="status">{recorded}</p>
  <div class="sheet grid grid-cols-[340px_minmax(0,1fr)] gap-5 items-start">
    <div class="list">
      <StepList
        states={r.states}
        {shown}
        onpick={(id) => {
          shown = id;
          refused = null;
          // A long list leaves the card far above.
          void tick().then(() => card?.scrollIntoView({ block: innerWidth > 860 ? 'nearest' : 'start' }));
        }}
      />
    </div>
    {#if step}
      <div class="card screen-only" bind:this={card}>
        {#key step.id}
          <StepCard
            {step}
            number={at + 1}
            of={r.states.length}
            onconfirm={confirm}
            onback={at > 0 ? () => go(-1) : undefined}
            onnext={at < r.states.length - 1 ? () => go(1) : undefined}
          />
          <div class="mt-2.5"><TakePhoto quad={r.quad} of="step" thing={step.id} /></div>
        {/key}
      </div>
    {/if}
  </div>
  <section class="grid gap-1 mt-5">
    <h2>Lay out before you start</h2>
    <p><span class="soft">Tools:</span> {r.tools.join(', ') || 'none'}</p>
    <p><span class="soft">Materials:</span> {r.materials.join(', ') || 'none'}</p>
    <p class="soft">
      Common practice throughout; where your country's rules or a licence say otherwise, they come first.
    </p>
  </section>
  <Finish run={r} onfinished={() => load(r.quad)} />
  <div class="screen-only mt-4">
    <button type="button" class="button" onclick={() => push(`/swap/${r.quad}`)}>Back to the plan of {r.name}</button>
  </div>
{/if}

<style>
  .recorded:empty {
    display: none;
  }
  @media (min-width: 861px) {
    .card {
      position: sticky;
      top: 0.75rem;
    }
  }
  @media (max-width: 860px) {
    .sheet {
      grid-template-columns: minmax(0, 1fr);
    }
    .card {
      order: -1;
    }
  }
  @media print {
    .sheet {
      display: block;
    }
  }
</style>
