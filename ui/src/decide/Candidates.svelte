<script lang="ts">
  // Every unit that could go on a quad, side by side with its best whole plan. What is
  // sorted, filtered, opened and picked stands in the address.
  import { untrack } from 'svelte';
  import { push, replace, router } from 'svelte-spa-router';
  import { api, type CandidatesView, type Failure, type WholePlan } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import Pair from './Pair.svelte';
  import PlanCard from './PlanCard.svelte';
  import Plans from './Plans.svelte';
  import { best, has, origin, sides, sorted } from './sides';

  let { params }: { params: { quad: string } } = $props();
  const view = new Loaded<CandidatesView>();
  let refused = $state.raw<Failure | null>(null);
  const id = $derived(params.quad);
  $effect(() => {
    const quad = id;
    untrack(() => void view.take(api.candidates(quad)));
  });

  const query = $derived(new URLSearchParams(router.querystring ?? ''));
  const by = $derived(query.get('by') ?? 'gate');
  const only = $derived(query.get('only') ?? '');
  const open = $derived(query.get('open') ?? '');
  const picked = $derived(query.get('two')?.split(',').filter(Boolean) ?? []);
  function show(change: Record<string, string>) {
    const now = { by, only, open, two: picked.join(','), ...change };
    const text = Object.entries(now)
      .filter(([name, value]) => value && !(name === 'by' && value === 'gate'))
      .map(([name, value]) => `${name}=${encodeURIComponent(value)}`)
      .join('&');
    void replace(`/candidates/${params.quad}${text ? `?${text}` : ''}`);
  }
  const pick = (key: string, on: boolean) =>
    show({ two: (on ? [...picked.slice(-1), key] : picked.filter((k) => k !== key)).join(',') });

  const list = $derived(
    sorted(
      (view.data?.candidates ?? []).filter(
        (c) =>
          c.key === 'leave' ||
          only === '' ||
          (only === 'owned' ? c.origin !== 'to-buy' && !c.ready : best(c) !== undefined),
      ),
      by,
    ),
  );
  const two = $derived(
    picked.map((k) => view.data?.candidates.find((c) => c.key === k)).filter((c) => c !== undefined),
  );
  const units = $derived(list.filter((c) => c.key !== 'leave' && !c.ready).length);
  const whole = $derived(list.filter((c) => c.found.plans.length > 0).length);
  const hanging = $derived(list.filter((c) => c.found.plans.length === 0 && best(c)).length);

  async function planIt(plan: WholePlan) {
    const shown = view.data;
    if (!shown) return;
    const answer = await api.planWhole(
      shown.quad,
      shown.revision,
      plan.steps.map((s) => s.patch),
    );
    if (answer.ok) void push(`/swap/${shown.quad}`);
    else refused = answer.failure;
  }
  async function takeIn(label: string, ready: string) {
    const answer = await api.takeInQuad(label, ready, params.quad);
    if (answer.ok) void push(`/fill/${answer.data.quad}/today/first`);
    else refused = answer.failure;
  }
</script>

