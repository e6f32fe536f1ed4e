<script lang="ts">
  // Two quads against each other, measure by measure. Which two, and whether as they fly or as
  // they are planned, stands in the address.
  import { untrack } from 'svelte';
  import { replace, router } from 'svelte-spa-router';
  import { api, type AgainstView } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import PickTwo from '../lib/PickTwo.svelte';

  const view = new Loaded<AgainstView>();
  const query = $derived(new URLSearchParams(router.querystring ?? ''));
  const one = $derived(query.get('one') ?? '');
  const other = $derived(query.get('other') ?? '');
  const planned = $derived(query.get('as') === 'planned');
  const ask = () => view.take(api.against(one, other, planned));
  $effect(() => {
    void [one, other, planned];
    untrack(() => void ask());
  });
  function show(change: { one?: string; other?: string; planned?: boolean }) {
    const now = { one, other, planned, ...change };
    const parts = [
      now.one && `one=${encodeURIComponent(now.one)}`,
      now.other && `other=${encodeURIComponent(now.other)}`,
      now.planned && 'as=planned',
    ].filter(Boolean);
    void replace(parts.length > 0 ? `/against?${parts.join('&')}` : '/against');
  }
  const sides = $derived(view.data?.sides ?? []);
  const differs = $derived((view.data?.measures ?? []).filter((m) => !m.same));
  const same = $derived((view.data?.measures ?? []).filter((m) => m.same));
  const better = (n: number) => differs.filter((m) => m.better === n).length;
</script>

{#if view.failure}<FailureNote failure={view.failure} again={ask} />{/if}
<h1 aria-live="polite">
  {sides.length === 2 ? `${sides[0]?.name} against ${sides[1]?.name}` : 'Two quads against each other'}
</h1>
<p class="soft">
  {sides.length === 2
    ? `Of ${differs.length} things in which they differ, ${sides[0]?.name} is better in ${better(1)} and ${sides[1]?.name} in ${better(2)}. Which count is a question of what they are flown for.`
    : 'Pick two.'}
  <a href="#/decide">To the fleet's decision</a>
</p>
{#if view.data}
  <PickTwo quads={view.data.quads} {one} {other} onpick={show}>
    <label class="flex flex-wrap items-center gap-2 min-w-0 max-w-full"
      >Held
      <select value={planned ? 'planned' : ''} onchange={(e) => show({ planned: e.currentTarget.value !== '' })}>
        <option value="">as they fly</option>
        <option value="planned">as they are planned</option>
      </select></label
    >
  </PickTwo>
{/if}
{#if sides.length === 2}
  <section class="panel px-4 py-2" aria-label="What differs">
    <table class="rows">
      <thead>
        <tr>
          <th scope="col"><span class="unseen">what</span></th>
          {#each sides as s (s.quad)}
            <th scope="col">
              <a href={`#/swap/${s.quad}`}>{s.name}</a>
              <span class="block soft text-note font-normal">{[s.flies, s.use].filter(Boolean).join(', ')}</span>
              <LevelMark level={s.level} word />
            </th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each differs as m (m.id)}
          <tr>
            <th scope="row">{m.title}</th>
            {#each m.words as w, i (i)}
              <td class:ahead={m.better === i + 1}
                >{w}&#32;{#if m.better === i + 1}<span class="better">✓ better</span>{/if}</td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </section>
  {#if same.length > 0}
    <section class="mt-3" aria-labelledby="alike">
      <h2 id="alike">No difference</h2>
      <ul class="list-disc pl-5">
        {#each same as m (m.id)}<li>{m.title}: {m.words[0]}</li>{/each}
      </ul>
    </section>
  {/if}
  <p class="soft text-note mt-2">
    Ranges are shares of each other's in free space, hover time an estimate from mass and the energy of the pack. What
    is not stated of one of them makes neither the better.
  </p>
{/if}

<style>
  th,
  td {
    overflow-wrap: break-word;
  }
  @media (max-width: 640px) {
    table {
      table-layout: fixed;
    }
    th:first-child {
      width: 31%;
    }
  }
  .ahead {
    font-weight: 600;
  }
  .better {
    margin-left: 0.5rem;
    color: var(--fits);
    font-size: 0.85em;
    white-space: nowrap;
  }
</style>
