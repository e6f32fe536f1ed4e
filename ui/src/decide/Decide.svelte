<script lang="ts">
  // The whole fleet for the money: the curve of money and worth, what becomes of each quad in
  // the choice within the budget, and why not something else.
  import { untrack } from 'svelte';
  import { push, replace, router } from 'svelte-spa-router';
  import { api, type Asked, type Failure, type FleetDecision, type QuadDecision } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import { fixed, money } from '../lib/words';
  import Bill from './Bill.svelte';
  import Devices from './Devices.svelte';
  import Curve from './Curve.svelte';
  import Months from './Months.svelte';
  import PurseForm from './PurseForm.svelte';
  import QuadRow from './QuadRow.svelte';
  import Schools from './Schools.svelte';
  import WeightsForm from './WeightsForm.svelte';

  const view = new Loaded<FleetDecision>();
  let refused = $state.raw<Failure | null>(null);
  const query = $derived(new URLSearchParams(router.querystring ?? ''));
  const budget = $derived(Number(query.get('budget')) || 0);
  const asked = $derived<Asked>({ budget, ...choices(query) });
  const inOrder = $derived(query.get('order') === 'yes');
  const beside = $derived(query.get('beside') === 'schools');
  $effect(() => {
    const of = asked;
    untrack(() => void ask(of));
  });
  async function ask(of: Asked) {
    await view.take(api.decide(of));
    // Where no budget is asked it is what the fleet has, as long as this is the screen one is on.
    const now = view.data?.purse.means?.now;
    if (router.location === '/decide' && !query.has('budget') && now) show({ budget: String(now) });
  }
  /** What of the address is a choice of its own. */
  function choices(from: URLSearchParams): Partial<Asked> {
    const names = ['school', 'weights', 'used', 'sell', 'one'].filter((n) => from.get(n));
    return Object.fromEntries(names.map((n) => [n, from.get(n)]));
  }
  /** Changes the address; an empty value takes a choice out of it. */
  function show(to: Record<string, string>) {
    const next = Object.entries({ ...Object.fromEntries(query), ...to }).filter(([, value]) => value !== '');
    const text = new URLSearchParams(next).toString();
    void replace(text ? `/decide?${text}` : '/decide');
  }
  const switches = $derived<[string, string, boolean | undefined][]>([
    ['used', 'buy used things too', view.data?.used],
    ['sell', 'sell what is left over', view.data?.sell],
    ['one', 'one kind of goggles', view.data?.oneGoggles],
  ]);

  const why = $derived(view.data?.schools.find((s) => s.id === view.data?.school)?.why ?? '');
  const point = $derived(view.data?.points[view.data.chosen]);
  const price = (amount: number, currency: string) =>
    amount > 0
      ? `for ${money(amount, currency)}`
      : amount < 0
        ? `and have ${money(-amount, currency)} more`
        : 'for nothing';
  const changed = $derived(view.data?.quads.filter((q) => !q.leave) ?? []);

  const decided = (shown: FleetDecision): QuadDecision[] =>
    shown.quads.map((q) => ({
      quad: q.quad,
      revision: shown.revisions[q.quad] ?? 0,
      leave: q.leave,
      patches: q.way.patches,
    }));

  const sold = (shown: FleetDecision) => shown.bill.flatMap((l) => (l.sold && l.kit ? [l.kit] : []));

  async function planIt() {
    const shown = view.data;
    if (!shown) return;
    const answer = await api.planFleet(decided(shown), sold(shown));
    if (answer.ok) void push('/');
    else refused = answer.failure;
  }

  let name = $state('');
  async function keepIt(event: SubmitEvent) {
    event.preventDefault();
    const shown = view.data;
    if (!shown) return;
    const answer = await api.keepScenario({
      revision: shown.fleetRevision,
      name,
      quads: decided(shown),
      sells: sold(shown),
      used: shown.used,
    });
    if (answer.ok) void push('/scenarios');
    else refused = answer.failure;
  }
</script>

