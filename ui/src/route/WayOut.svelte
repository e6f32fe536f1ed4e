<script lang="ts">
  // The route: what shall work together above, the steps and who can fly after
  // each below, and for what cannot be had the facts that exclude each other.
  import { onMount } from 'svelte';
  import { api, type Failure, type RouteView } from '../api/client.svelte';
  import ConflictNote from '../lib/ConflictNote.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import { withValue } from './goals';
  import Refusals from './Refusals.svelte';
  import Targets from './Targets.svelte';
  import TriedWants from './TriedWants.svelte';
  import Timeline from './Timeline.svelte';
  import Wants from './Wants.svelte';

  type Goals = RouteView['goals'];
  const route = new Loaded<RouteView>();
  let refused = $state.raw<{ failure: Failure; goals: Goals } | null>(null);
  onMount(() => void route.take(api.route()));

  // One change after another, each on the goals the last one made.
  let queue: Promise<void> = Promise.resolve();
  // The day is typed as it is written everywhere else.
  function setDay(box: HTMLInputElement) {
    const by = box.value.trim() || undefined;
    box.setCustomValidity(by === undefined || /^\d{4}-\d{2}-\d{2}$/.test(by) ? '' : 'A day is written as yyyy-mm-dd.');
    if (box.reportValidity()) change((g) => ({ ...g, by }));
  }

  function change(make: (goals: Goals) => Goals, onTopOf?: number) {
    queue = queue.then(async () => {
      if (!route.data) return;
      const goals = make(route.data.goals);
      const answer = await api.saveGoals(onTopOf ?? route.data.revision, goals);
      if (answer.ok) {
        route.data = answer.data;
        refused = null;
      } else refused = { failure: answer.failure, goals };
    });
  }

  async function keepTheirs() {
    refused = null;
    await route.take(api.route());
  }
</script>

{#if route.failure}
  <FailureNote failure={route.failure} again={() => route.take(api.route())} />
{/if}
{#if refused?.failure.conflict && refused.failure.conflict.differences.length > 0}
  {@const { goals } = refused}
  <ConflictNote
    conflict={refused.failure.conflict}
    {keepTheirs}
    applyMine={(revision) => change(() => goals, revision)}
  />
{:else if refused}
  <FailureNote failure={refused.failure} again={keepTheirs} />
{/if}
{#if route.data}
  {@const r = route.data}
  <div class="mb-3">
    <p class="soft">{r.title}{r.goals.by ? `, by ${r.goals.by}` : ''}</p>
    <h1 class="sentence" aria-live="polite">{r.plan.says}</h1>
    {#if r.plan.steps.length > 0}<p class="flex flex-wrap gap-y-1 gap-x-5.5">
        <a href="#/rehearse">Rehearse it on stand-ins</a> <a href="#/walk">Carry it out on the bench</a>
      </p>{/if}
    {#if r.deadline}<p class={r.deadline.holds ? 'soft' : 'warn'}>{r.deadline.says}</p>{/if}
    {#each r.plan.notes as n, at (at)}<p class="warn">{n}</p>{/each}
    {#if r.plan.bounded}<p class="warn">The search was cut off at its bound: there may be a better route.</p>{/if}
    {#if r.plan.orderBounded}<p class="warn">
        There are too many orders to try all of them: another order may keep more quads flying.
      </p>{/if}
  </div>
  {#if r.quads.length === 0 || r.goggles.length === 0}
    <section class="panel p-8">
      <h2 class="mb-1">{r.quads.length === 0 ? 'No quads yet' : 'No goggles yet'}</h2>
      <p>
        A route needs quads and goggles: <a href="#/shelf/add">add them</a> or
        <a href="#/shelf/files">take a file in</a>.
      </p>
    </section>
  {:else}
    <div class="ask grid grid-cols-[minmax(0,540px)_215px_minmax(0,1fr)] gap-4 items-start mb-4">
      <Wants view={r} onchange={change} />
      <section class="panel grid px-3.5 py-3" aria-labelledby="matters">
        <h2 class="mb-1" id="matters">What matters</h2>
        {#each r.features as f, at (at)}
          <label class="flex min-h-7.5 gap-2 items-center leading-tight text-note"
            ><input
              type="checkbox"
              checked={r.goals.values?.includes(f)}
              onchange={(e) => {
                const on = e.currentTarget.checked;
                change((g) => withValue(g, f, on));
              }}
            />
            keep {f}</label
          >
        {/each}
        <label class="flex min-h-7.5 gap-2 items-center leading-tight text-note"
          ><input
            type="checkbox"
            checked={r.goals.keepWayBack ?? false}
            onchange={(e) => {
              const keepWayBack = e.currentTarget.checked;
              change((g) => ({ ...g, keepWayBack }));
            }}
          /> no step that cannot be undone</label
        >
        <label class="flex min-h-7.5 gap-2 items-center leading-tight text-note"
          >by <input
            class="bg-raised text-ink border border-soft rounded max-w-37.5 px-1.5 py-1"
            type="text"
            inputmode="numeric"
            autocomplete="off"
            placeholder="yyyy-mm-dd"
            value={r.goals.by ?? ''}
            onchange={(e) => setDay(e.currentTarget)}
          /></label
        >
      </section>
      <Refusals links={r.plan.links} whole={r.whole} />
    </div>
    <TriedWants links={r.plan.links} whole={r.whole} />
    {#if r.plan.steps.length > 0}
      <h2 class="mb-1">The steps, and who can fly after each</h2>
    {:else}
      <h2 class="mb-1">Nothing to update</h2>
    {/if}
    {#if r.plan.lanes.length > 0}<Timeline
        steps={r.plan.steps}
        lanes={r.plan.lanes}
        begins={r.taken.length > 0 ? 'now' : 'today'}
      />{/if}
    {#if r.plan.doors.length > 0}
      <p class="border-3 border-double border-unfit mt-2.5 px-3 py-1.5">
        <b>No way back afterwards.</b>
        {r.plan.doors.join('. ')}.
      </p>
    {/if}
    {#if r.plan.devices.length > 0}<Targets devices={r.plan.devices} />{/if}
  {/if}
{:else if !route.failure}
  <p class="soft" role="status">Looking for the route…</p>
{/if}

<style>
  @media (max-width: 1000px) {
    .ask {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
