<script lang="ts">
  // All that has happened to the fleet, searched and filtered; what was true on a day, and what
  // has changed between two. A change is taken back from here; that is a line of its own.
  import { untrack } from 'svelte';
  import { push, replace, router } from 'svelte-spa-router';
  import { api, place, type AsOf, type Failure, type FleetLog } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import { moment } from '../lib/words';
  import AsItWas from './AsItWas.svelte';

  const query = $derived(new URLSearchParams(router.querystring ?? ''));
  const asked = $derived(
    Object.fromEntries(
      (['find', 'quad', 'kind', 'from', 'to'] as const).flatMap((k) => {
        const v = query.get(k);
        return v ? [[k, v]] : [];
      }),
    ) as { find?: string; quad?: string; kind?: string; from?: string; to?: string },
  );
  const day = $derived(query.get('day') ?? '');
  const than = $derived(query.get('than') ?? '');
  const log = new Loaded<FleetLog>();
  const was = new Loaded<AsOf>();
  let older = $state.raw<FleetLog['lines']>([]);
  let before = $state(0);
  let refused = $state.raw<Failure | null>(null);
  let said = $state('');
  let quads = $state.raw<{ id: string; name: string }[]>([]);
  $effect(() => {
    untrack(() => void api.flights().then((a) => (quads = a.ok ? a.data.quads : [])));
  });
  let asks = 0; // what was asked before another question is not answered any more
  async function load() {
    asks++;
    if (await log.take(api.fleetLog(asked))) {
      older = [];
      before = log.data?.before ?? 0;
    }
  }
  $effect(() => {
    void asked;
    untrack(() => void load());
  });
  $effect(() => {
    const [a, b] = [day, than];
    untrack(() => {
      if (a) void was.take(api.asOf(a, b || undefined));
      else was.data = was.failure = null;
    });
  });
  const lines = $derived([...(log.data?.lines ?? []), ...older]);
  const byDay = new Intl.DateTimeFormat('en-CA');
  const known = new WeakMap<FleetLog['lines'][number], string>();
  function dayOf(l: FleetLog['lines'][number]) {
    const day = known.get(l) ?? byDay.format(new Date(l.at));
    known.set(l, day);
    return day;
  }
  const days = $derived.by(() => {
    const of: Record<string, FleetLog['lines']> = {};
    for (const l of lines) (of[dayOf(l)] ??= []).push(l);
    return Object.entries(of).map(([day, lines]) => ({ day, lines }));
  });
  let loading = false;
  async function more() {
    if (loading) return;
    loading = true;
    try {
      await next();
    } finally {
      loading = false;
    }
  }
  /** Goes on with what is older as soon as its button comes near. */
  function near(button: HTMLElement) {
    const seen = new IntersectionObserver(
      (entries) => {
        if (entries.some((e) => e.isIntersecting)) void more();
      },
      { rootMargin: '0px 0px 1200px 0px' },
    );
    seen.observe(button);
    return () => seen.disconnect();
  }
  async function next() {
    const of = asks;
    const answer = await api.fleetLog({ ...asked, before });
    if (of !== asks) return;
    refused = answer.ok ? null : answer.failure;
    if (!answer.ok) return;
    older = [...older, ...answer.data.lines];
    before = answer.data.before ?? 0;
  }
  async function takeBack(change: number, says: string) {
    const answer = await api.undo(change);
    refused = answer.ok ? null : answer.failure;
    said = answer.ok ? `Taken back: ${says}.` : '';
    if (answer.ok) await load();
  }
  async function back(l: FleetLog['lines'][number]) {
    const quad = l.quad ?? '';
    const now = await api.quad(quad);
    if (!now.ok) {
      refused = now.failure;
      return;
    }
    const answer = await api.planBack(quad, now.data.revision, l.id);
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) void push(`/swap/${quad}`);
  }
  function show(to: Record<string, string>) {
    const now = { ...Object.fromEntries(query), ...to };
    const text = new URLSearchParams(Object.entries(now).filter(([, v]) => v !== '')).toString();
    void replace(text ? `/log?${text}` : '/log');
  }
  const kinds = [
    ['', 'everything'],
    ['changes', 'changes'],
    ['readings', 'steps and readings'],
    ['notes', 'lines written'],
    ['testFlight', 'test flights'],
    ['quad', 'quads'],
    ['kit', 'kit'],
    ['spare', 'loose parts'],
  ] as const;
  const files = $derived(new URLSearchParams(asked as Record<string, string>).toString());
  const name = (id: string) => quads.find((q) => q.id === id)?.name ?? id;
  const value = (e: Event) => (e.currentTarget as HTMLInputElement).value;
