<script lang="ts">
  // What a recorder wrote down in flight: drawn, its columns told once, spots marked on it and
  // what was lowest there taken over as a reading.
  import { untrack } from 'svelte';
  import { api, type Answer, type Failure, type FlightView, type RecordingView } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import RecordingPlot from './RecordingPlot.svelte';

  interface Props {
    view: FlightView;
    others: { id: string; label: string }[]; // flights along the same course
    onread: () => Promise<unknown>;
  }
  let { view, others, onread }: Props = $props();
  const flight = $derived(view.flight.id);
  const list = new Loaded<{ id: number; name: string; at: string }[]>();
  const shown = new Loaded<RecordingView>();
  const over = new Loaded<RecordingView>();
  let refused = $state.raw<Failure | null>(null);
  let said = $state('');
  let byDistance = $state(false);
  $effect(() => {
    const of = flight;
    untrack(() => {
      shown.data = over.data = null;
      void list.take(api.recordings(of)).then(() => {
        const newest = list.data?.[0];
        if (newest) void open(newest.id);
      });
    });
  });
  const open = (id: number, part?: number) => shown.take(api.recording(flight, id, part));

  async function took(answer: Answer<RecordingView>, says: string) {
    refused = answer.ok ? null : answer.failure;
    said = answer.ok ? says : '';
    if (!answer.ok) return;
    shown.data = answer.data;
    await list.take(api.recordings(flight));
  }
  async function take(input: HTMLInputElement) {
    const file = input.files?.[0];
    if (!file) return;
    await took(await api.keepRecording(flight, file.name, file), `${file.name} is kept.`);
    input.value = '';
  }
  async function drop(id: number) {
    const answer = await api.dropRecording(flight, id);
    refused = answer.ok ? null : answer.failure;
    if (!answer.ok) return;
    shown.data = null;
    await list.take(api.recordings(flight));
    const next = list.data?.[0];
    if (next) await open(next.id);
  }

  const measures: Record<string, string> = {
    'bit-rate': 'bit rate',
    delay: 'delay',
    voltage: 'pack voltage',
    distance: 'distance',
  };
  async function say(means: RecordingView['means'], marks: RecordingView['marks'], says: string) {
    const r = shown.data;
    if (!r) return;
    await took(await api.sayRecording(flight, r.id, { means, marks, part: r.part }), says);
  }

  // A stretch, and the spot that was passed in it.
  let from = $state(0);
  let to = $state(0);
  let spot = $state('');
  const at = $derived(spot || view.course.spots[0]?.id || '');
  const nextPass = $derived((view.flight.reads?.find((r) => r.spot === at)?.passes?.at(-1)?.pass ?? 0) + 1);
  const name = (id: string) => view.course.spots.find((s) => s.id === id)?.name ?? id;
  async function mark(event: SubmitEvent) {
    event.preventDefault();
    const r = shown.data;
    if (!r) return;
    const pass = Math.max(nextPass, 1 + Math.max(0, ...r.marks.filter((m) => m.spot === at).map((m) => m.pass)));
    await say(
      r.means,
      [...r.marks, { spot: at, pass, part: r.part, fromS: from, toS: to }],
      `Marked: ${name(at)}, pass ${pass}.`,
    );
  }
  async function read(m: RecordingView['marks'][number]) {
    if (m.lowestMbps === undefined) return;
    const answer = await api.readSpot(flight, {
      revision: view.revision,
      spot: m.spot,
      pass: m.pass,
      lowestMbps: Math.round(m.lowestMbps * 100) / 100,
    });
    refused = answer.ok ? null : answer.failure;
    said = answer.ok ? `Taken over: ${name(m.spot)}, pass ${m.pass}.` : '';
    if (answer.ok) await onread();
  }
  async function layOver(other: string) {
    over.data = null;
    if (!other) return;
    const theirs = await api.recordings(other);
    const newest = theirs.ok ? theirs.data[0] : undefined;
    if (newest) await over.take(api.recording(other, newest.id));
    else said = 'That flight has no recording.';
  }
  const clock = (s: number) => `${Math.floor(s / 60)}:${(s % 60).toFixed(1).padStart(4, '0')}`;
</script>