<h1 aria-live="polite">
  {#if view.data && point}
    {changed.length === 0
      ? 'Leave every quad as it flies'
      : `Change ${changed.length} of ${view.data.quads.length} quads, ${price(point.money, view.data.currency)}`}
  {:else}What to convert, for what money{/if}
</h1>
<p class="soft">
  The worthiest choice within the budget, and all that no other choice beats in both money and worth. Danger and law are
  never weighed: what burns, falls or breaks the law is no choice. <a href="#/against">Two quads against each other</a>
</p>
{#if why}<p class="soft">{why[0]?.toUpperCase()}{why.slice(1)}.</p>{/if}
<form class="flex flex-wrap items-end gap-3 my-2.5" onsubmit={(e) => e.preventDefault()}>
  <label class="grid gap-0.5"
    >Budget{view.data ? `, ${view.data.currency}` : ''}
    <input
      type="number"
      max="10000000"
      step="1"
      class="w-36"
      value={budget}
      onchange={(e) => show({ budget: e.currentTarget.value || '0' })}
    /></label
  >
  {#if view.data}
    {@const d = view.data}
    <label class="grid gap-0.5"
      >As seen by
      <select
        value={d.school}
        onchange={(e) => show({ school: e.currentTarget.value, weights: '', used: '', sell: '', one: '' })}
      >
        {#each d.schools as s (s.id)}<option value={s.id}>{s.title}</option>{/each}
      </select></label
    >
    {#each switches as [name, label, on] (name)}
      <label class="flex items-center gap-1.5 min-h-11"
        ><input
          type="checkbox"
          checked={on}
          onchange={(e) => show({ [name]: e.currentTarget.checked ? 'yes' : 'no' })}
        />{label}</label
      >
    {/each}
  {/if}
  {#if view.busy}<p class="soft" role="status">Trying every unit on every quad…</p>{/if}
</form>
{#if view.failure}<FailureNote failure={view.failure} again={() => view.take(api.decide(asked))} />{/if}
{#if refused}<FailureNote failure={refused} again={() => view.take(api.decide(asked))} />{/if}
{#if view.data}
  {@const d = view.data}
  {#if d.quads.length === 0 && d.points.length === 0}
    <p>There is no quad to decide about yet. <a href="#/begin">Begin with one</a>.</p>
  {:else}
    <Curve
      points={d.points}
      chosen={d.chosen}
      currency={d.currency}
      onchoose={(money) => show({ budget: String(Math.ceil(money)) })}
    />
    {#if d.chosen < 0}<p>No choice costs as little.</p>{/if}
    <ul class="grid gap-2 my-3 list-none p-0" aria-label="What becomes of each quad">
      {#each d.quads as q (q.quad)}<QuadRow {q} currency={d.currency} />{/each}
    </ul>
    {#if changed.length > 0}
      <form class="flex flex-wrap items-end gap-3" onsubmit={keepIt}>
        <button type="button" class="button main" onclick={planIt}>Make this the plan of the fleet</button>
        <label class="grid gap-0.5"
          >or keep it as a scenario called <input required maxlength="200" class="w-56" bind:value={name} /></label
        >
        <button class="button">Keep it</button>
        <a href="#/scenarios">Scenarios kept</a>
      </form>
    {/if}
    <div class="grid grid-cols-1 gap-3 my-3">
      <Devices devices={d.devices} />
      <Bill {d} />
      {#if inOrder}
        <Months {asked} by={query.get('by') ?? ''} every={query.get('every') ?? ''} onshow={show} />
      {:else if changed.length > 0}
        <div class="buttons">
          <button type="button" class="button" onclick={() => show({ order: 'yes' })}>Put it in order, by months</button
          >
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
          Priced in another currency and left out, since no rate is stated: {d.foreign.join(', ')}. State what that
          currency is worth below; two currencies are never added.
        </p>
      {/if}
      <p class="soft text-note">
        {d.exact ? 'Every choice that could matter was looked at' : 'Not every choice was looked at'}: {fixed(
          d.tried,
          0,
        )} part choices.
        {#if point?.atMost !== undefined}
          {point.atMost > point.worth
            ? `For this money none can be worth more than ${fixed(point.atMost, 0)}; this one is worth ${fixed(point.worth, 0)}.`
            : 'For this money none can be worth more than this one.'}
        {:else if !d.exact}
          How much more another could be worth cannot be said.
        {/if}
        Each counts only where a firmware route brings it about with the goggles that fly it.
      </p>
      <WeightsForm
        purposes={d.purposes}
        criteria={d.criteria}
        changed={query.get('weights') ?? ''}
        onchange={(w) => show({ weights: w })}
      />
      {#key JSON.stringify(d.purse)}<PurseForm {d} onkept={() => ask(asked)} />{/key}
      {#if beside}
        <Schools
          {budget}
          asked={d.school}
          onpick={(school) => show({ school, weights: '', used: '', sell: '', one: '' })}
        />
      {:else}
        <div class="buttons">
          <button type="button" class="button" onclick={() => show({ beside: 'schools' })}
            >Hold the schools side by side</button
          >
        </div>
      {/if}
    </div>
  {/if}
{/if}
