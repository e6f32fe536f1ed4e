<script lang="ts">
  // The route carried out at the bench, there or back: what has been done, the
  // step to do now, and what is still to come.
  import { untrack } from 'svelte';
  import { api, type BackView, type Failure, type Read, type RouteView } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import TakeStep from './TakeStep.svelte';
  import { moveOf } from './words';
  import { moment } from '../lib/words';

  let { params }: { params: { way?: string } } = $props();
  const homeward = $derived(params.way === 'back');

  const route = new Loaded<RouteView>();
  const back = new Loaded<BackView>();
  let refused = $state.raw<Failure | null>(null);
  let recorded = $state('');

  $effect(() => {
    const home = homeward;
    untrack(() => {
      recorded = '';
      void load(home);
    });
  });

  async function load(home: boolean) {
    refused = null;
    await Promise.all([route.take(api.route()), home ? back.take(api.wayBack()) : Promise.resolve()]);
  }

  const steps = $derived(homeward ? (back.data?.began ? back.data.back.steps : []) : (route.data?.plan.steps ?? []));
  const doors = $derived(homeward ? (back.data?.back.doors ?? []) : (route.data?.plan.doors ?? []));
  const ready = $derived(route.data !== null && (!homeward || back.data !== null));
  const failure = $derived(route.failure ?? (homeward ? back.failure : null));

  async function record(read: Omit<Read, 'revision'>) {
    if (!route.data) return;
    const answer = await api.recordRead({ ...read, revision: route.data.whole });
    if (!answer.ok) {
      refused = answer.failure;
      return;
    }
    refused = null;
    route.data = answer.data;
    const last = answer.data.taken.at(-1);
    recorded = last ? `Recorded. ${last.says}. ${last.asPlan ? '' : 'The rest is planned again from there.'}` : '';
    if (homeward) await back.take(api.wayBack());
  }

  async function offered(device: string, release: string) {
    if (!route.data) return;
    const answer = await api.offered(device, release, route.data.whole);
    if (!answer.ok) refused = answer.failure;
    else {
      route.data = answer.data;
      recorded = 'Planned again with it.';
    }
  }

  async function close() {
    if (!route.data) return;
    const answer = await api.closeRoute(route.data.whole);
    if (!answer.ok) refused = answer.failure;
    else {
      route.data = answer.data;
      recorded = 'Closed: what the devices carry now is where the next route begins.';
      if (homeward) await back.take(api.wayBack());
    }
  }
</script>

<div class="title">
  <h1>{homeward ? 'The way back, on the bench' : 'The route, on the bench'}</h1>
  <span class="flex flex-wrap gap-y-1 gap-x-5 ml-auto">
    {#if homeward}<a href="#/walk">The way out</a>{:else}<a href="#/walk/back">The way back</a>{/if}
    <a href="#/route">The whole route</a> <a href="#/rehearse">Rehearse</a>
  </span>
</div>
{#if failure}<FailureNote {failure} again={() => load(homeward)} />{/if}
{#if refused}<FailureNote failure={refused} again={() => load(homeward)} />{/if}
<p class="recorded good" role="status">{recorded}</p>
{#if ready && route.data}
  {@const taken = route.data.taken}
  {#if doors.length > 0}
    <div class="border-3 border-double border-unfit mb-3 px-3 py-2" role="note">
      <b>{homeward ? 'Doors that do not open again' : 'Before you begin: no way back afterwards'}</b>
      <ul class="list-disc pl-4.5">
        {#each doors as d, at (at)}<li>{d}</li>{/each}
      </ul>
    </div>
  {/if}
  <div class="walk grid grid-cols-[340px_minmax(0,1fr)] gap-5 items-start">
    <div class="list panel wrap-anywhere px-3 py-2">
      <ol aria-label="Steps">
        {#each taken as t, i (i)}
          <li class={t.asPlan ? 'done' : 'off'}>
            <span aria-hidden="true">{t.asPlan ? '✓' : '≠'}</span>
            {t.says} <small class="soft">{moment(t.at)}</small>
            {#if t.notOffered}<button type="button" class="button mt-2" onclick={() => offered(t.kit, t.planned ?? '')}
                >It is offered after all</button
              >{/if}
          </li>
        {/each}
        {#each steps as s, i (i)}
          <li aria-current={i === 0 ? 'step' : undefined}>
            <span aria-hidden="true">{i === 0 ? '▸' : '·'}</span>
            {s.label}: <span class="mono">{moveOf(s)}</span>{#if s.oneWay}<small class="warn text-unfit font-bold ml-2"
                >no way back</small
              >{/if}
          </li>
        {/each}
        {#if taken.length + steps.length === 0}<li class="soft">Nothing to do, and nothing done yet.</li>{/if}
      </ol>
      {#if taken.length > 0}
        <button type="button" class="button mt-2" onclick={close}>Close this route: forget the way back</button>
      {/if}
    </div>
    {#if steps[0]}
      {#key steps[0].says + taken.length}<TakeStep step={steps[0]} onread={record} />{/key}
    {:else}
      <section class="panel px-5 py-4.5">
        <h2>{homeward ? 'You are back as far as doors allow' : 'The route is at its end'}</h2>
        <p>
          {homeward && !back.data?.began
            ? 'No step of the route has been carried out, so there is nothing to walk back.'
            : homeward
              ? 'Every device that can be brought back stands where it stood before.'
              : route.data.plan.says}
        </p>
      </section>
    {/if}
  </div>
{:else if !failure}
  <p class="soft" role="status">Looking for the steps…</p>
{/if}

<style>
  .recorded:empty {
    display: none;
  }
  li {
    padding: 0.35rem 0.3rem;
    line-height: 1.25;
  }
  ol li[aria-current] {
    background: var(--accent-wash);
    font-weight: 700;
  }
  .done {
    color: var(--fits);
  }
  .off {
    color: var(--change);
  }
  @media (max-width: 860px) {
    .walk {
      grid-template-columns: minmax(0, 1fr);
    }
    .list {
      order: 2;
    }
  }
</style>
