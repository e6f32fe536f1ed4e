<script lang="ts">
  // The matrix of wants: press a cell for a wish, again for a must, again for
  // not needed. A mark says whether the plan meets it.
  import type { RouteView } from '../api/client.svelte';
  import { controllerOf, next, rowOf, weightOf, withController, withWant } from './goals';

  interface Props {
    view: RouteView;
    onchange: (make: (goals: RouteView['goals']) => RouteView['goals']) => void;
  }
  let { view, onchange }: Props = $props();

  const linkOf = (quad: string, goggles: string) =>
    view.plan.links.find((l) => l.quad === quad && l.goggles === goggles);
  const words = { must: 'must', wish: 'wish' } as const;
</script>

<section class="panel px-3.5 py-3" aria-labelledby="wants">
  <h2 id="wants">Which quads with which goggles</h2>
  <table class="border-collapse w-full table-fixed">
    <thead
      ><tr
        ><th class="wrap-anywhere text-note text-soft font-medium text-center" scope="col"
          ><span class="unseen">quad</span></th
        >{#each view.goggles as g (g.id)}<th
            class="wrap-anywhere text-note text-soft font-medium text-center"
            scope="col">{g.name}</th
          >{/each}<th class="wrap-anywhere text-note text-soft font-medium text-center" scope="col">sticks</th></tr
      ></thead
    >
    <tbody>
      {#each view.quads as q (q.id)}
        <tr>
          <th class="text-left font-semibold wrap-anywhere text-note" scope="row">{q.name}</th>
          {#each view.goggles as g (g.id)}
            {@const weight = weightOf(view.goals, q.id, g.id)}
            {@const link = linkOf(q.id, g.id)}
            <td class="p-0.5">
              <button
                type="button"
                class={[
                  'w-full min-h-8 max-sm:min-h-11 rounded border text-note font-semibold',
                  weight === null
                    ? 'border-line bg-raised text-ink'
                    : link?.met
                      ? 'border-fits bg-fits-wash text-fits'
                      : 'border-unfit bg-unfit-wash text-unfit',
                ]}
                aria-label={`${q.name} with ${g.name}: ${weight ?? 'not needed'}${link ? (link.met ? ', works' : ', does not work') : ''}`}
                title={link?.says}
                onclick={() => onchange((goals) => withWant(goals, q.id, g.id, next(weightOf(goals, q.id, g.id))))}
              >
                {#if weight}<span aria-hidden="true">{link?.met ? '✓' : '✕'}</span> {words[weight]}{:else}<span
                    class="text-soft"
                    aria-hidden="true">·</span
                  >{/if}
              </button>
            </td>
          {/each}
          <td class="p-0.5">
            <select
              class="w-full min-h-8 max-sm:min-h-11 text-small py-0 pl-1 pr-6 bg-[right_0.3rem_center]"
              aria-label={`How the sticks reach ${q.name}`}
              disabled={!view.goals.wants?.some((w) => rowOf(w) === q.id)}
              value={controllerOf(view.goals, q.id)}
              onchange={(e) => {
                const controller = e.currentTarget.value;
                onchange((goals) => withController(goals, q.id, controller));
              }}
            >
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