{#if view.failure}
  <FailureNote failure={view.failure} again={() => view.take(api.candidates(params.quad))} />
{:else if !view.data}
  <p class="soft" role="status">Trying every unit on {params.quad}…</p>
{:else}
  <h1>What could go on {view.data.name}</h1>
  <p class="soft">
    {whole + hanging === 0
      ? 'No unit has a whole plan here: each says what forbids it.'
      : `Of ${units} units ${whole} have a whole plan, after which every gate is open${hanging > 0 ? `, and the plans of ${hanging} hang on what is not known` : ''}.`}
    <a href={`#/swap/${view.data.quad}`}>Back to its swap</a>
    <a class="ml-3" href={`#/against?one=${view.data.quad}`}>Hold it against another quad</a>
  </p>
  {#if refused}<FailureNote failure={refused} again={() => view.take(api.candidates(params.quad))} />{/if}
  <div class="flex flex-wrap gap-x-5 gap-y-2 my-2.5">
    <label class="flex items-center gap-2"
      >Sorted by
      <select value={by} onchange={(e) => show({ by: e.currentTarget.value })}>
        {#each sides as s (s.id)}<option value={s.id}>{s.title}</option>{/each}
      </select></label
    >
    <label class="flex items-center gap-2"
      >Show
      <select value={only} onchange={(e) => show({ only: e.currentTarget.value })}>
        <option value="">every unit</option>
        <option value="ways">those with a plan</option>
        <option value="owned">those owned</option>
      </select></label
    >
    <span class="soft self-center">Pick two to hold them against each other.</span>
  </div>
  {#if two.length === 2}<Pair two={[two[0]!, two[1]!]} />{/if}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="scroll overflow-x-auto panel px-4 py-2 mt-2.5" role="group" aria-label="Units side by side" tabindex="0">
    <table class="w-full">
      <thead>
        <tr>
          <th scope="col"><span class="unseen">pick</span></th>
          <th scope="col">unit</th>
          {#each sides as s (s.id)}<th scope="col" aria-sort={by === s.id ? 'ascending' : undefined}>{s.title}</th
            >{/each}
        </tr>
      </thead>
      <tbody>
        {#each list as c (c.key)}
          <tr class:none={!has(c)}>
            <td
              ><input
                type="checkbox"
                class="size-5"
                aria-label={`Hold ${c.label}, ${origin(c)}, against another`}
                checked={picked.includes(c.key)}
                onchange={(e) => pick(c.key, e.currentTarget.checked)}
              /></td
            >
            <th scope="row">
              {#if c.key === 'leave'}{c.label}{:else}
                <button
                  type="button"
                  class="link"
                  aria-expanded={open === c.key}
                  onclick={() => show({ open: open === c.key ? '' : c.key })}>{c.label}</button
                >
              {/if}
              <span class="block soft text-note font-normal">{origin(c)}</span>
            </th>
            <td>
              <LevelMark level={c.level} word />
              {#if c.ready}<span class="block soft text-note">link and antennas alone</span>
              {:else if c.key !== 'leave'}
                <span class="block soft text-note"
                  >{c.found.plans.length > 0
                    ? 'whole plan'
                    : best(c)
                      ? 'hangs on what is not known'
                      : c.found.all
                        ? `no plan: ${c.found.forbids?.map((f) => f.title).join(' and ') ?? 'not shown why'}`
                        : 'none found yet'}</span
                >
              {/if}
            </td>
            {#each sides.slice(1) as s (s.id)}<td>{has(c) ? s.says(c) : '—'}</td>{/each}
          </tr>
          {#if open === c.key}
            <tr class="more"
              ><td colspan={sides.length + 2}>
                <div class="py-1.5">
                  {#if c.ready}
                    {@const made = c.ready}
                    <ul class="list-disc pl-5">
                      {#each made.says as says (says)}<li>{says}</li>{/each}
                    </ul>
                    <p class="mt-1.5">
                      Flies with {c.outcome.goggles.join(', ') || 'no goggles that are owned'}. Once it is there it is a
                      quad of your own, flown with the goggles and sticks of {view.data?.name}; its release is read
                      before it is flown.
                    </p>
                    <div class="buttons mt-1.5">
                      <button type="button" class="button" onclick={() => takeIn(c.label, made.id)}
                        >It is here: take it in</button
                      >
                    </div>
                  {:else}<Plans found={c.found} onplan={planIt}>
                      {#snippet more()}
                        {#each c.with as w (w.model)}
                          {@const plan = w.found.plans[0] ?? w.found.hanging[0]}
                          {#if plan}<PlanCard {plan} name={`With ${w.label}, to buy`} onplan={planIt} />{/if}
                        {/each}
                      {/snippet}
                    </Plans>{/if}
                </div>
              </td></tr
            >
          {/if}
        {/each}
      </tbody>
    </table>
  </div>
  <p class="soft text-note mt-2">
    Range is a share of today's in free space; hover time follows from mass by momentum theory and the energy of the
    pack: estimates. What is not known is never counted as good.
  </p>
{/if}

<style>
  th,
  td {
    padding: 5px 10px 5px 0;
    text-align: left;
    vertical-align: top;
    border-top: 1px solid var(--line);
  }
  thead th {
    border-top: 0;
  }
  .more td {
    border-top: 0;
  }
  .none td {
    color: var(--soft);
  }
  .link {
    text-decoration: underline;
    font-weight: 600;
    text-align: left;
    min-height: 2rem;
  }
</style>
