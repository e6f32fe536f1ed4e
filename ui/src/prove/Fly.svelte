<script lang="ts">
  // The field sheet of a test flight: big, high in contrast, one spot after another, for a
  // spotter's thumb or after landing. What could not be sent stays where it was entered.
  import { untrack } from 'svelte';
  import { replace } from 'svelte-spa-router';
  import { api, type Failure, type FlightsView, type FlightView } from '../api/client.svelte';
  import Caution from '../lib/Caution.svelte';
  import ConflictNote from '../lib/ConflictNote.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import { parseNumber } from '../shelf/entry';
  import Conditions from './Conditions.svelte';
  import Recordings from './Recordings.svelte';

  let { params }: { params: { flight: string; spot?: string } } = $props();
  const view = new Loaded<FlightView>();
  const id = $derived(params.flight);
  $effect(() => {
    const flight = id;
    untrack(() => void view.take(api.flight(flight)));
  });
  const all = new Loaded<FlightsView>();
  $effect(() => untrack(() => void all.take(api.flights())));
  const flight = $derived(view.data?.flight);
  const others = $derived(
    (all.data?.courses.find((c) => c.id === flight?.course)?.flights ?? [])
      .filter((f) => f.id !== id)
      .map((f) => ({ id: f.id, label: `${f.label}, ${f.unit ?? f.quad}` })),
  );
  const spots = $derived(view.data?.course.spots ?? []);
  const spot = $derived(spots.find((s) => s.id === params.spot) ?? spots[0]);
  const passesAt = (of: string) => flight?.reads?.find((r) => r.spot === of)?.passes ?? [];
  const passes = $derived(spot ? passesAt(spot.id) : []);

  // What is being entered; made anew for each spot and pass.
  let pass = $state(1);
  let rate = $state('');
  let freezes = $state<number | undefined>();
  let picture = $state('');
  let wrong = $state('');
  let refused = $state.raw<Failure | null>(null);
  let said = $state('');
  const pictures = ['clear', 'soft', 'breaks up', 'gone for a moment'];

  function open(n: number) {
    const there = passes.find((p) => p.pass === n);
    pass = n;
    rate = there?.lowestMbps === undefined ? '' : String(there.lowestMbps);
    freezes = there?.freezes;
    picture = there?.picture ?? '';
    wrong = '';
  }
  let shown = '';
  $effect(() => {
    const at = `${id}/${spot?.id ?? ''}`;
    if (at === shown || !spot) return;
    shown = at;
    untrack(() => open(Math.max(1, passes.length === 0 ? 1 : (passes.at(-1)?.pass ?? 0) + 1)));
  });
  const leftOut = (of: string) => flight?.leftOut?.includes(of) ?? false;
  // A spot that is not flown on purpose is none that was forgotten.
  async function leave(of: string) {
    if (!flight || !view.data) return;
    const rest = (flight.leftOut ?? []).filter((s) => s !== of);
    const entry = { ...flight, leftOut: leftOut(of) ? rest : [...rest, of] };
    const answer = await api.save('testFlight', id, view.data.revision, entry);
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) await view.take(api.flight(id));
  }
  const go = (to: string) => replace(`/prove/fly/${id}/${to}`);

  async function note(revision = view.data?.revision ?? 0) {
    const parsed = parseNumber(rate);
    wrong = parsed.wrong ?? '';
    if (wrong || !spot) return;
    const nothing = parsed.value === undefined && freezes === undefined && picture === '';
    const there = passes.some((p) => p.pass === pass);
    if (nothing && !there) {
      wrong = 'Nothing is entered: a bit rate, how often it froze, or the picture.';
      return;
    }
    const read = {
      revision,
      spot: spot.id,
      pass,
      ...(parsed.value === undefined ? {} : { lowestMbps: parsed.value }),
      ...(freezes === undefined ? {} : { freezes }),
      ...(picture ? { picture } : {}),
    };
    const answer = await api.readSpot(id, read);
    refused = answer.ok ? null : answer.failure;
    if (!answer.ok) return;
    view.data = answer.data;
    const next = spots[spots.indexOf(spot) + 1];
    said = `${nothing ? 'Taken out' : 'Noted'}: ${spot.name ?? spot.id}, pass ${pass}.`;
    if (next) void go(next.id);
    else open(pass + 1);
  }
</script>

