<script lang="ts">
  // Two quads on one day: which steps when. Which quads, and how many people, stands in the address.
  import { untrack } from 'svelte';
  import { replace, router } from 'svelte-spa-router';
  import { api, type DayView } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import PickTwo from '../lib/PickTwo.svelte';

  const view = new Loaded<DayView>();
  const query = $derived(new URLSearchParams(router.querystring ?? ''));
  const one = $derived(query.get('one') ?? '');
  const other = $derived(query.get('other') ?? '');
  const hands = $derived(query.get('hands') === '2' ? 2 : 1);
  const ask = () => view.take(api.benchDay(one, other, hands));
  $effect(() => {
    void [one, other, hands];
    untrack(() => void ask());
  });
  function show(change: { one?: string; other?: string; hands?: number }) {
    const now = { one, other, hands, ...change };
    const parts = [
      now.one && `one=${encodeURIComponent(now.one)}`,
      now.other && `other=${encodeURIComponent(now.other)}`,
      now.hands === 2 && 'hands=2',
    ].filter(Boolean);
    void replace(parts.length > 0 ? `/bench-day?${parts.join('&')}` : '/bench-day');
  }

  const plan = $derived(view.data?.plan);
  const quads = $derived([...new Set((plan?.spells ?? []).map((s) => s.quad))]);
  const at = (minute: number) => `${Math.floor(minute / 60)}:${String(minute % 60).padStart(2, '0')}`;
  type Spell = NonNullable<DayView['plan']>['spells'][number];
  const words = (s: Spell) =>
    `${at(s.from)} to ${at(s.to)}, ${s.name}: ${s.steps.length === 1 ? s.steps[0]!.title : `${s.steps.length} steps`}${s.alone ? ', by itself' : ''}`;
</script>

{#if view.failure}<FailureNote failure={view.failure} again={ask} />{/if}
<h1>Two quads on one day</h1>
{#if view.data}
  {@const v = view.data}
  {#if v.quads.length < 2}
    <p class="soft">Two quads with a swap planned are wanted for this. <a href="#/">To the fleet</a></p>
  {:else}
    <PickTwo quads={v.quads} {one} {other} onpick={show}>
      <label class="flex flex-wrap items-center gap-2 min-w-0 max-w-full"
        >At work
        <select value={String(hands)} onchange={(e) => show({ hands: Number(e.currentTarget.value) })}>
          <option value="1">one</option>
          <option value="2">two, one on each quad</option>
        </select></label
      >
    </PickTwo>
  {/if}
{:else if !view.failure}
  <p class="soft" role="status">Laying out the day…</p>
{/if}
{#if plan}
  <p aria-live="polite"><b>{plan.says}</b></p>
  {#if plan.held > 0}
    <p class="bad">
      {plan.held === 1 ? 'One step is' : `${plan.held} steps are`} held by a gate today: the plan wants mending first.
    </p>
  {/if}
  {#if plan.minutes > 0}
    <div class="panel grid gap-1.5 px-3 py-2.5 mt-2" aria-hidden="true">
      {#each quads as quad (quad)}
        <div class="grid min-[600px]:grid-cols-[9rem_minmax(0,1fr)] items-center gap-x-2">
          <span class="truncate">{plan.spells.find((s) => s.quad === quad)?.name}</span>
          <div class="relative h-12 border border-line bg-sheet">
            {#each plan.spells.filter((s) => s.quad === quad) as s, i (i)}
              <span
                class="spell"
                class:alone={s.alone}
                title={words(s)}
                style:left={`${(100 * s.from) / plan.minutes}%`}
                style:width={`${(100 * (s.to - s.from)) / plan.minutes}%`}
              ></span>
            {/each}
          </div>
        </div>
      {/each}
      <div class="grid min-[600px]:grid-cols-[9rem_minmax(0,1fr)] gap-x-2 soft text-note">
        <span>filled: at hand; dashed: by itself</span>
        <span class="flex justify-between"><span>0:00</span><span>{at(plan.minutes)}</span></span>
      </div>
    </div>
  {/if}
  <div class="grid gap-4 min-[860px]:grid-cols-[minmax(0,2fr)_minmax(0,1fr)] items-start mt-4">
    <section aria-labelledby="order">
      <h2 id="order">In this order</h2>
      <ol class="grid gap-1.5 mt-1.5">
        {#each plan.spells as s, i (i)}
          <li class="panel px-3.5 py-2">
            <span class="mono">{at(s.from)}–{at(s.to)}</span>
            <a href={`#/bench/${s.quad}`}><b>{s.name}</b></a>{#if s.alone}<span class="soft">, by itself</span>{/if}
            <ul class="soft text-note list-disc pl-4.5 wrap-anywhere">
              {#each s.steps as step, k (k)}
                <li>
                  {step.title}{step.to === step.from
                    ? ', done with the other quad'
                    : `, ${step.guessed ? 'about ' : ''}${step.to - step.from} min`}{#if step.held}<span class="bad"
                      >, held</span
                    >{/if}
                </li>
              {/each}
            </ul>
          </li>
        {/each}
      </ol>
    </section>
    <section aria-labelledby="working" class="panel px-3.5 py-2.5">
      <h2 id="working">How it comes to that</h2>
      <ul class="list-disc pl-4.5 grid gap-1">
        {#each plan.working as line, i (i)}<li>{line}</li>{/each}
        <li>
          Each sheet keeps its order; each pair of goggles, each controller and the iron are at one step at a time.
        </li>
      </ul>
    </section>
  </div>
{/if}

<style>
  .spell {
    position: absolute;
    top: 3px;
    bottom: 3px;
    background: var(--accent);
    border: 1px solid var(--sheet);
  }
  .spell.alone {
    background: none;
    border: 2px dashed var(--accent);
  }
</style>
