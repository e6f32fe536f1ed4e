<script lang="ts">
  // A table of kit, parts and prices out of a spreadsheet: what each row says, what it is
  // taken for, and nothing taken that is not ticked.
  import { api, type Failure, type SheetTable, type TakenRow } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { money } from '../lib/words';

  let { onreload }: { onreload: () => Promise<void> } = $props();

  let text = $state('');
  let table = $state.raw<SheetTable | null>(null);
  let models = $state.raw<string[]>([]);
  let ticked = $state.raw<boolean[]>([]);
  let more = $state(false);
  let refused = $state.raw<Failure | null>(null);
  let busy = $state(false);
  let taken = $state.raw<{ rows: number; entries: number; change: number } | null>(null);
  const count = $derived(ticked.filter(Boolean).length);

  async function read() {
    busy = true;
    const answer = await api.readTable(text);
    busy = false;
    taken = null;
    refused = answer.ok ? null : answer.failure;
    table = answer.ok ? answer.data : null;
    models = (table?.rows ?? []).map((r) => r.model);
    ticked = (table?.rows ?? []).map((r) => !r.ask);
  }

  async function open(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    if (file) text = await file.text();
  }

  function pick(i: number, model: string) {
    models = models.map((m, k) => (k === i ? model : m));
    ticked = ticked.map((t, k) => (k === i ? model !== '' : t));
  }

  async function take() {
    if (!table) return;
    const rows: TakenRow[] = table.rows.flatMap((r, i) =>
      ticked[i] && models[i]
        ? [
            {
              model: models[i],
              count: r.count,
              price: r.price,
              currency: r.currency,
              days: r.days,
              firmware: r.firmware,
              revision: r.revision,
            },
          ]
        : [],
    );
    busy = true;
    const answer = await api.takeTable(rows, more);
    busy = false;
    refused = answer.ok ? null : answer.failure;
    if (!answer.ok) return;
    await onreload();
    taken = answer.data;
    table = null;
    text = '';
  }

  async function putBack() {
    if (!taken) return;
    const answer = await api.undo(taken.change);
    if (answer.ok) {
      taken = null;
      await onreload();
    } else refused = answer.failure;
  }
</script>

<section class="panel grid gap-3 px-5 py-4" aria-labelledby="table">
  <h2 id="table">A table you keep</h2>
  <p class="soft">
    Copy the cells out of your spreadsheet, or open a CSV file. The first row names its columns: a part or model, and
    any of count, price, currency, days, firmware, revision. You see what each row is taken for before anything is
    changed.
  </p>
  <label class="grid gap-0.5"
    >Its cells
    <textarea
      class="bg-raised text-ink border border-soft rounded p-2 min-h-32 w-full mono text-note"
      spellcheck="false"
      bind:value={text}
      placeholder="part;count;price (EUR)"></textarea>
  </label>
  <p class="buttons items-center">
    <label class="button cursor-pointer inline-flex items-center focus-within:outline-2"
      >Open a CSV file<input class="unseen" type="file" accept=".csv,.tsv,.txt,text/csv" onchange={open} /></label
    >
    <button type="button" class="button main" disabled={busy || text.trim() === ''} onclick={read}
      >Read the table</button
    >
  </p>
  {#if refused}<FailureNote failure={refused} />{/if}
  {#if taken}
    <p role="status">
      {taken.rows === 1 ? 'One row is' : `${taken.rows} rows are`} in:
      {taken.entries === 1 ? 'One entry was' : `${taken.entries} entries were`} changed.
      <button type="button" class="button" onclick={putBack}>Take it back</button>
    </p>
  {/if}
  {#if table}
    {#if table.unread.length > 0}<p class="soft">Columns that are not read: {table.unread.join(', ')}.</p>{/if}
    {#if table.rows.length === 0}
      <p role="status">No row below its headings names anything.</p>
    {:else}
      <div class="scroll">
        <table class="rows">
          <thead
            ><tr
              ><th scope="col"><span class="unseen">take</span></th><th scope="col">line</th><th scope="col">it says</th
              ><th scope="col">is taken for</th><th scope="col">count</th><th scope="col">price</th><th scope="col"
                >days</th
              ><th scope="col">firmware</th></tr
            ></thead
          >
          <tbody>
            {#each table.rows as r, i (r.line)}
              <tr>
                <td
                  ><input
                    type="checkbox"
                    aria-label={`take ${r.words}`}
                    checked={ticked[i]}
                    disabled={!models[i]}
                    onchange={(e) => (ticked = ticked.map((t, k) => (k === i ? e.currentTarget.checked : t)))}
                  /></td
                >
                <td class="mono">{r.line}</td>
                <th scope="row" class="wrap-anywhere min-w-36"
                  >{r.words}{#if r.note}<span class="block warn text-note font-normal">{r.note}</span>{/if}</th
                >
                <td>
                  {#if r.among.length === 0}<span class="soft">nothing</span>
                  {:else}
                    <select
                      class="min-h-9 max-sm:min-h-11 text-small"
                      aria-label={`what ${r.words} is`}
                      value={models[i]}
                      onchange={(e) => pick(i, e.currentTarget.value)}
                    >
                      {#if !r.model}<option value="">not said</option>{/if}
                      {#each r.among as g (g.id)}<option value={g.id}>{g.label}</option>{/each}
                    </select>
                  {/if}
                </td>
                <td class="mono">{r.count ?? ''}</td>
                <td class="mono"
                  >{r.price === undefined ? '' : r.currency ? money(r.price, r.currency) : `${r.price} ?`}</td
                >
                <td class="mono">{r.days ?? ''}</td>
                <td class="mono">{r.firmware ?? ''}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
      <fieldset class="flex flex-wrap gap-x-5 gap-y-1 border-0 p-0 m-0">
        <legend class="soft">The counts are</legend>
        <label class="inline-flex items-center gap-2 min-h-9 max-sm:min-h-11"
          ><input type="radio" name="counts" checked={!more} onchange={() => (more = false)} /> all there are</label
        >
        <label class="inline-flex items-center gap-2 min-h-9 max-sm:min-h-11"
          ><input type="radio" name="counts" checked={more} onchange={() => (more = true)} /> what has come beside what is
          there</label
        >
      </fieldset>
      <p class="buttons">
        <button type="button" class="button main" disabled={busy || count === 0} onclick={take}
          >Take {count === 1 ? 'one row' : `${count} rows`}</button
        >
      </p>
      <p class="soft text-note">
        What is no gear of yours yet is <a href="#/shelf/add">added first</a>, by name or from the trade shelf.
      </p>
    {/if}
  {/if}
</section>
