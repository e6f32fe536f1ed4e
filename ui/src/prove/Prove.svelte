<script lang="ts">
  // Was it worth it: flights along the same course held against each other, spot by spot.
  import { untrack } from 'svelte';
  import { push, replace, router } from 'svelte-spa-router';
  import { api, type Failure, type FlightsView, type Proof } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import Scroll from '../lib/Scroll.svelte';
  import FindingCard from '../swap/FindingCard.svelte';
  import SpotPairs from './SpotPairs.svelte';
  import Standings from './Standings.svelte';

  const view = new Loaded<FlightsView>();
  const proof = new Loaded<Proof>();
  const query = $derived(new URLSearchParams(router.querystring ?? ''));
  const ids = (name: string) => query.get(name)?.split(',').filter(Boolean) ?? [];
  const before = $derived(ids('before'));
  const after = $derived(ids('after'));
  const look = () => view.take(api.flights());
  $effect(() => untrack(() => void look()));
  const courses = $derived(view.data?.courses ?? []);
  const course = $derived(courses.find((c) => c.id === query.get('course')) ?? courses[0]);
  $effect(() => {
    const [was, is] = [before, after];
    untrack(() => {
      if (was.length > 0 && is.length > 0) void proof.take(api.proof(was, is));
      else proof.data = proof.failure = null;
    });
  });

  function show(to: Record<string, string>) {
    const now = { course: course?.id ?? '', before: before.join(','), after: after.join(','), ...to };
    const text = Object.entries(now)
      .filter(([, v]) => v !== '')
      .map(([k, v]) => `${k}=${v}`)
      .join('&');
    void replace(text ? `/prove?${text}` : '/prove');
  }
  function side(flight: string, to: 'before' | 'after') {
    const rest = { before: before.filter((f) => f !== flight), after: after.filter((f) => f !== flight) };
    if (!(to === 'before' ? before : after).includes(flight)) rest[to] = [...rest[to], flight];
    show({ before: rest.before.join(','), after: rest.after.join(',') });
  }

  let quad = $state('');
  let refused = $state.raw<Failure | null>(null);
  async function begin(event: SubmitEvent) {
    event.preventDefault();
    const flies = quad || view.data?.quads[0]?.id;
    if (!flies || !course) return;
    const answer = await api.beginFlight(flies, course.id);
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) void push(`/prove/fly/${answer.data.flight.id}`);
  }
</script>

<div class="title">
  <h1>Prove</h1>
  <p class="soft">The same way flown twice: is it better, and how sure is that?</p>
  <span class="flex gap-3 ml-auto"
    ><a href="#/tasks">Still to be done</a><a href="#/hours">Hours and crashes</a><a href="#/log">Log</a><a
      href="#/shelf/add/course">New course</a
    ></span
  >
</div>
{#if view.failure}
  <FailureNote failure={view.failure} again={look} />
{:else if !view.data}
  <p class="soft" role="status">Reading the flights…</p>
{:else if !course}
  <section class="panel grid gap-2 px-4 py-3 max-w-180">
    <p>
      A course is a way you can fly again: named spots, in the order you pass them, such as behind the first trees,
      behind the ridge, full range. What is read at each is held against the next flight, before and after a swap.
    </p>
    <p><a class="button inline-grid items-center" href="#/shelf/add/course">Enter a course</a></p>
  </section>
{:else}
  <div class="flex flex-wrap gap-x-6 gap-y-3 items-end">
    <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
      >Course
      <select value={course.id} onchange={(e) => show({ course: e.currentTarget.value, before: '', after: '' })}>
        {#each courses as c (c.id)}<option value={c.id}>{c.name}, {c.spots} {c.spots === 1 ? 'spot' : 'spots'}</option
          >{/each}
      </select>
    </label>
    <a class="min-h-10 grid items-center" href={`#/shelf/edit/course/${course.id}`}>Its spots</a>
    {#if view.data.quads.length > 0}
      <form class="flex flex-wrap gap-2 items-end ml-auto min-w-0 max-w-full" onsubmit={begin}>
        <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
          >Quad
          <select bind:value={quad}>
            {#each view.data.quads as q, i (q.id)}<option value={i === 0 ? '' : q.id}
                >{q.name}{q.carries ? `, with ${q.carries}` : ''}</option
              >{/each}
          </select>
        </label>
        <button type="submit" class="button main">Begin a flight</button>
      </form>
    {/if}
  </div>
  {#if refused}<FailureNote failure={refused} />{/if}
  <Standings standings={view.data.standings} />
  <section class="panel px-3.5 py-2.5 mt-3" aria-labelledby="flights">
    <h2 id="flights">Flights along {course.name}</h2>
    {#if course.flights.length === 0}
      <p class="soft">Nobody has flown it yet.</p>
    {:else}
      <Scroll label="Flights">
        <table class="rows">
          <thead
            ><tr
              ><th scope="col">flight</th><th scope="col">quad</th><th scope="col">carried</th><th scope="col">read</th
              ><th scope="col">side</th></tr
            ></thead
          >
          <tbody>
            {#each course.flights as f (f.id)}
              <tr>
                <th scope="row"><a href={`#/prove/fly/${f.id}`}>{f.label}</a></th>
                <td>{f.quad}</td>
                <td
                  >{f.unit ?? 'not stated'}{#if f.goggles}<small class="soft block">{f.goggles}</small>{/if}</td
                >
                <td class="whitespace-nowrap">{f.read} of {course.spots}</td>
                <td
                  ><div class="flex max-sm:flex-col gap-1.5" role="group" aria-label={`Side of ${f.label}`}>
                    {#each ['before', 'after'] as const as s (s)}
                      <button
                        type="button"
                        class="button"
                        aria-pressed={(s === 'before' ? before : after).includes(f.id)}
                        onclick={() => side(f.id, s)}>{s}</button
                      >
                    {/each}
                  </div></td
                >
              </tr>
            {/each}
          </tbody>
        </table>
      </Scroll>
    {/if}
  </section>
  {#if proof.failure}
    <FailureNote failure={proof.failure} />
  {:else if proof.data}
    {@const p = proof.data}
    <section class="grid grid-cols-[minmax(0,1fr)] gap-2 mt-4" aria-labelledby="proof">
      <h2 id="proof" class="flex flex-wrap gap-2 items-center">
        <LevelMark level={p.level} word />{p.before.label}, then {p.after.label}
      </h2>
      <SpotPairs proof={p} />
      {#each p.findings as f, i (i)}<FindingCard finding={f} open={i === 0} />{/each}
      <details class="panel px-3.5 py-2.5">
        <summary class="font-bold min-h-8 cursor-pointer">What flew, and under what conditions</summary>
        <Scroll label="Conditions">
          <table class="rows">
            <thead
              ><tr
                ><th scope="col">condition</th><th scope="col">before</th><th scope="col">after</th><th scope="col"
                  >alike</th
                ></tr
              ></thead
            >
            <tbody>
              {#each p.conditions as c (c.what)}
                <tr
                  ><th scope="row">{c.what}</th><td>{c.before || 'not stated'}</td><td>{c.after || 'not stated'}</td><td
                    >{c.alike ? 'yes' : c.before && c.after ? 'no' : 'not known'}</td
                  ></tr
                >
              {/each}
            </tbody>
          </table>
        </Scroll>
      </details>
    </section>
  {:else if course.flights.length > 1}
    <p class="soft mt-3">Pick a flight before and one after: they are held against each other spot by spot.</p>
  {/if}
{/if}
