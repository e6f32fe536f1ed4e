<script lang="ts">
  // A quad as a picture to fill: its places with what is in them, today or as planned.
  import { onDestroy, untrack } from 'svelte';
  import { push, replace } from 'svelte-spa-router';
  import { api, type Failure, type Slots, type Take } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import AskNext from './AskNext.svelte';
  import PlanRest from './PlanRest.svelte';
  import QuadPicture from './QuadPicture.svelte';
  import SlotChoices from './SlotChoices.svelte';

  let { params }: { params: { quad?: string; side?: string; slot?: string } } = $props();

  const first = 'first'; // in the address: whichever place it is
  const quad = $derived(params.quad ?? '');
  const today = $derived(params.side !== 'plan');
  const view = new Loaded<Slots>();
  let refused = $state.raw<Failure | null>(null);
  let said = $state('');
  let last = $state(0); // the change that is taken back in one press

  $effect(() => {
    const [of, now] = [quad, today];
    untrack(() => void view.take(api.slots(of, now)));
  });
  const slots = $derived(view.data?.slots ?? []);
  const open = $derived(slots.find((s) => s.name === params.slot));
  const at = (slot?: string) => `/fill/${quad}/${today ? 'today' : 'plan'}${slot ? `/${slot}` : ''}`;

  let answers = $state(0); // what was found before one is out of date
  async function answered() {
    answers++;
    [through, said, last] = [false, '', 0];
    await view.take(api.slots(quad, today));
  }

  async function takeBack() {
    const answer = await api.undo(last);
    refused = answer.ok ? null : answer.failure;
    if (!answer.ok) return;
    last = 0;
    if (await view.take(api.slots(quad, today))) said = 'Taken back.';
  }

  /** Puts something into a place and goes on to the next empty one, or stays with it. */
  async function fill(name: string, take: Take, stay = false): Promise<boolean> {
    if (!view.data) return false;
    const answer = await api.fill(quad, name, view.data.revision, today, take);
    refused = answer.ok ? null : answer.failure;
    if (!answer.ok) return false;
    await view.take(Promise.resolve(answer));
    const filled = answer.data.slots.find((s) => s.name === name);
    last = answer.data.revision;
    said = filled?.holds ? `${filled.holds} is in.` : `Nothing is there.`;
    if (!stay) await goOn(name, (take.key ?? take.name ?? '') !== '');
    return true;
  }
  let gone = false; // who went on elsewhere meanwhile is not fetched back
  onDestroy(() => (gone = true));
  /** Opens the next place to fill after this one; then the plan's, or the picture where there is none. */
  async function goOn(name: string, on = true) {
    const open = slots.slice(slots.findIndex((s) => s.name === name) + 1).find((s) => s.open);
    const after = today && !open && view.data?.after ? `/fill/${quad}/plan/${view.data.after}` : undefined;
    through = on && !today && !open;
    if (!gone) await replace(on ? (after ?? at(open?.name)) : at());
  }
  let through = $state(false); // the last place was just filled
  // A quad that was just begun opens at the first place to fill.
  $effect(() => {
    if (params.slot === first && view.data) void replace(at(slots.find((s) => s.open)?.name));
  });
</script>

{#if view.failure}<FailureNote failure={view.failure} again={() => view.take(api.slots(quad, today))} />{/if}
{#if view.data}
  {@const v = view.data}
  <div class="title">
    <h1>{v.name}</h1>
    <nav class="flex gap-1" aria-label="Today or planned">
      <a
        class="no-underline border-b-3 border-b-transparent aria-[current]:border-b-accent aria-[current]:font-bold min-h-10 px-3.5 py-1.5"
        href={`#/fill/${quad}/today`}
        aria-current={today ? 'page' : undefined}>On it today</a
      >
      <a
        class="no-underline border-b-3 border-b-transparent aria-[current]:border-b-accent aria-[current]:font-bold min-h-10 px-3.5 py-1.5"
        href={`#/fill/${quad}/plan`}
        aria-current={today ? undefined : 'page'}>Planned</a
      >
    </nav>
    <LevelMark level={v.level} size={24} word />
    <span class="buttons ml-auto"
      ><a class="button main inline-flex items-center" href={`#/swap/${quad}`}>Its gates</a></span
    >
  </div>
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
    <p class="good" role="status">{said}</p>
    {#if said && last > 0}<button type="button" class="button" onclick={takeBack}>Take it back</button>{/if}
  </div>
  {#if refused}<FailureNote failure={refused} />{/if}
  <div class="grid gap-4 items-start min-[900px]:grid-cols-[minmax(0,1fr)_minmax(18rem,22rem)]">
    <div class={open ? 'max-[619px]:hidden' : ''}>
      <QuadPicture slots={v.slots} analog={today && v.analog} chosen={open?.name} onopen={(name) => push(at(name))} />
    </div>
    {#if open}
      {#key open.name}
        <SlotChoices
          slot={open}
          {today}
          all={`#${at()}`}
          onfill={(take, stay) => fill(open.name, take, stay)}
          onread={async () => void (await view.take(api.slots(quad, today)))}
          onnext={() => goOn(open.name)}
          more={slots.some((s) => s.open && s.name !== open.name) || (today && v.after !== '')}
        />
      {/key}
    {:else}
      <div class="grid gap-3">
        <div class="panel grid gap-2 px-5 py-4">
          <p>Pick a place and put in what you know. What is left open stays unknown; nothing is guessed.</p>
          {#if today}<p><a href={`#/fill/${quad}/plan`}>What shall be on it instead?</a></p>{/if}
        </div>
        {#if !today && slots.find((s) => s.name === 'airUnit')?.holds}
          {#key answers}
            <PlanRest {quad} revision={v.revision} {through} onplanned={() => view.take(api.slots(quad, today))} />
          {/key}
        {/if}
        <AskNext {quad} {today} revision={v.revision} onanswered={answered} />
      </div>
    {/if}
  </div>
{:else if !view.failure}<p class="soft" role="status">One moment…</p>{/if}
