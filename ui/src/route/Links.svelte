<script lang="ts">
  // The map of links: air units by goggles, what is stated of each pair and how what is owned
  // stands today; statements are entered and changed right there.
  import { push } from 'svelte-spa-router';
  import { api, type Failure, type LinkMap, type ShelfEntry } from '../api/client.svelte';
  import Releases from '../begin/Releases.svelte';
  import WhoSays from '../begin/WhoSays.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import { money } from '../lib/words';

  let { params }: { params: { unit?: string; goggles?: string } } = $props();

  const map = new Loaded<LinkMap>();
  // What is asked about: an update of one piece, else what the route does.
  let kit = $state('');
  let release = $state('');
  let owned = $state.raw<ShelfEntry[]>([]);
  const load = () => map.take(api.links(kit && release ? { kit, to: release } : {}));
  void load();
  void api.shelf({ kind: 'kit' }).then((shelf) => (owned = shelf.ok ? shelf.data.entries : []));
  // What of a model there is, or what one costs.
  const ownedOf = (m: LinkMap['units'][number]) =>
    m.owned.length > 0
      ? m.owned.join('; ')
      : `none owned${m.offer?.price === undefined ? '' : `, one costs ${money(m.offer.price, m.offer.currency ?? '')}`}`;
  const modelOf = (id: string) => (owned.find((e) => e.id === id)?.entry as { model?: string } | undefined)?.model;
  const releasesOf = (model?: string) =>
    [...(map.data?.units ?? []), ...(map.data?.goggles ?? [])].find((m) => m.id === model)?.releases ?? [];
  const askable = $derived(owned.filter((e) => releasesOf(modelOf(e.id)).length > 1));
  let refused = $state.raw<Failure | null>(null);
  let unit = $state('');
  let goggles = $state('');
  let from = $state('');
  let said = $state('');

  const label = (list: LinkMap['units'], id?: string) => list.find((m) => m.id === id)?.label ?? id ?? '';
  const cellAt = (u: string, g: string) => map.data?.cells.find((c) => c.unit === u && c.goggles === g);
  const open = $derived(params.unit && params.goggles ? cellAt(params.unit, params.goggles) : undefined);

  $effect(() => {
    if (open) document.getElementById('pair')?.scrollIntoView({ block: 'center' });
  });

  async function note(says: 'within' | 'any' | 'never' | 'nothing', instead: boolean) {
    if (!open) return;
    const within = says === 'within';
    const answer = await api.stateOf(open.unit, open.goggles, {
      says,
      unit: within ? unit : '',
      goggles: within ? goggles : '',
      from,
      instead,
    });
    refused = answer.ok ? null : answer.failure;
    if (!answer.ok) return;
    unit = goggles = '';
    said = 'Noted.';
    await load();
  }
  async function takeOut(id: string) {
    const shelf = await api.shelf({ find: id });
    const there = shelf.ok ? shelf.data.entries.find((e) => e.kind === 'pairing' && e.id === id) : undefined;
    if (!there) return;
    const answer = await api.remove('pairing', id, there.revision);
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) await load();
  }
</script>

<div class="title">
  <h1>What links with what</h1>
  <span class="screen-only buttons ml-auto"
    ><a href="#/route">The route</a> <button type="button" class="button" onclick={() => print()}>Print</button></span
  >
