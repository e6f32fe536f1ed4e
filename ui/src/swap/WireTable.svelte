<script lang="ts">
  // The wiring pin by pin, of today or of the plan: each pin's place is picked, parts come
  // on and off. Every pick is judged at once, as all others are.
  import { api, type PinsView } from '../api/client.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import type { Change } from './gates';

  interface Props {
    pins: PinsView;
    onchange: (how: Change, says: string) => void;
  }
  let { pins, onchange }: Props = $props();
  let today = $state(false);
  // What was opened stays open while its wires are picked.
  const opened: Record<string, boolean> = $state({});
  const table = $derived(today ? pins.today : pins.table);
  type Part = PinsView['table']['parts'][number];

  const place = (id: string) => table.places.find((p) => p.id === id)?.words ?? id;

  function solder(part: Part, pin: Part['pins'][number], to: string) {
    const wire = { today, node: part.node, pin: pin.n, place: to };
    onchange(
      (quad, revision) => api.solder(quad, revision, wire),
      `${part.label}, ${pin.words}: ${to ? `on ${place(to)}` : 'joined to nothing'}.`,
    );
  }

  function put(patch: NonNullable<Part['takes']>, says: string) {
    const here = today;
    onchange((quad, revision) => (here ? api.note(quad, revision, patch) : api.plan(quad, revision, patch)), says);
  }

  function join(part: Part, at: number) {
    const way = part.joined?.[at];
    if (way && !way.chosen) put(way.patch, `${part.label}: ${way.label}.`);
  }

  function add(select: HTMLSelectElement) {
    if (select.value === '') return;
    const added = table.adds[Number(select.value)];
    select.value = '';
    if (added) put(added.patch, `Added: ${added.label}.`);
  }
</script>

<section class="panel grid gap-2 px-3.5 py-2.5" aria-labelledby="wire">
  <h3 id="wire">Wire it, pin by pin</h3>
  <div class="buttons" role="group" aria-label="Which wiring">
    <button type="button" class="button" aria-pressed={!today} onclick={() => (today = false)}>the plan</button>
    <button type="button" class="button" aria-pressed={today} onclick={() => (today = true)}>what is there today</button
    >
  </div>
  {#if table.missing}<p class="soft">{table.missing}</p>{/if}
  {#each table.parts as part (part.node)}
    {@const key = `${today} ${part.node}`}
    <details open={opened[key] ?? today} ontoggle={(e) => (opened[key] = e.currentTarget.open)}>
      <summary class="cursor-pointer min-h-7.5"><b>{part.label}</b></summary>
      {#if part.note}<p class="soft">{part.note}</p>{/if}
      {#if part.joined && part.joined.length > 1}
        {@const joined = part.joined}
        <label class="flex flex-wrap items-center gap-2 text-note"
          >Joined to the board by
          <select
            class="pl-1.5 py-0 text-note"
            value={String(joined.findIndex((j) => j.chosen))}
            onchange={(e) => join(part, Number(e.currentTarget.value))}
          >
            {#if !joined.some((j) => j.chosen)}<option value="-1">not said</option>{/if}
            {#each joined as j, i (i)}<option value={String(i)}>{j.label}</option>{/each}
          </select>
        </label>
      {/if}
      <div class="grid cols-fill-[215px] gap-x-4 gap-y-1.5 mt-1">
        {#each part.pins as pin (pin.n)}
          <label class="grid text-note">
            <span
              >{`${pin.n} ${pin.words}`}{#if pin.says}<b class="ml-1.5">{pin.says}</b>{/if}</span
            >
            <span class="flex items-center gap-1.5">
              <select
                class="min-w-0 flex-1 pl-1.5 py-0 text-note"
                disabled={pin.cabled}
                value={pin.place}
                onchange={(e) => solder(part, pin, e.currentTarget.value)}
              >
                <option value="">joined to nothing</option>
                {#each table.places as p (p.id)}<option value={p.id}>{p.words}</option>{/each}
              </select>
              {#if pin.level}<LevelMark level={pin.level} size={18} />{/if}
            </span>
          </label>
        {/each}
      </div>
      {#if part.takes}{@const takes = part.takes}<button
          type="button"
          class="button mt-2"
          onclick={() => put(takes, `Took out: ${part.label}.`)}>Take the {part.label} out</button
        >{/if}
    </details>
  {/each}
  {#if !table.missing && table.adds.length > 0}
    <label class="flex flex-wrap items-center gap-2"
      >Add a part
      <select class="pl-1.5" onchange={(e) => add(e.currentTarget)}>
        <option value="">choose one</option>
        {#each table.adds as a, i (i)}<option value={String(i)}>{a.label}</option>{/each}
      </select>
    </label>
  {/if}
</section>
