<script lang="ts">
  // The whole fleet for the money: the curve of money and worth, what becomes of each quad in
  // the choice within the budget, and why not something else.
  import { untrack } from 'svelte';
  import { push, replace, router } from 'svelte-spa-router';
  import { api, type Failure, type FleetDecision } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import { fixed, money } from '../lib/words';
  import Curve from './Curve.svelte';
  import QuadRow from './QuadRow.svelte';
  import WeightsForm from './WeightsForm.svelte';

  const view = new Loaded<FleetDecision>();
  let refused = $state.raw<Failure | null>(null);
  const query = $derived(new URLSearchParams(router.querystring ?? ''));
  const budget = $derived(Math.max(0, Number(query.get('budget')) || 0));
  const weights = $derived(query.get('weights') ?? '');
  $effect(() => {
    const asked = { budget, weights };
    untrack(() => void view.take(api.decide(asked)));
  });
  function show(to: { budget?: number; weights?: string }) {
    const next = { budget, weights, ...to };
    const text = [
      next.budget ? `budget=${next.budget}` : '',
      next.weights ? `weights=${encodeURIComponent(next.weights)}` : '',
    ].filter(Boolean);
    void replace(text.length > 0 ? `/decide?${text.join('&')}` : '/decide');
  }

  const point = $derived(view.data?.points[view.data.chosen]);
  const changed = $derived(view.data?.quads.filter((q) => !q.leave) ?? []);

  async function planIt() {
    const shown = view.data;
    if (!shown) return;
    const answer = await api.planFleet(
      shown.quads.map((q) => ({
        quad: q.quad,
        revision: shown.revisions[q.quad] ?? 0,
        leave: q.leave,
        patches: q.way.patches,
      })),
    );
    if (answer.ok) void push('/');
    else refused = answer.failure;
  }
</script>

<h1 aria-live="polite">
  {#if view.data && point}
    {changed.length === 0
      ? 'Leave every quad as it flies'
      : `Change ${changed.length} of ${view.data.quads.length} quads, for ${point.money > 0 ? money(point.money, view.data.currency) : 'nothing'}`}
  {:else}What to convert, for what money{/if}
</h1>
<p class="soft">
  The worthiest choice within the budget, and all that no other choice beats in both money and worth. Danger and law are
  never weighed: what burns, falls or breaks the law is no choice.
</p>
<form class="flex flex-wrap items-end gap-3 my-2.5" onsubmit={(e) => e.preventDefault()}>
  <label class="grid gap-0.5"
    >Budget{view.data ? `, ${view.data.currency}` : ''}
    <input
      type="number"
      min="0"
      max="10000000"
      step="1"
      class="w-36"
      value={budget}
      onchange={(e) => show({ budget: Number(e.currentTarget.value) || 0 })}
    /></label
  >
  {#if view.busy}<p class="soft" role="status">Trying every unit on every quad…</p>{/if}
</form>
{#if view.failure}<FailureNote failure={view.failure} again={() => view.take(api.decide({ budget, weights }))} />{/if}
{#if refused}<FailureNote failure={refused} again={() => view.take(api.decide({ budget, weights }))} />{/if}
{#if view.data}
  {@const d = view.data}
  {#if d.quads.length === 0 && d.points.length === 0}
    <p>There is no quad to decide about yet. <a href="#/begin">Begin with one</a>.</p>
  {:else}
    <Curve
      points={d.points}
      chosen={d.chosen}
      currency={d.currency}
      onchoose={(money) => show({ budget: Math.ceil(money) })}
    />
    {#if d.chosen < 0}<p>No choice costs as little.</p>{/if}
    <ul class="grid gap-2 my-3 list-none p-0" aria-label="What becomes of each quad">
      {#each d.quads as q (q.quad)}<QuadRow {q} currency={d.currency} />{/each}
    </ul>
    {#if changed.length > 0}
      <div class="buttons">
        <button type="button" class="button main" onclick={planIt}>Make this the plan of the fleet</button>
      </div>
    {/if}
    {#if d.assumed.length > 0}
      <p class="soft text-note">
        Without a price, counted as the dearest of their kind: {d.assumed.join(', ')}. State one on the
        <a href="#/shelf">shelf</a>.
      </p>
    {/if}
    {#if d.foreign.length > 0}
      <p class="text-note">
        Priced in another currency and left out, since no rate is known: {d.foreign.join(', ')}. State their price in
        {d.currency}.
      </p>
    {/if}
    <p class="soft text-note">
      {d.exact ? 'Every choice that could matter was looked at' : 'Not every choice was looked at'}: {fixed(d.tried, 0)} part
      choices. Each counts only where a firmware route brings it about with the goggles that fly it.
    </p>
    <WeightsForm purposes={d.purposes} criteria={d.criteria} changed={weights} onchange={(w) => show({ weights: w })} />
  {/if}
{/if}
