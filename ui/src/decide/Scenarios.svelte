<script lang="ts">
  // Plans kept under a name, side by side with the one there is: what they come to, what differs
  // between two of them, and one press to make one the plan.
  import { untrack } from 'svelte';
  import { push, replace, router } from 'svelte-spa-router';
  import { api, type Answer, type Failure, type ScenariosView } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import { money, sums } from '../lib/words';
  import Scroll from '../lib/Scroll.svelte';

  const view = new Loaded<ScenariosView>();
  let refused = $state.raw<Failure | null>(null);
  let name = $state('');
  const query = $derived(new URLSearchParams(router.querystring ?? ''));
  const is = $derived(query.get('is') ?? '');
  const than = $derived(query.get('than') ?? '');
  $effect(() => {
    const [a, b] = [is, than];
    untrack(() => void view.take(api.scenarios(a, b)));
  });
  const again = () => view.take(api.scenarios(is, than));
  function hold(side: 'is' | 'than', id: string) {
    const text = new URLSearchParams(Object.entries({ is, than, [side]: id }).filter(([, v]) => v !== '')).toString();
    void replace(text ? `/scenarios?${text}` : '/scenarios');
  }
  // One change after the other: each says which state it was made from.
  let busy = $state(false);
  async function act(change: (revision: number) => Promise<Answer<unknown>>): Promise<boolean> {
    busy = true;
    const answer = await change(view.data?.revision ?? 0);
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) await again();
    busy = false;
    return answer.ok;
  }
  const rows = $derived(view.data?.scenarios ?? []);
  const called = (id: string) => rows.find((s) => s.id === id)?.name ?? id;

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    if (await act((revision) => api.keepScenario({ revision, name }))) name = '';
  }
  async function copy(s: ScenariosView['scenarios'][number]) {
    let to = `Copy of ${s.name}`;
    for (let n = 2; rows.some((o) => o.name === to); n++) to = `Copy ${n} of ${s.name}`;
    await act((revision) => api.keepScenario({ revision, name: to, copy: s.id }));
  }
  async function plan(id: string) {
    if (await act((revision) => api.planScenario(id, revision))) void push('/');
  }
  async function drop(id: string) {
    // What is held against something is let go of first: it is no longer there to be read.
    if (is === id || than === id) await replace('/scenarios');
    await act((revision) => api.dropScenario(id, revision));
  }
  function pays(s: ScenariosView['scenarios'][number]): string {
    const bill = s.told.bill;
    const sum = sums(bill.together ? [bill.together] : bill.totals) || 'nothing';
    return bill.unpriced > 0 ? `${sum}, and ${bill.unpriced} without a price` : sum;
  }
</script>

<h1>{rows.length > 1 ? `${rows.length - 1} kept beside the plan there is` : 'Scenarios'}</h1>
<p class="soft">
  A scenario is a plan of the fleet under a name. It changes nothing until it is made the plan, and that is taken back
  like any other change.
