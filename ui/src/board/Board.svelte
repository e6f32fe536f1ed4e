<script lang="ts">
  // The flight board of one quad: read it, hold it against the plan, set it, and put
  // back what was there. Nothing is written that is not shown first.
  import { untrack } from 'svelte';
  import {
    api,
    type BoardKept,
    type BoardPorts,
    type BoardReport,
    type BoardView,
    type Comparison,
    type Failure,
  } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import Kept from './Kept.svelte';
  import { keptName } from './kept';
  import Live from './Live.svelte';
  import SettingRows from './SettingRows.svelte';
  import SettingsText from './SettingsText.svelte';
  import StandIn from './StandIn.svelte';
  import Tells from './Tells.svelte';
  import { moment } from '../lib/words';

  let { params }: { params: { quad: string } } = $props();
  const id = $derived(params.quad);
  const ports = new Loaded<BoardPorts>();
  const kept = new Loaded<BoardKept[]>();

  let address = $state('');
  let confirmed = $state(false);
  let view = $state.raw<BoardView | null>(null);
  let report = $state.raw<BoardReport | null>(null);
  let failure = $state.raw<Failure | null>(null);
  let busy = $state('');
  let propsOff = $state(false);

  $effect(() => {
    const quad = id;
    untrack(() => {
      [view, report, failure, address, ports.data, kept.data, told] = [null, null, null, '', null, null, null];
      void kept.take(api.keptBoards(quad));
      void listPorts();
    });
  });

  async function listPorts() {
    if (await ports.take(api.boardPorts(id)))
      address = ports.data?.standIn || (ports.data?.ports.includes(address) ? address : '');
  }
  const known = $derived([...(ports.data?.standIn ? [ports.data.standIn] : []), ...(ports.data?.ports ?? [])]);
  // The program connects to nothing that it has not listed, unless it is told that a board is there.
  const typed = $derived(address !== '' && !known.includes(address));
  const name = (at: string) => (at === ports.data?.standIn ? 'the stand-in' : at.replace(/^serial:/, ''));

  /** Does one thing with the board; what it said before goes. */
  async function during<T>(
    what: string,
    call: Promise<{ ok: true; data: T } | { ok: false; failure: Failure }>,
  ): Promise<T | null> {
    busy = what;
    failure = null;
    const answer = await call;
    busy = '';
    if (answer.ok) return answer.data;
    failure = answer.failure;
    return null;
  }
  async function readBoard() {
    report = null;
    view = (await during('Reading the board…', api.readBoard(id, address, typed && confirmed))) ?? view;
  }
  async function take(what: string, call: ReturnType<typeof api.setBoard>) {
    const answer = await during(what, call);
    if (!answer) return;
    report = answer;
    if (view && answer.comparison) view = { ...view, comparison: answer.comparison as Comparison };
    propsOff = false;
    await kept.take(api.keptBoards(id));
  }
  const setBoard = () =>
    take('Setting the board: keep, write, save, reboot, read back…', api.setBoard(id, address, propsOff));
  const restore = (snapshot: number, off: boolean) =>
    take('Putting the kept settings back…', api.restoreBoard(id, address, snapshot, off));
  async function takeOver(keys: string[]) {
    view =
      (await during(
        'Reading it again, and noting what it says…',
        api.takeBoard(id, address, typed && confirmed, keys),
      )) ?? view;
  }
  async function keep() {
    const list = await during('Keeping the settings…', api.keepBoard(id, address));
    if (list) kept.data = list;
  }
  async function rename(snapshot: number, name: string) {
    const list = await during('Naming it…', api.nameBoard(id, snapshot, name));
    if (list) kept.data = list;
  }
  /** What is asked of today: kept settings, or a text. */
  type Source = { snapshot?: number; text?: string };
  let told = $state.raw<{ source: Source; of: string; tells: BoardView['tells'] } | null>(null);
  async function tell(source: Source, of: string, take?: string[]) {
    const answer = await during('Reading what they say…', api.boardTold(id, { ...source, take }));
    if (answer) told = { source, of, tells: answer.tells };
  }
  const differing = $derived(view?.comparison.rows.filter((r) => !r.same) ?? []);
  const latest = $derived(kept.data?.[0]);
</script>

<div class="title">
  <h1>Flight board of {ports.data?.quad ?? id}</h1>
  <a href={`#/swap/${id}/osd`}>OSD gate</a>
  <a href={`#/bench/${id}`}>Bench sheet</a>
  <a href={`#/fault/${id}`}>It does not work</a>