<section class="panel grid grid-cols-[minmax(0,1fr)] gap-2 px-3.5 py-2.5 mt-3" aria-labelledby="recordings">
  <h2 id="recordings">Recordings</h2>
  <div class="flex flex-wrap gap-3 items-end">
    <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
      >A recording (SubRip or CSV)
      <input type="file" accept=".srt,.csv,.txt,.tsv,text/*" onchange={(e) => take(e.currentTarget)} /></label
    >
    <button
      type="button"
      class="button"
      onclick={async () => took(await api.inventRecording(flight), 'An invented recording is kept.')}
      >None at hand? Invent one</button
    >
    {#if list.data && list.data.length > 0}
      <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
        >Shown
        <select value={String(shown.data?.id ?? '')} onchange={(e) => open(Number(e.currentTarget.value))}>
          {#each list.data as r (r.id)}<option value={String(r.id)}>{r.name}</option>{/each}
        </select></label
      >
    {/if}
  </div>
  {#if list.failure}<FailureNote failure={list.failure} />{/if}
  {#if shown.failure}<FailureNote failure={shown.failure} />{/if}
  {#if refused}<FailureNote failure={refused} />{/if}
  <p class="good" role="status">{said}</p>
  {#if shown.data}
    {@const r = shown.data}
    {#each r.notes as n (n)}<p class="bg-caution-wash px-3 py-1.5">{n}</p>{/each}
    <div class="flex flex-wrap gap-3 items-end">
      {#if r.parts.length > 1}
        <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
          >Flight in it
          <select value={String(r.part)} onchange={(e) => open(r.id, Number(e.currentTarget.value) + 1)}>
            {#each r.parts as p, i (i)}<option value={String(i)}
                >{i + 1}: {clock(p.toS - p.fromS)}, from line {p.fromLine}</option
              >{/each}
          </select></label
        >
      {/if}
      {#each Object.entries(measures) as [m, words] (m)}
        <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
          >Column of the {words}
          <select
            value={r.means[m] ?? ''}
            onchange={(e) => say({ ...r.means, [m]: e.currentTarget.value }, r.marks, `Noted: the ${words}.`)}
          >
            <option value="">none</option>
            {#each r.columns as c (c.name)}<option value={c.name}>{c.name}{c.unit ? `, ${c.unit}` : ''}</option>{/each}
          </select></label
        >
      {/each}
    </div>
    {#if r.curves.length === 0}
      <p>Say which column tells what: its names do not.</p>
    {:else}
      <div class="flex flex-wrap gap-3 items-end">
        {#if others.length > 0}
          <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
            >Lay over it
            <select onchange={(e) => layOver(e.currentTarget.value)}>
              <option value="">nothing</option>
              {#each others as o (o.id)}<option value={o.id}>{o.label}</option>{/each}
            </select></label
          >
        {/if}
        {#if r.over.length > 0}
          <div class="flex gap-1.5" role="group" aria-label="Drawn over">
            <button type="button" class="button" aria-pressed={!byDistance} onclick={() => (byDistance = false)}
              >time</button
            >
            <button type="button" class="button" aria-pressed={byDistance} onclick={() => (byDistance = true)}
              >distance</button
            >
          </div>
        {/if}
      </div>
      <RecordingPlot
        recording={r}
        over={over.data}
        {byDistance}
        {from}
        {to}
        spotName={name}
        onrange={(a, b) => ([from, to] = [a, b])}
      />
      {#if r.worst.length > 0}
        <div class="flex flex-wrap gap-2 items-center">
          <b>Worst passages:</b>
          {#each r.worst as w, i (i)}
            <button type="button" class="button" onclick={() => ([from, to] = [w.fromS, w.toS])}
              >{clock(w.atS)}, {w.value.toFixed(1)} Mbit/s</button
            >
          {/each}
        </div>
      {/if}
      {#if r.gaps.length > 0}<p>
          <b>Nothing recorded:</b>
          {r.gaps.map((g) => `${clock(g.fromS)} to ${clock(g.toS)}`).join(', ')}.
        </p>{/if}
      <form class="flex flex-wrap gap-3 items-end" onsubmit={mark}>
        <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
          >From, s <input
            class="w-28"
            type="number"
            step="0.1"
            min="0"
            value={from}
            onchange={(e) => (from = e.currentTarget.valueAsNumber || 0)}
          /></label
        >
        <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
          >To, s <input
            class="w-28"
            type="number"
            step="0.1"
            min="0"
            value={to}
            onchange={(e) => (to = e.currentTarget.valueAsNumber || 0)}
          /></label
        >
        <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
          >Spot passed
          <select bind:value={spot}>
            {#each view.course.spots as s, i (s.id)}<option value={i === 0 ? '' : s.id}>{s.name ?? s.id}</option>{/each}
          </select></label
        >
        <button type="submit" class="button main" disabled={to <= from}>Mark it</button>
      </form>
      {#if r.marks.length > 0}
        <ul class="grid gap-1.5">
          {#each r.marks as m, i (i)}
            <li class="flex flex-wrap gap-2 items-center">
              <span
                ><b>{name(m.spot)}</b>, pass {m.pass}: {clock(m.fromS)} to {clock(m.toS)}, {m.lowestMbps === undefined
                  ? 'no bit rate told'
                  : `lowest ${m.lowestMbps.toFixed(1)} Mbit/s`}</span
              >
              {#if m.lowestMbps !== undefined}<button
                  type="button"
                  class="button"
                  aria-label={`Take ${name(m.spot)}, pass ${m.pass} over as a reading`}
                  onclick={() => read(m)}>Take over</button
                >{/if}
              <button
                type="button"
                class="button"
                aria-label={`Take the mark of ${name(m.spot)}, pass ${m.pass} off`}
                onclick={() =>
                  say(
                    r.means,
                    r.marks.filter((o) => o !== m),
                    'Taken off.',
                  )}>Take off</button
              >
            </li>
          {/each}
        </ul>
      {/if}
    {/if}
    <p><button type="button" class="button" onclick={() => drop(r.id)}>Let {r.name} go</button></p>
  {/if}
</section>
