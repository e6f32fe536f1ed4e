<script lang="ts">
  // What the route would meet with something bought: a column for each device tried, beside the
  // route as it is. What is tried stands in the address.
  import { untrack } from 'svelte';
  import { replace, router } from 'svelte-spa-router';
  import { api, type RouteView, type RouteWhatIf } from '../api/client.svelte';
  import WhatIf from '../fleet/WhatIf.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';

  let { links, whole }: { links: RouteView['plan']['links']; whole: number } = $props();

  const whatIf = new Loaded<RouteWhatIf>();
  const tried = $derived(new URLSearchParams(router.querystring ?? '').get('try')?.split(',').filter(Boolean) ?? []);
  const ask = () => void whatIf.take(api.routeWhatIf(tried));
  $effect(() => {
    void [tried, whole]; // the wants may have changed
    untrack(ask);
  });
  const show = (models: string[]) => void replace(models.length > 0 ? `/route?try=${models.join(',')}` : '/route');
  const columns = $derived((whatIf.data?.columns ?? []).filter((c) => c.wants.length === links.length));
  // Rows that say nothing are left out: wants met with and without.
  const rows = $derived(
    links.map((link, i) => ({ link, i })).filter(({ link, i }) => !link.met || columns.some((c) => !c.wants[i]!.met)),
  );
</script>

{#if whatIf.failure}
  <FailureNote failure={whatIf.failure} again={ask} />
  <button type="button" class="button" onclick={() => show([])}>Take what is tried off the route</button>
{/if}
{#if whatIf.data && links.length > 0}
  <WhatIf whatIf={whatIf.data} off="the route" ontry={show} />
  {#if columns.length > 0 && rows.length > 0}
    <div class="overflow-x-auto mb-3">
      <table class="border-collapse bg-sheet border border-line text-note">
        <caption class="unseen">Wants the route does not meet, with what could be bought</caption>
        <thead>
          <tr>
            <th scope="col">wanted</th>
            <th scope="col">the route</th>
            {#each columns as c (c.model)}<th scope="col">what if: {c.name}</th>{/each}
          </tr>
        </thead>
        <tbody>
          {#each rows as { link, i } (i)}
            <tr>
              <th scope="row" class="font-normal">{link.quadName} with {link.gogglesName}</th>
              <td>{link.met ? '✓ met' : '✕ not met'}</td>
              {#each columns as c (c.model)}
                {@const w = c.wants[i]!}
                <td class:opens={w.met && !link.met} title={w.says}
                  >{w.met ? '✓ met' : '✕ not met'}{w.takes ? '' : ', without it'}</td
                >
              {/each}
            </tr>
          {/each}
          <tr>
            <th scope="row" class="font-normal">steps to take</th>
            <td></td>
            {#each columns as c (c.model)}<td
                >{c.count === 0
                  ? 'as the route'
                  : `${c.steps}${c.doors > 0 ? `, ${c.doors} without a way back` : ''}`}</td
              >{/each}
          </tr>
        </tbody>
      </table>
    </div>
  {/if}
{/if}

<style>
  th,
  td {
    border-top: 1px solid var(--line);
    padding: 0.25rem 0.7rem;
    text-align: left;
    vertical-align: top;
  }
  .opens {
    font-weight: 700;
    background: var(--accent-wash);
  }
</style>
