<script lang="ts">
  // Who can fly at the same time: channels for the quads and guests present, what
  // lands on whom, and what is left for one more.
  import { untrack } from 'svelte';
  import { replace, router } from 'svelte-spa-router';
  import { api, type Together } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import { fixed } from '../lib/words';

  const view = new Loaded<Together>();
  const query = $derived(new URLSearchParams(router.querystring ?? ''));
  const list = (name: string) => query.get(name)?.split(',').filter(Boolean) ?? [];
  const quads = $derived(list('quads'));
  const guests = $derived(list('guests'));
  $effect(() => {
    const [q, g] = [quads, guests];
    untrack(() => void view.take(api.together(q, g)));
  });

  function show(q: string[], g: string[]) {
    const parts = [q.length > 0 ? `quads=${q.join(',')}` : '', g.length > 0 ? `guests=${g.join(',')}` : ''].filter(
      Boolean,
    );
    void replace(parts.length > 0 ? `/together?${parts.join('&')}` : '/together');
  }
  let width = $state(640);
  const seats = $derived(view.data?.plan.seats ?? []);
  const flown = $derived(seats.filter((s) => s.channel));
  const low = $derived(Math.min(...flown.map((s) => (s.mhz ?? 0) - (s.width ?? 0))));
  const high = $derived(Math.max(...flown.map((s) => (s.mhz ?? 0) + (s.width ?? 0))));
  const x = (mhz: number) => 10 + ((width - 20) * (mhz - low)) / Math.max(1, high - low);
  const grounded = $derived(seats.filter((s) => !s.channel).map((s) => s.pilot));
  const says = $derived(
    seats.length === 0
      ? 'Who flies at the same time?'
      : grounded.length > 0
        ? `${flown.length} of ${seats.length} can fly together; no channel is left for ${grounded.join(', ')}`
        : `All ${seats.length} can fly together${view.data?.plan.spacing === undefined ? '' : `, ${fixed(view.data.plan.spacing, 0)} MHz clear between the nearest`}`,
  );
</script>

{#if view.failure}<FailureNote failure={view.failure} again={() => view.take(api.together(quads, guests))} />{/if}
<h1 aria-live="polite">{says}</h1>
<p class="soft">
  Nobody over anybody else, then as few third-order products on anyone as can be, then as far apart as can be. Your
  country's channels come first. <a href="#/">Back to the fleet</a>
</p>
{#if view.data}
  {@const v = view.data}
  <div class="grid cols-fit-[300px] gap-3 mx-0 my-3">
    <section class="panel flex flex-wrap gap-y-1 gap-x-4 content-start px-3.5 py-2.5" aria-labelledby="quads">
      <h2 class="basis-full" id="quads">Quads in the air</h2>
      {#each v.quads as q (q.id)}
        <label class="flex gap-1.5 items-center min-h-9"
          ><input
            type="checkbox"
            checked={quads.includes(q.id)}
            onchange={(e) =>
              show(e.currentTarget.checked ? [...quads, q.id] : quads.filter((id) => id !== q.id), guests)}
          />
          {q.name}</label
        >
      {/each}
    </section>
    <section class="panel flex flex-wrap gap-y-1 gap-x-4 content-start px-3.5 py-2.5" aria-labelledby="guests">
      <h2 class="basis-full" id="guests">Guests</h2>
      {#each guests as g, i (i)}
        <p class="basis-full">
          guest {String.fromCharCode(65 + i)}: {v.plans.find((p) => p.id === g)?.name ?? g}
          <button
            type="button"
            class="button"
            onclick={() =>
              show(
                quads,
                guests.filter((_, k) => k !== i),
              )}
            aria-label={`Take out guest ${String.fromCharCode(65 + i)}`}>take out</button
          >
        </p>
      {/each}
      {#each v.plans as p (p.id)}<button type="button" class="button" onclick={() => show(quads, [...guests, p.id])}
          >add one on {p.name}</button
        >{/each}
    </section>
  </div>
  {#if v.absent.length > 0}<p class="warn">Channels not stated: {v.absent.join(', ')}.</p>{/if}
  {#if flown.length > 0}
    <figure class="panel overflow-hidden mb-3" bind:clientWidth={width}>
      <figcaption class="unseen">
        {flown.map((s) => `${s.pilot} on channel ${s.channel}, ${s.mhz} megahertz`).join('. ')}
      </figcaption>
      <svg {width} height="120" aria-hidden="true">
        <line x1="10" x2={width - 10} y1="86" y2="86" class="axis" />
        {#each flown as s, i (i)}
          {@const hit = v.plan.products.some((p) => p.on === s.pilot)}
          <rect
            x={x((s.mhz ?? 0) - (s.width ?? 0) / 2)}
            y="46"
            width={Math.max(3, x(s.mhz ?? 0) - x((s.mhz ?? 0) - (s.width ?? 0)))}
            height="40"
            class:hit
          />
          <text x={x(s.mhz ?? 0)} y={i % 2 === 0 ? 20 : 38} text-anchor="middle">{s.pilot}</text>
          <text x={x(s.mhz ?? 0)} y={i % 2 === 0 ? 102 : 116} text-anchor="middle" class="soft"
            >{s.channel}: {s.mhz}</text
          >
        {/each}
      </svg>
    </figure>
    <div class="scroll panel">
      <table class="rows">
        <thead
          ><tr
            ><th scope="col">pilot</th><th scope="col">system</th><th scope="col">channel</th><th scope="col">MHz</th
            ></tr
          ></thead
        >
        <tbody
          >{#each seats as s, i (i)}<tr
              ><th scope="row">{s.pilot}</th><td>{s.system}</td><td class="mono">{s.channel ?? '✕ none left'}</td><td
                class="mono">{s.mhz ?? ''}</td
              ></tr
            >{/each}</tbody
        >
      </table>
    </div>
  {/if}
  {#each v.plan.products as p, i (i)}<p class="warn">
      {p.a === p.b ? `2 × ${p.a}` : `${p.a} + ${p.b}`} − {p.c} = {p.mhz} MHz covers {p.overlapMHz} MHz of {p.on}.
    </p>{/each}
  {#if v.plan.bounded}<p class="warn">The search was cut off at its bound: there may be a better seating.</p>{/if}
  {#if seats.length > 0}<p class="soft">
      {v.plan.free.length === 0
        ? 'No channel is left for one more.'
        : `One more could take ${v.plan.free.map((f) => `${f.channel} (${f.system})`).join(', ')}.`}
    </p>{/if}
{/if}

<style>
  rect {
    fill: var(--accent-wash);
    stroke: var(--accent);
    stroke-width: 1.5;
  }
  rect.hit {
    fill: var(--caution-wash);
    stroke: var(--caution);
    stroke-dasharray: 5 3;
  }
  .axis {
    stroke: var(--ink);
  }
  text {
    fill: var(--ink);
    font-size: 13px;
  }
  text.soft {
    fill: var(--soft);
    font-size: 12px;
  }
</style>
