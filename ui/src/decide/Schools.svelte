<script lang="ts">
  // What each school makes of the same fleet for the same money, side by side.
  import { untrack } from 'svelte';
  import { api, type SchoolsView } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import { money } from '../lib/words';
  import Scroll from '../lib/Scroll.svelte';

  interface Props {
    budget: number;
    asked: string;
    onpick: (school: string) => void;
  }
  let { budget, asked, onpick }: Props = $props();
  const view = new Loaded<SchoolsView>();
  $effect(() => {
    const of = budget;
    untrack(() => void view.take(api.schools(of)));
  });
  type School = SchoolsView['schools'][number];
  const rows: [string, (s: School, currency: string) => string][] = [
    ['to pay', (s, c) => (s.money < 0 ? `brings ${money(-s.money, c)}` : money(s.money, c))],
    ['quads changed', (s) => String(s.changed)],
    ['fly digital afterwards', (s) => `${s.flies} of ${s.quads.length}`],
    ['things to buy', (s) => String(s.buys)],
    ['things sold', (s) => String(s.sells)],
    ['steps without a way back', (s) => String(s.oneWay)],
    ['what is lost', (s) => (s.lost.length === 0 ? 'nothing' : s.lost.join('; '))],
  ];
  const names = $derived(view.data?.schools.find((s) => s.found)?.quads ?? []);
  const label = (s: School, quad: string) => s.quads.find((q) => q.quad === quad);
</script>

<section class="panel px-4 py-2.5" aria-labelledby="schools">
  <h2 id="schools" class="text-body m-0">
    The same fleet under each school{view.data ? `, for ${money(budget, view.data.currency)}` : ''}
  </h2>
  {#if view.failure}<FailureNote failure={view.failure} again={() => view.take(api.schools(budget))} />{/if}
  {#if view.data}
    {@const d = view.data}
    <Scroll label="Schools side by side" of="overflow-x-auto">
      <table>
        <thead>
          <tr>
            <td></td>
            {#each d.schools as s (s.school.id)}
              <th scope="col"
                >{s.school.title}<span class="block soft text-note font-normal">{s.school.why}</span>
                <button
                  type="button"
                  class="button mt-1"
                  aria-pressed={s.school.id === asked}
                  onclick={() => onpick(s.school.id)}>{s.school.id === asked ? 'Shown above' : 'Show it'}</button
                ></th
              >
            {/each}
          </tr>
        </thead>
        <tbody>
          {#each rows as [title, of] (title)}
            <tr>
              <th scope="row">{title}</th>
              {#each d.schools as s (s.school.id)}<td>{s.found ? of(s, d.currency) : 'no choice'}</td>{/each}
            </tr>
          {/each}
          {#each names as n (n.quad)}
            <tr>
              <th scope="row">{n.name}</th>
              {#each d.schools as s (s.school.id)}
                {@const q = label(s, n.quad)}
                <td class:done={q && !q.leave}>{q ? (q.leave ? 'stays' : q.label) : ''}</td>
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </Scroll>
  {:else if !view.failure}<p class="soft" role="status">Asking each school…</p>{/if}
</section>

<style>
  th,
  td {
    padding: 4px 14px 4px 0;
    text-align: left;
    vertical-align: top;
    min-width: 8.5rem;
  }
  thead th {
    min-width: 12rem;
  }
  .done {
    font-weight: 600;
  }
</style>