{#if view.failure}
  <FailureNote failure={view.failure} again={() => view.take(api.flight(id))} />
{:else if !view.data || !flight}
  <p class="soft" role="status">Reading the flight…</p>
{:else}
  {@const v = view.data}
  <div class="title">
    <h1>{v.label}</h1>
    <p class="soft">{v.quad}, {v.course.name ?? v.course.id}</p>
    <span class="flex gap-3 items-center ml-auto"
      ><a href={`#/prove?course=${v.course.id}`}>All flights</a><a href={`#/shelf/edit/testFlight/${id}`}>All of it</a
      ></span
    >
  </div>
  <div class="grid gap-1.5 mb-3">
    {#each v.cautions as c (c)}<Caution>{c}</Caution>{/each}
  </div>
  <Conditions {flight} revision={v.revision} onsaved={() => view.take(api.flight(id))} />
  {#if refused?.conflict}
    <ConflictNote
      conflict={refused.conflict}
      keepTheirs={async () => {
        refused = null;
        await view.take(api.flight(id));
      }}
      applyMine={(revision) => note(revision)}
    />
  {:else if refused}
    <FailureNote failure={refused} />
  {/if}
  <p class="good" role="status">{said}</p>
  <div class="field">
    <div class="spots" role="group" aria-label="Spots of the course">
      {#each spots as s (s.id)}
        {@const n = passesAt(s.id).length}
        <button type="button" class="spot" aria-pressed={s === spot} onclick={() => go(s.id)}
          ><b>{s.name ?? s.id}</b><span
            >{n === 0 ? (flight.leftOut?.includes(s.id) ? 'left out' : 'not read') : `${n} read`}</span
          ></button
        >
      {/each}
    </div>
    {#if spot}
      <form
        class="sheet"
        onsubmit={(e) => {
          e.preventDefault();
          void note();
        }}
        aria-label={`Readings at ${spot.name ?? spot.id}`}
      >
        <h2>{spot.name ?? spot.id}</h2>
        <div class="row" role="group" aria-label="Pass">
          {#each [...passes.map((p) => p.pass), (passes.at(-1)?.pass ?? 0) + 1] as n (n)}
            <button type="button" class="key" aria-pressed={n === pass} onclick={() => open(n)}>pass {n}</button>
          {/each}
        </div>
        <label for="rate">Lowest bit rate, Mbit/s</label>
        <input
          id="rate"
          class="rate"
          inputmode="decimal"
          autocomplete="off"
          bind:value={rate}
          aria-invalid={wrong !== ''}
          aria-describedby="rate-wrong"
        />
        <p id="rate-wrong" class="bad" role="alert">{wrong}</p>
        <span id="froze">The picture froze</span>
        <div class="row" role="group" aria-labelledby="froze">
          {#each [0, 1, 2, 3, 4] as n (n)}
            <button
              type="button"
              class="key"
              aria-pressed={freezes === n}
              onclick={() => (freezes = freezes === n ? undefined : n)}>{n === 0 ? 'never' : `${n}×`}</button
            >
          {/each}
        </div>
        <span id="picture">Picture</span>
        <div class="row" role="group" aria-labelledby="picture">
          {#each pictures as p (p)}
            <button
              type="button"
              class="key"
              aria-pressed={picture === p}
              onclick={() => (picture = picture === p ? '' : p)}>{p}</button
            >
          {/each}
        </div>
        <button type="submit" class="key go">Note it</button>
        {#if passes.length === 0}
          <button type="button" class="key" aria-pressed={leftOut(spot.id)} onclick={() => leave(spot.id)}
            >Left out, on purpose</button
          >
        {/if}
      </form>
    {/if}
  </div>
  <Recordings view={v} {others} onread={() => view.take(api.flight(id))} />
{/if}

<style>
  /* For full light: black on white, whatever the theme is. */
  .field {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 2fr);
    gap: 0.8rem;
    margin-top: 0.8rem;
    background: #ffffff;
    color: #000000;
    border: 3px solid #000000;
    padding: 0.8rem;
  }
  @media (max-width: 640px) {
    .field {
      grid-template-columns: minmax(0, 1fr);
    }
    .spots {
      grid-template-columns: repeat(2, minmax(0, 1fr));
    }
  }
  .spots {
    display: grid;
    gap: 0.4rem;
    align-content: start;
  }
  .spot,
  .key {
    min-height: 56px;
    border: 3px solid #000000;
    background: #ffffff;
    color: #000000;
    font-weight: 700;
    font-size: 1.1rem;
    padding: 0.3rem 0.7rem;
    overflow-wrap: anywhere;
  }
  .spot {
    display: grid;
    text-align: left;
  }
  .spot span {
    font-weight: 500;
    font-size: 0.95rem;
  }
  [aria-pressed='true'],
  .go {
    background: #000000;
    color: #ffffff;
  }
  .sheet {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 0.5rem;
    align-content: start;
    font-weight: 700;
    font-size: 1.1rem;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
  }
  .row .key {
    flex: 1 1 5rem;
  }
  .sheet .rate {
    min-height: 72px;
    font-size: 2.4rem;
    font-weight: 700;
    border: 3px solid #000000;
    background: #ffffff;
    color: #000000;
    padding-inline: 0.8rem;
    font-family: var(--font-mono);
  }
  .field .bad {
    color: #8a0000;
  }
  .field .bad:empty {
    display: none;
  }
</style>
