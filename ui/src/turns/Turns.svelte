<script lang="ts">
  // Two units that take turns on one quad: what each turn asks for, both ways.
  import { untrack } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { api, type Failure, type TurnDeed, type TurnsView } from '../api/client.svelte';
  import ConflictNote from '../lib/ConflictNote.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import FindingCard from '../swap/FindingCard.svelte';
  import TurnWay from './TurnWay.svelte';

  let { params }: { params: { quad: string } } = $props();
  const view = new Loaded<TurnsView>();
  const id = $derived(params.quad);
  $effect(() => {
    const quad = id;
    untrack(() => void view.take(api.turns(quad)));
  });

  let refused = $state.raw<{ failure: Failure; how: TurnDeed; turn: string } | null>(null);
  let done = $state('');

  async function send(how: TurnDeed, says: string, turn = '', revision = view.data?.revision ?? 0) {
    const answer = await api.turn(id, revision, how, turn || undefined);
    if (!answer.ok) {
      refused = { failure: answer.failure, how, turn };
      done = '';
      return;
    }
    [view.data, refused, done] = [answer.data, null, says];
    if (how === 'plan') void push(`/bench/${id}`);
  }
  async function look() {
    refused = null;
    await view.take(api.turns(id));
  }
</script>

{#if view.failure}
  <FailureNote failure={view.failure} again={look} />
{:else if !view.data}
  <p class="soft" role="status">Taking the turns of {params.quad} one after another…</p>
{:else}
  {@const v = view.data}
  <div class="title">
    <h1>Units in turn on {v.name}</h1>
    <p class="soft">{v.now} is on it now.</p>
    <span class="flex gap-3 items-center ml-auto">
      <a href={`#/swap/${v.quad}`}>Plan</a>
      <a href={`#/bench/${v.quad}`}>Bench sheet</a>
    </span>
  </div>
  {#if refused?.failure.conflict}
    {@const mine = refused}
    <ConflictNote
      conflict={refused.failure.conflict}
      keepTheirs={look}
      applyMine={(revision) => send(mine.how, 'Done on top of what was there.', mine.turn, revision)}
    />
  {:else if refused}
    <FailureNote failure={refused.failure} />
  {/if}
  <p class="good" role="status">{done}</p>
  {#if v.planned}
    <section class="panel grid gap-2 px-4 py-3 mt-3" aria-label="What is planned">
      <p>
        <strong>{v.planned}</strong> is planned. Kept in turn, {v.now} is not taken apart when that swap is finished: it lies
        ready, with what belongs to it, and comes back when you want it.
      </p>
      <p>
        <button type="button" class="button" onclick={() => send('keep', `${v.now} and ${v.planned} take turns.`)}
          >Fly both in turn</button
        >
      </p>
    </section>
  {/if}
  {#each v.turns as t (t.id)}
    <section class="grid gap-3 mt-4" aria-label={`${v.now} and ${t.label}`}>
      <h2 class="flex flex-wrap items-center gap-2">
        {v.now} and {t.label}
        <LevelMark level={t.level} size={22} word />
      </h2>
      <div class="flex flex-wrap gap-3 items-center">
        {#if t.planned}
          <span>The turn to {t.label} is planned.</span>
          <a class="font-bold border-2 border-accent rounded no-underline px-3.5 py-1.5" href={`#/bench/${v.quad}`}
            >Its bench sheet</a
          >
          <button type="button" class="button" onclick={() => send('drop', `${v.now} stays on.`)}
            >Leave {v.now} on</button
          >
        {:else}
          <button
            type="button"
            class="button"
            disabled={v.planned !== ''}
            onclick={() => send('plan', `The turn to ${t.label} is planned.`, t.id)}>Turn to {t.label}</button
          >
          {#if v.planned}<span class="soft">once what is planned is finished, kept or dropped</span>{/if}
        {/if}
        <button
          type="button"
          class="button"
          onclick={() => send('leave', `${t.label} is no longer kept in turn.`, t.id)}>No longer in turn</button
        >
        <span class="soft"
          >{t.flown ? 'It has been on, and lies ready with what belongs to it.' : 'It has not been on yet.'}</span
        >
      </div>
      <div class="grid gap-2">
        {#each t.findings.filter((f) => f.level !== 'fits') as f, i (f.code + f.subject + i)}
          <FindingCard finding={f} open={false} onfix={() => {}} quad={v.quad} onanswered={look} />
        {/each}
      </div>
      <ul class="flex flex-wrap gap-x-5 gap-y-1">
        {#each t.findings.filter((f) => f.level === 'fits') as f, i (f.code + f.subject + i)}
          <li class="flex items-center gap-1.5"><LevelMark level={f.level} size={16} /> {f.says}</li>
        {/each}
      </ul>
      <div class="grid gap-4 lg:grid-cols-2">
        <TurnWay way={t.there} quad={v.quad} shown={t.planned} />
        <TurnWay way={t.back} quad={v.quad} shown={!v.planned && !v.turns.some((o) => o.planned)} />
      </div>
    </section>
  {:else}
    <section class="panel grid gap-2 px-4 py-3 mt-3">
      <p>Nothing takes turns on {v.name} yet.</p>
      <p class="soft">
        Two units can share one quad where both go onto the same plug: an old one for the old goggles, a new one for the
        range. <a href={`#/swap/${v.quad}`}>Plan the other unit</a> as a swap; here it can then be kept in turn.
      </p>
    </section>
  {/each}
  <p class="soft mt-4">Common practice; where your country's rules or a licence say otherwise, they come first.</p>
{/if}

<style>
  .good:empty {
    display: none;
  }
</style>