</p>
{#if view.failure}<FailureNote failure={view.failure} {again} />{/if}
{#if refused}<FailureNote failure={refused} {again} />{/if}
{#if view.data}
  <form class="flex flex-wrap items-end gap-3 my-2.5" onsubmit={keep}>
    <label class="grid gap-0.5"
      >Keep the plan there is as <input required maxlength="200" class="w-64" bind:value={name} /></label
    >
    <button class="button" disabled={busy}>Keep it</button>
  </form>
  <Scroll label="Scenarios side by side" of="panel px-4 py-2.5 overflow-x-auto">
    <table>
      <thead>
        <tr>
          <td></td>
          {#each rows as s (s.id)}
            <th scope="col"
              >{s.name}<span class="block soft text-note font-normal"
                >{[s.made, s.note].filter(Boolean).join(': ')}</span
              >
              {#if s.id}
                <span class="flex flex-wrap gap-1.5 mt-1 font-normal">
                  <button
                    type="button"
                    class="button"
                    disabled={busy}
                    onclick={() => plan(s.id)}
                    aria-label={`Make ${s.name} the plan`}>Make it the plan</button
                  >
                  <button
                    type="button"
                    class="button"
                    disabled={busy}
                    onclick={() => copy(s)}
                    aria-label={`Copy ${s.name}`}>Copy</button
                  >
                  <button
                    type="button"
                    class="button"
                    disabled={busy}
                    onclick={() => drop(s.id)}
                    aria-label={`Take ${s.name} out`}>Take out</button
                  >
                </span>
              {/if}</th
            >
          {/each}
        </tr>
      </thead>
      <tbody>
        <tr
          ><th scope="row">to buy</th>{#each rows as s (s.id)}<td>{pays(s)}</td>{/each}</tr
        >
        <tr
          ><th scope="row">sold</th>{#each rows as s (s.id)}<td
              >{#each s.told.sales as sale (sale.kit)}<span class="block"
                  >{sale.label}{sale.brings === undefined
                    ? ', for what is not stated'
                    : ` for ${money(sale.brings, sale.currency)}`}{#if sale.flies}<span class="block text-note"
                      ><LevelMark level="caution" size={16} /> but {sale.flies.join(', ')}
                      {sale.flies.length === 1 ? 'flies' : 'fly'} with it</span
                    >{/if}</span
                >{:else}nothing{/each}</td
            >{/each}</tr
        >
        <tr
          ><th scope="row">quads planned</th>{#each rows as s (s.id)}<td>{s.told.changed}</td>{/each}</tr
        >
        <tr
          ><th scope="row">fly digital</th>{#each rows as s (s.id)}<td>{s.told.flies} of {s.told.quads.length}</td
            >{/each}</tr
        >
        {#each rows[0]?.told.quads ?? [] as q, i (q.quad)}
          <tr>
            <th scope="row">{q.name}</th>
            {#each rows as s (s.id)}
              {@const one = s.told.quads[i]}
              <td
                >{#if one}<span class="inline-flex items-center gap-1.5"
                    ><LevelMark level={one.level} size={16} />{one.label}{one.leave ? ', stays' : ''}</span
                  >{/if}</td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </Scroll>
  {#if rows.length > 1}
    <section class="panel px-4 py-2.5 mt-3 grid gap-2" aria-labelledby="differ">
      <h2 id="differ" class="text-body m-0">What differs</h2>
      <div class="flex flex-wrap gap-3">
        <label class="grid gap-0.5"
          >Hold <select value={is} onchange={(e) => hold('is', e.currentTarget.value)}>
            {#each rows as s (s.id)}<option value={s.id}>{s.name}</option>{/each}
          </select></label
        >
        <label class="grid gap-0.5"
          >against <select value={than} onchange={(e) => hold('than', e.currentTarget.value)}>
            {#each rows as s (s.id)}<option value={s.id}>{s.name}</option>{/each}
          </select></label
        >
      </div>
      {#if view.data.differ.length === 0}
        <p>{is === than ? 'Choose two that differ.' : 'Nothing differs.'}</p>
      {:else}
        <ul class="grid gap-2 list-none p-0 m-0" aria-label="What differs">
          {#each view.data.differ as d (d.quad ?? d.kit)}
            <li>
              <strong>{d.name}</strong>
              <div>{called(is)}: {d.is.join('; ') || 'nothing of its own'}.</div>
              <div>{called(than)}: {d.than.join('; ') || 'nothing of its own'}.</div>
            </li>
          {/each}
        </ul>
      {/if}
    </section>
  {/if}
{:else if !view.failure}<p class="soft" role="status">Judging each…</p>{/if}

<style>
  th,
  td {
    padding: 4px 16px 4px 0;
    text-align: left;
    vertical-align: top;
    min-width: 9rem;
  }
</style>