</div>
<section class="panel mb-3 px-4 py-3" aria-labelledby="connect">
  <h2 id="connect">1. Connect</h2>
  <p class="soft">
    A data cable into the flight board's USB, not the air unit's. Props off. No pack is needed to read it.
  </p>
  <div class="flex flex-wrap gap-y-2 gap-x-3.5 items-end">
    <label class="grid text-soft"
      >port
      <select bind:value={address}>
        <option value="">choose a port</option>
        {#each known as at (at)}<option value={at}>{name(at)}</option>{/each}
        {#if address && !known.includes(address)}<option value={address}>{address}</option>{/if}
      </select>
    </label>
    <button type="button" class="button" onclick={listPorts}>Look again</button>
    <label class="grid text-soft"
      >or an address <input
        type="text"
        placeholder="tcp:127.0.0.1:8741"
        onchange={(e) => {
          address = e.currentTarget.value.trim();
          confirmed = false;
        }}
      /></label
    >
    {#if typed}<label class="flex font-bold text-soft items-center gap-1.5 min-h-10.5 mr-4"
        ><input type="checkbox" bind:checked={confirmed} /> a flight board of mine is there: connect to it</label
      >{/if}
    <button
      type="button"
      class="button main"
      disabled={!address || busy !== '' || (typed && !confirmed)}
      onclick={readBoard}>Read it</button
    >
  </div>
  {#if ports.data?.note}<p class="bad">{ports.data.note}</p>{/if}
  {#key id}<StandIn quad={id} running={ports.data?.standIn ?? ''} onchange={listPorts} />{/key}
</section>
{#if busy}<p class="panel mb-3 px-4 py-3" role="status">{busy}</p>{/if}
{#if failure}<FailureNote {failure} />{/if}
{#if report}
  <section
    class="panel report border-l-6 border-l-unfit mb-3 px-4 py-3"
    class:good={report.outcome === 'set'}
    role="status"
    aria-labelledby="outcome"
  >
    <h2 id="outcome">{report.outcome === 'set' ? '✓ ' : '! '}{report.says}</h2>
    {#if report.steps.length > 0}<p>Done: {report.steps.join(', ')}.</p>{/if}
    {#if report.restore && latest}
      <p>Kept before: {moment(latest.at)}.</p>
      <label class="inline-flex gap-2 items-center min-h-11 font-bold mr-4"
        ><input type="checkbox" bind:checked={propsOff} /> The props are off</label
      >
      <button
        type="button"
        class="button"
        disabled={!propsOff || busy !== ''}
        onclick={() => restore(latest.id, propsOff)}>Put the kept settings back</button
      >
    {/if}
  </section>
{/if}
{#if view}
  <section class="panel mb-3 px-4 py-3" aria-labelledby="found">
    <h2 id="found">2. {view.comparison.says}</h2>
    <p class="soft">
      {view.state.board} runs {view.state.variant}
      {view.state.version}{view.state.name ? `, called ${view.state.name}` : ''}.
    </p>
    {#each view.comparison.missing ?? [] as m (m.field + m.label)}<p class="bad">
        The plan does not say: {m.label}.
      </p>{/each}
    <SettingRows rows={view.comparison.rows} />
  </section>
  {#if differing.length > 0 && !view.comparison.blocked}
    <section class="panel mb-3 px-4 py-3" aria-labelledby="set">
      <h2 id="set">3. Set {differing.length === 1 ? 'it' : `the ${differing.length}`}</h2>
      <p>All settings are kept first. Then it is written, saved, rebooted and read back.</p>
      <p class="bad">
        A board that is being set can start the motors: props off, and they stay off until the maiden flight.
      </p>
      <label class="inline-flex gap-2 items-center min-h-11 font-bold mr-4"
        ><input type="checkbox" bind:checked={propsOff} /> The props are off</label
      >
      <button type="button" class="button main" disabled={!propsOff || busy !== ''} onclick={setBoard}
        >Set the board</button
      >
    </section>
  {/if}
  <Tells tells={view.tells} busy={busy !== ''} ontake={takeOver} />
  <Live quad={id} {address} />
{/if}
{#key id}<SettingsText
    quad={id}
    {address}
    confirmed={typed && confirmed}
    kept={kept.data ?? []}
    ontell={tell}
    onkept={async () => void (await kept.take(api.keptBoards(id)))}
  />{/key}
{#if told}{@const { source, of } = told}
  {#key told}<Tells tells={told.tells} {of} busy={busy !== ''} ontake={(keys) => tell(source, of, keys)} />{/key}
{/if}
<Kept
  quad={id}
  list={kept.data ?? []}
  canWrite={address !== '' && busy === ''}
  onkeep={keep}
  onname={rename}
  onrestore={restore}
  ontell={(k) => tell({ snapshot: k.id }, `the settings ${keptName(k)}`)}
/>

<style>
  .report.good {
    border-left-color: var(--fits);
  }
</style>
