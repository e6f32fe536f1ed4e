<script lang="ts">
  // The board's settings as text: kept, held against another text, loaded line by line or
  // whole. What may not be loaded is named with why; nothing is sent that is not shown first.
  import { api, type BoardKept, type BoardTextReport, type BoardTextView, type Failure } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { keptName } from './kept';
  import TextLines from './TextLines.svelte';

  interface Props {
    quad: string;
    address: string;
    confirmed: boolean;
    kept: BoardKept[];
    onkept: () => Promise<void>;
    ontell: (source: { text: string }, of: string) => void;
  }
  let { quad, address, confirmed, kept, onkept, ontell }: Props = $props();

  let text = $state('');
  let from = $state(0); // the snapshot whose text is asked about; 0: the text as it stands
  let against = $state(0); // the snapshot it is held against; 0: the board
  let view = $state.raw<BoardTextView | null>(null);
  let report = $state.raw<BoardTextReport | null>(null);
  let failure = $state.raw<Failure | null>(null);
  let busy = $state('');
  let propsOff = $state(false);
  let left = $state.raw<number[]>([]); // lines not to be loaded

  const texts = $derived(kept.filter((k) => k.text));
  const loadable = $derived(view && !view.refused ? view.rows.filter((r) => r.loads).map((r) => r.line) : []);
  const picked = $derived(loadable.filter((line) => !left.includes(line)));
  const asked = $derived(from ? { snapshot: from } : { text });
  const ready = $derived((from > 0 || text.trim() !== '') && (against > 0 || address !== '') && busy === '');

  async function during<T>(
    what: string,
    call: Promise<{ ok: true; data: T } | { ok: false; failure: Failure }>,
  ): Promise<T | null> {
    [busy, failure] = [what, null];
    const answer = await call;
    busy = '';
    if (answer.ok) return answer.data;
    failure = answer.failure;
    return null;
  }
  async function keep() {
    if (await during('Reading the board and its text…', api.keepText(quad, address, confirmed))) await onkept();
  }
  async function compare() {
    report = null;
    const board = against ? { against } : { address, confirmed };
    view = await during('Reading the board and its text…', api.compareText(quad, { ...asked, ...board }));
    left = [];
  }
  async function load() {
    const lines = picked.length === loadable.length ? undefined : picked;
    const done = await during(
      'Loading: keep, send line by line, save, restart, read back…',
      api.loadText(quad, { ...asked, address, confirmed, propsOff, lines }),
    );
    propsOff = false;
    if (!done) return;
    [report, view] = [done, null];
    await onkept();
  }
  async function open(files: FileList | null | undefined) {
    const file = files?.[0];
    if (!file) return;
    text = await file.text();
    [from, view, report] = [0, null, null];
  }
  const aftermath = $derived(
    report
      ? [
          { title: 'Not taken', other: 'sent', rows: report.aftermath.notTaken },
          { title: 'Changed beside', other: 'before', rows: report.aftermath.beside },
          { title: 'Look at these before it is armed', other: 'before', rows: report.aftermath.again },
        ]
      : [],
  );
  const toggle = (line: number) => (left = left.includes(line) ? left.filter((l) => l !== line) : [...left, line]);
</script>

<section class="panel mb-3 px-4 py-3" aria-labelledby="as-text">
  <h2 id="as-text">Settings as text</h2>
  <p class="soft">
    For a board that tells its settings line by line: what came with a board or was kept of it, against what is on it.
    The board restarts each time it has told them.
  </p>
  <div class="flex flex-wrap gap-x-3.5 gap-y-2 items-end">
    <label class="grid min-w-0 max-w-full text-soft"
      >the text
      <select class="w-full" bind:value={from} onchange={() => (view = null)}>
        <option value={0}>as it stands below</option>
        {#each texts as k (k.id)}<option value={k.id}>{keptName(k)}</option>{/each}
      </select></label
    >
    <label class="grid min-w-0 max-w-full text-soft"
      >held against
      <select class="w-full" bind:value={against} onchange={() => (view = null)}>
        <option value={0}>what is on the board</option>
        {#each texts as k (k.id)}<option value={k.id}>{keptName(k)}</option>{/each}
      </select></label
    >
    <button type="button" class="button" disabled={address === '' || busy !== ''} onclick={keep}
      >Keep what is on the board, with its text</button
    >
  </div>
  {#if from === 0}
    <label class="grid text-soft mt-2"
      >lines of the text
      <textarea
        class="mono w-full"
        rows="6"
        spellcheck="false"
        bind:value={text}
        oninput={() => (view = null)}
        ondragover={(e) => e.preventDefault()}
        ondrop={(e) => {
          e.preventDefault();
          void open(e.dataTransfer?.files);
        }}></textarea></label
    >
    <label class="grid text-soft mt-1"
      >or a file <input
        class="w-full min-w-0"
        type="file"
        accept=".txt,text/plain"
        onchange={(e) => void open(e.currentTarget.files)}
      /></label
    >
  {/if}
  <p class="buttons mt-2">
    <button type="button" class="button main" disabled={!ready} onclick={compare}>Hold them against each other</button>
    {#if from === 0}<button
        type="button"
        class="button"
        disabled={text.trim() === '' || busy !== ''}
        onclick={() => ontell({ text }, 'the lines of the text')}>What it says of today</button
      >{/if}
    {#if address === '' && against === 0}<span class="soft">Choose a port first, or something kept.</span>{/if}
  </p>
  {#if busy}<p role="status">{busy}</p>{/if}
  {#if failure}<FailureNote {failure} />{/if}
  {#if view}
    <h3 class="font-bold mt-3" role="status" class:bad={!!view.refused}>{view.says}</h3>
    <TextLines rows={view.rows} {left} ontoggle={toggle} picks={against === 0 && !view.refused} />
    {#if loadable.length > 0 && against === 0}
      <p class="mt-2">
        All settings are kept first, as they are and as text. A line the board does not take ends it unsaved.
      </p>
      <p class="bad">A board that is being set can start the motors: props off, and no pack on it.</p>
      <p class="buttons">
        <label class="inline-flex gap-2 items-center min-h-11 font-bold mr-4"
          ><input type="checkbox" bind:checked={propsOff} /> The props are off</label
        >
        <button
          type="button"
          class="button main"
          disabled={!propsOff || picked.length === 0 || busy !== ''}
          onclick={load}>Load {picked.length === 1 ? 'the line' : `the ${picked.length} lines`}</button
        >
      </p>
    {/if}
  {/if}
  {#if report}
    <h3 class="font-bold mt-3" role="status" class:good={report.outcome === 'set'} class:bad={report.outcome !== 'set'}>
      {report.outcome === 'set' ? '✓ ' : '! '}{report.says}
    </h3>
    {#if report.steps.length > 0}<p>Done: {report.steps.join(', ')}.</p>{/if}
    {#each aftermath as part (part.title)}
      {#if part.rows.length > 0}
        <p class="mt-2 font-bold">{part.title}</p>
        <ul class="list-disc pl-5">
          {#each part.rows as r (r.key)}<li>
              {r.label}: {r.found || 'nothing'}{r.state === 'differs'
                ? `, ${part.other}: ${r.wanted || 'nothing'}`
                : ''}
            </li>{/each}
        </ul>
      {/if}
    {/each}
    {#if report.restore}<p class="mt-2">To go back, choose the text kept before it was loaded, above.</p>{/if}
  {/if}
</section>
