<script lang="ts">
  // The layout today and as it is to be. Drag an element, or choose it and use the
  // arrow keys; each move is a change of the plan, and can be taken back.
  import type { OsdView, Patch } from '../api/client.svelte';
  import OsdGrid from './OsdGrid.svelte';

  interface Props {
    view: OsdView;
    onpick: (patch: Patch, says: string) => void;
  }
  let { view, onpick }: Props = $props();

  type Layout = NonNullable<Patch['osd']>;
  let profile = $state(1);
  let chosen = $state('');
  // What was there before each change made here, the last one at the end.
  let history = $state.raw<Layout[]>([]);

  const after = $derived(view.after);
  const layout = $derived<Layout>({
    grid: after?.grid ?? '',
    elements: (after?.elements ?? []).map(({ id, x, y, profiles }) => ({
      id,
      x,
      y,
      ...(profiles ? { profiles } : {}),
    })),
  });
  const one = $derived(after?.elements.find((e) => e.id === chosen));
  const words = (grid: string) => grid.replace('x', '×');

  function change(next: Layout, says: string) {
    history = [...history, layout];
    onpick({ osd: next }, says);
  }
  function move(id: string, x: number, y: number) {
    change({ ...layout, elements: layout.elements.map((e) => (e.id === id ? { ...e, x, y } : e)) }, '');
  }
  function undo() {
    const last = history.at(-1);
    if (!last) return;
    history = history.slice(0, -1);
    onpick({ osd: last }, 'Taken back.');
  }
  function takeOff() {
    if (one)
      change({ ...layout, elements: layout.elements.filter((e) => e.id !== one.id) }, `Taken off: ${one.label}.`);
  }
  function putOn(id: string) {
    const cell = view.more.find((e) => e.id === id);
    if (!cell) return;
    chosen = id;
    change(
      {
        ...layout,
        elements: [...layout.elements, { id, x: cell.x, y: cell.y, ...(profile === 1 ? {} : { profiles: [profile] }) }],
      },
      `Put on: ${cell.label}.`,
    );
  }
  function toggle(n: number, on: boolean) {
    if (!one) return;
    const has = one.profiles ?? [1];
    const profiles = on ? [...has, n].sort() : has.filter((p) => p !== n);
    if (profiles.length === 0) return takeOff();
    change({ ...layout, elements: layout.elements.map((e) => (e.id === one.id ? { ...e, profiles } : e)) }, '');
  }
</script>

{#if view.missing}
  <p class="panel m-0 px-3.5 py-2.5">{view.missing}</p>
{/if}
<figure class="panel px-3.5 py-2.5">
  <figcaption class="unseen">The layout of the OSD today and as it is to be.</figcaption>
  <div class="flex flex-wrap gap-y-1 gap-x-4 items-center min-h-11">
    <span role="radiogroup" aria-label="Profile"
      >{#each [1, 2, 3] as n (n)}<label class="mr-3"
          ><input type="radio" name="profile" checked={profile === n} onchange={() => (profile = n)} /> profile {n}</label
        >{/each}</span
    >
    <button type="button" class="button" disabled={history.length === 0} onclick={undo}>Undo</button>
  </div>
  <div class="both grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-3 items-end">
    {#if view.before}
      <div>
        <p><b>today</b> <span class="soft">{words(view.before.grid)}, {view.before.elements.length} elements</span></p>
        <OsdGrid drawn={view.before} label="Layout today" {profile} />
      </div>
    {/if}
    {#if after}
      <div>
        <p>
          <b>{view.planned ? 'next, as planned' : 'next, as it would be converted'}</b>
          <span class="soft"
            >{words(after.grid)}{view.screen.canvas ? '' : ", the unit's own"}, {after.elements.length} elements</span
          >
        </p>
        <OsdGrid drawn={after} label="Layout next" {profile} {chosen} onchoose={(id) => (chosen = id)} onmove={move} />
      </div>
    {/if}
  </div>
  {#if after}
    <div class="tools flex flex-wrap gap-y-1 gap-x-4 items-center min-h-11">
      {#if !view.planned}<button
          type="button"
          class="button"
          onclick={() => change(layout, 'The converted layout is in the plan.')}>Take the converted layout</button
        >{/if}
      <label
        >put on
        <select
          value=""
          onchange={(e) => {
            const id = e.currentTarget.value;
            e.currentTarget.value = '';
            putOn(id);
          }}
        >
          <option value="">…</option>
          {#each view.more as e (e.id)}<option value={e.id}>{e.label}</option>{/each}
        </select>
      </label>
      {#if one}
        <span><b>{one.label}</b> <span class="mono">{one.x + 1}, {one.y + 1}</span></span>
        {#each [1, 2, 3] as n (n)}<label
            ><input
              type="checkbox"
              checked={(one.profiles ?? [1]).includes(n)}
              onchange={(e) => toggle(n, e.currentTarget.checked)}
            />
            in {n}</label
          >{/each}
        <button type="button" class="button" onclick={takeOff}>Take it off</button>
      {:else}
        <span class="soft">drag an element, or choose it and use the arrow keys</span>
      {/if}
    </div>
  {/if}
</figure>
{#if view.lost.length > 0}
  <section class="panel m-0 px-3.5 py-2.5" aria-labelledby="lost">
    <h3 id="lost">Lost, what is missed most first</h3>
    <ul class="mt-1">
      {#each view.lost as l (l.id)}<li>
          <b>{l.label}</b>: {l.why}{l.instead ? `; ${l.instead} tells nearly the same` : ''}
        </li>{/each}
    </ul>
  </section>
{/if}

<style>
  .both:not(:has(> :nth-child(2))) {
    grid-template-columns: 1fr;
  }
  @media (max-width: 760px) {
    .both {
      grid-template-columns: 1fr;
    }
  }
</style>