</div>
{#if map.failure}<FailureNote failure={map.failure} again={() => load()} />{/if}
{#if map.data}
  {@const m = map.data}
  {#if m.units.length === 0 || m.goggles.length === 0}
    <p>
      There is no air unit or no pair of goggles yet. <a href="#/begin/link">Ask whether two link</a>, and both are
      here.
    </p>
  {:else}
    <p class="soft mb-2 wrap-anywhere">
      What is stated of each pair of models; the marks say how what you own of both stands today and, where it differs,
      after {m.updates.length === 0 ? 'nothing: no update is planned' : m.updates.join(', ')}.
    </p>
    <p class="flex flex-wrap gap-x-3 gap-y-1 items-center mb-2 screen-only">
      <label class="inline-flex items-center gap-2 max-w-full"
        >After
        <select
          class="min-w-0 max-w-80"
          aria-label="after which update"
          value={kit}
          onchange={(e) => {
            kit = e.currentTarget.value;
            release = '';
            if (!kit) void load();
          }}
        >
          <option value="">what the route does</option>
          {#each askable as e (e.id)}<option value={e.id}>an update of {e.name}</option>{/each}
        </select></label
      >
      {#if kit}
        <label class="inline-flex items-center gap-2 max-w-full"
          >to
          <select
            class="min-w-0 max-w-40"
            aria-label="to which release"
            value={release}
            onchange={(e) => {
              release = e.currentTarget.value;
              void load();
            }}
          >
            <option value="">which release?</option>
            {#each releasesOf(modelOf(kit)) as r (r)}<option value={r}>{r}</option>{/each}
          </select></label
        >
      {/if}
    </p>
    <div class="scroll">
      <table class="rows bg-sheet border border-line">
        <caption class="unseen">Air units by goggles</caption>
        <thead>
          <tr>
            <th scope="col">air unit</th>
            {#each m.goggles as g (g.id)}<th scope="col"
                >{g.label}<small class="block soft font-normal">{ownedOf(g)}</small></th
              >{/each}
          </tr>
        </thead>
        <tbody>
          {#each m.units as u (u.id)}
            <tr>
              <th scope="row">{u.label}<small class="block soft font-normal">{ownedOf(u)}</small></th>
              {#each m.goggles as g (g.id)}
                {@const c = cellAt(u.id, g.id)}
                <td>
                  {#if c}
                    <a
                      class="flex items-start gap-2 no-underline text-ink min-h-10 hover:underline"
                      href={`#/links/${u.id}/${g.id}`}
                      aria-current={c === open ? 'true' : undefined}
                    >
                      {#if c.now}<LevelMark level={c.now} size={20} />{/if}
                      {#if c.after && c.after !== c.now}<span
                          class="inline-flex items-center gap-1"
                          title="after the updates"
                          ><span aria-hidden="true">→</span><span class="unseen">after the updates:</span><LevelMark
                            level={c.after}
                            size={20}
                          /></span
                        >{/if}
                      <span class={c.stated === 'nobody' || c.stated === 'never' ? 'soft' : ''}
                        >{c.stated === 'at-odds' ? 'contradictory' : c.says}</span
                      >
                    </a>
                  {/if}
                </td>
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    {#if open}
      <section class="panel grid gap-2.5 px-5 py-4 mt-3 max-w-[52rem] screen-only" aria-labelledby="pair">
        <div class="flex flex-wrap justify-between gap-3">
          <h2 id="pair">{label(m.units, open.unit)} with {label(m.goggles, open.goggles)}</h2>
          <button type="button" class="button" onclick={() => push('/links')}>Close</button>
        </div>
        <p class="good" role="status">{said}</p>
        {#if open.nowSays}<p class="flex gap-2 items-start">
            {#if open.now}<LevelMark level={open.now} size={20} />{/if}<span class="first-letter:uppercase"
              >{open.nowSays}.</span
            >
          </p>{/if}
        {#if open.after && open.after !== open.now}<p class="flex gap-2 items-start">
            <LevelMark level={open.after} size={20} /><span>After the updates: {open.afterSays}.</span>
          </p>{/if}
        {#if open.stated === 'at-odds'}<p class="bad">{open.says}.</p>{/if}
        <ul class="grid gap-1.5">
          {#each open.statements as s (s.id)}
            <li class="border-t border-t-line pt-1.5 grid gap-0.5">
              <span class="font-semibold first-letter:uppercase">{s.says}</span>
              {#if s.sticksIn}<span>{s.sticksIn}</span>{/if}
              {#if s.gives.length > 0}<span>gives {s.gives.join(', ')}</span>{/if}
              <span class="soft text-note">{s.source}</span>
              <span class="buttons"
                ><a href={`#/shelf/edit/gear/${s.id}`}>Change it</a>
                <button type="button" class="button" onclick={() => takeOut(s.id)}>Take it out</button></span
              >
            </li>
          {:else}<li class="soft">Nobody has said anything of this pair.</li>{/each}
        </ul>
        <form
          class="grid gap-2 border-t border-t-line pt-2"
          onsubmit={(e) => {
            e.preventDefault();
            void note('within', false);
          }}
        >
          <h3>State another</h3>
          <Releases
            bind:unit
            bind:goggles
            unitReleases={releasesOf(open.unit)}
            gogglesReleases={releasesOf(open.goggles)}
          />
          <WhoSays bind:from />
          {#if refused}<FailureNote failure={refused} />{/if}
          <p class="buttons">
            <button class="button main">They link on these</button>
            <button type="button" class="button" onclick={() => note('any', true)}>Any to any</button>
            <button type="button" class="button" onclick={() => note('never', true)}>Never</button>
            <button type="button" class="button" onclick={() => note('nothing', true)}>Nobody knows</button>
          </p>
          <p class="soft text-note">The last three stand in the place of what is stated above.</p>
        </form>
      </section>
    {/if}
  {/if}
{:else if !map.failure}<p class="soft" role="status">One moment…</p>{/if}

<style>
  a[aria-current] {
    outline: 2px solid var(--focus);
    outline-offset: 2px;
  }
</style>