</script>

<div class="title">
  <h1>Log</h1>
  <p class="soft">All that has happened, and what was true on a day.</p>
  <span class="screen-only flex gap-3 items-center ml-auto"
    ><a href="#/prove">Prove</a><a href={`${place}/api/log.csv?${files}`} download>CSV</a><a
      href={`${place}/api/log.jsonl?${files}`}
      download>JSON Lines</a
    ><button type="button" class="button" onclick={() => print()}>Print</button></span
  >
</div>
<section class="panel screen-only grid cols-fill-[145px] gap-3 px-3.5 py-2.5 items-end" aria-label="What to look for">
  <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
    >Find <input
      class="w-full min-w-0"
      type="search"
      value={asked.find ?? ''}
      onchange={(e) => show({ find: value(e) })}
    /></label
  >
  <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
    >Quad
    <select value={asked.quad ?? ''} onchange={(e) => show({ quad: value(e) })}>
      <option value="">every quad</option>
      {#each quads as q (q.id)}<option value={q.id}>{q.name}</option>{/each}
    </select></label
  >
  <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
    >What
    <select value={asked.kind ?? ''} onchange={(e) => show({ kind: value(e) })}>
      {#each kinds as [id, words] (id)}<option value={id}>{words}</option>{/each}
    </select></label
  >
  <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
    >From the day <input type="date" value={asked.from ?? ''} onchange={(e) => show({ from: value(e) })} /></label
  >
  <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
    >To the day <input type="date" value={asked.to ?? ''} onchange={(e) => show({ to: value(e) })} /></label
  >
</section>
<section class="panel screen-only flex flex-wrap gap-3 px-3.5 py-2.5 mt-3 items-end" aria-label="As it was">
  <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
    >As it was on <input type="date" value={day} onchange={(e) => show({ day: value(e) })} /></label
  >
  <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
    >held against (empty: today) <input type="date" value={than} onchange={(e) => show({ than: value(e) })} /></label
  >
</section>
{#if was.failure}<FailureNote failure={was.failure} />{/if}
{#if was.data}<AsItWas was={was.data} />{/if}
{#if refused}<FailureNote failure={refused} />{/if}
{#if log.failure}<FailureNote failure={log.failure} again={load} />{/if}
<p class="good" role="status">{said}</p>
{#if log.data && lines.length === 0}<p class="soft mt-2">Nothing of that kind has happened.</p>{/if}
{#each days as { day: d, lines: list } (d)}
  <section class="day panel mt-3 px-3.5 py-2" aria-label={d}>
    <h2 class="flex gap-3 items-center">
      {d}
      <button type="button" class="button screen-only text-note font-normal" onclick={() => show({ day: d })}
        >As it was that day</button
      >
    </h2>
    <ol>
      {#each list as l (l.id)}
        <li class="flex flex-wrap gap-x-3 gap-y-1 items-center border-t border-t-line py-1">
          <span class="grow basis-80 min-w-0 wrap-anywhere"
            ><span class="first-letter:uppercase inline-block">{l.says}</span>
            <span class="soft text-note block"
              >{moment(l.at)}{l.who ? `, ${l.who}` : ''}{#if l.quad}, <a href={`#/swap/${l.quad}`}>{name(l.quad)}</a
                >{/if}</span
            ></span
          >
          {#if l.back}<button
              type="button"
              class="button screen-only"
              aria-label={`Plan the way back from: ${l.says}`}
              onclick={() => back(l)}>Plan the way back</button
            >{/if}
          {#if l.change && l.kind && l.kind !== 'tick'}{@const change = l.change}<button
              type="button"
              class="button screen-only"
              aria-label={`Take back: ${l.says}`}
              onclick={() => takeBack(change, l.says)}>Take back</button
            >{/if}
        </li>
      {/each}
    </ol>
  </section>
{/each}
{#if before > 0}
  <p class="screen-only mt-3">
    {#key before}<button type="button" class="button" onclick={more} {@attach near}>Older</button>{/key}
  </p>
{/if}

<style>
  /* Days out of sight are not laid out, so that a long log scrolls. */
  @media screen {
    .day {
      content-visibility: auto;
      contain-intrinsic-size: auto 600px;
    }
  }
</style>
