<script lang="ts">
  // The matrix of wants: press a cell for a wish, again for a must, again for
  // not needed. A mark says whether the plan meets it.
  import type { RouteView } from '../api/client.svelte';
  import { controllerOf, next, weightOf, withController, withWant } from './goals';

  interface Props {
    view: RouteView;
    onchange: (make: (goals: RouteView['goals']) => RouteView['goals']) => void;
  }
  let { view, onchange }: Props = $props();

  const linkOf = (quad: string, goggles: string) => view.plan.links.find((l) => l.quad === quad && l.goggles === goggles);
  const words = { must: 'must', wish: 'wish' } as const;
</script>

<section class="panel" aria-labelledby="wants">
  <h2 id="wants">Which quads with which goggles</h2>
  <table>
    <thead><tr><th scope="col"><span class="unseen">quad</span></th>{#each view.goggles as g (g.id)}<th scope="col">{g.name}</th>{/each}<th scope="col">sticks</th></tr></thead>
    <tbody>
      {#each view.quads as q (q.id)}
        <tr>
          <th scope="row">{q.name}</th>
          {#each view.goggles as g (g.id)}
            {@const weight = weightOf(view.goals, q.id, g.id)}
            {@const link = linkOf(q.id, g.id)}
            <td>
              <button type="button" class={weight === null ? 'none' : link?.met ? 'met' : 'unmet'}
                aria-label={`${q.name} with ${g.name}: ${weight ?? 'not needed'}${link ? (link.met ? ', works' : ', does not work') : ''}`}
                title={link?.says}
                onclick={() => onchange((goals) => withWant(goals, q.id, g.id, next(weightOf(goals, q.id, g.id))))}>
                {#if weight}<span aria-hidden="true">{link?.met ? '✓' : '✕'}</span> {words[weight]}{:else}<span class="dash" aria-hidden="true">·</span>{/if}
              </button>
            </td>
          {/each}
          <td>
            <select aria-label={`How the sticks reach ${q.name}`} disabled={!view.goals.wants?.some((w) => w.quad === q.id)} value={controllerOf(view.goals, q.id)}
              onchange={(e) => { const controller = e.currentTarget.value; onchange((goals) => withController(goals, q.id, controller)); }}>
              <option value="">planned</option>
              {#each view.controllers as c (c.id)}<option value={c.id}>{c.name}</option>{/each}
              <option value="separate">own receiver</option>
            </select>
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
</section>

<style>
  section {
    padding: 0.7rem 0.9rem;
  }
  table {
    border-collapse: collapse;
    width: 100%;
    table-layout: fixed;
  }
  th {
    text-align: left;
    font-weight: 600;
    overflow-wrap: anywhere;
    font-size: 0.95rem;
  }
  thead th {
    color: var(--soft);
    font-weight: 500;
    text-align: center;
  }
  td {
    padding: 2px;
  }
  button {
    width: 100%;
    min-height: 32px;
    border-radius: 4px;
    cursor: pointer;
    border: 1px solid var(--line);
    background: var(--raised);
    color: var(--ink);
    font-weight: 600;
    font-size: 0.92rem;
  }
  select {
    width: 100%;
    min-height: 32px;
    padding: 0 1.4rem 0 0.3rem;
    font-size: 0.85rem;
    background-color: var(--raised);
    color: var(--ink);
    border: 1px solid var(--line);
    border-radius: 4px;
    background-position: right 0.3rem center;
  }
  select:disabled {
    color: var(--soft);
  }
  .met {
    background: var(--fits-wash);
    border-color: var(--fits);
    color: var(--fits);
  }
  .unmet {
    background: var(--unfit-wash);
    border-color: var(--unfit);
    color: var(--unfit);
  }
  .dash {
    color: var(--soft);
  }
  @media (max-width: 640px) {
    button,
    select {
      min-height: 44px;
    }
  }
</style>
