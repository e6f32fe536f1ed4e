<script lang="ts">
  // What becomes of one quad, what that is worth by its sum, and why not something else.
  import type { QuadPlan } from '../api/client.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { fixed, money } from '../lib/words';

  let { q, currency }: { q: QuadPlan; currency: string } = $props();
  const from = $derived(
    { today: 'on it today', owned: 'owned', elsewhere: `from ${q.way.from}`, 'to-buy': 'to buy' }[q.way.origin] ?? '',
  );
  const better = $derived(q.others.find((o) => o.worth > 0 && o.origin !== 'ready'));
</script>

<li class="panel grid gap-1.5 px-4 py-2.5">
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
    <h2 class="text-body"><a href={`#/candidates/${q.quad}`}>{q.name}</a></h2>
    <span class="soft text-note"
      >{q.purpose.title}{q.stated ? '' : ' (not stated)'}{q.weight === 1 ? '' : `, counts ${q.weight} times`}</span
    >
    <span class="ml-auto">worth {q.worth}</span>
  </div>
  <p class="flex flex-wrap items-center gap-x-2">
    <LevelMark level={q.way.level} size={18} />
    {#if q.grounded}<strong>It is not flown any more: what it was flown with is given up.</strong>
    {:else if q.leave}<strong>{q.way.label}</strong>{:else}
      <strong>{q.way.label}</strong> <span>{from}, {q.price > 0 ? money(q.price, currency) : 'nothing to pay'}</span>
    {/if}
  </p>
  {#if better}
    <p>{better.label}{better.from ? ` of ${better.from}` : ''}: {better.says}.</p>
  {:else if q.leave && q.others.length === 0}
    <p>No unit has a whole plan here{q.out[0] ? `: ${q.out[0].label}, for one: ${q.out[0].says}` : '.'}</p>
  {:else if q.leave}
    <p>Nothing that goes on it is worth more.</p>
  {/if}
  <details>
    <summary>How that adds up{q.way.steps.length > 0 ? ', what is done' : ''} and what else there is</summary>
    <div class="grid gap-2 py-1.5">
      {#if q.way.steps.length > 0}
        <ol class="list-decimal pl-5">
          {#each q.way.steps as s, i (i)}<li>{s}</li>{/each}
        </ol>
      {/if}
      {#if q.way.findOut}<p><strong>To find out first:</strong> {q.way.findOut.join('; ')}.</p>{/if}
      {#if q.rows.length > 0}
        <table>
          <thead
            ><tr
              ><th scope="col">what counts</th><th scope="col">weight</th><th scope="col">has</th><th scope="col"
                >share</th
              ><th scope="col">points</th></tr
            ></thead
          >
          <tbody>
            {#each q.rows as r (r.criterion)}
              <tr
                ><th scope="row">{r.title}</th><td>{r.weight}</td><td>{r.says}</td><td>{fixed(r.share * 100, 0)} %</td
                ><td>{r.points}</td></tr
              >
            {/each}
          </tbody>
        </table>
      {/if}
      {#if q.others.length > 0}
        <ul class="list-disc pl-5">
          {#each q.others as o, i (i)}
            <li>
              {o.label}{o.from ? `, on ${o.from}` : ''}: {o.worth >= 0 ? `${o.worth} more` : `${-o.worth} less`} worth, {o.more >
              0
                ? `${money(o.more, currency)} more`
                : o.more < 0
                  ? `${money(-o.more, currency)} less`
                  : 'for as much'}; {o.says}.
            </li>
          {/each}
        </ul>
      {/if}
      {#if q.others.some((o) => o.origin === 'ready')}
        <p class="soft text-note">
          What is bought whole is no part of the choice: it stands beside all that <a href={`#/candidates/${q.quad}`}
            >could go on {q.name}</a
          >.
        </p>
      {/if}
      {#if q.out.length > 0}
        <p class="soft text-note">
          No whole plan: {q.out
            .map((o) => `${o.label}${o.gates.length > 0 ? ` (${o.gates.join(', ')})` : ''}`)
            .join(', ')}.
        </p>
      {/if}
    </div>
  </details>
</li>

<style>
  th,
  td {
    padding: 3px 12px 3px 0;
    text-align: left;
    vertical-align: top;
  }
  li :global(h2) {
    margin: 0;
  }
</style>
