<script lang="ts">
  // The shelf: everything put in, by kind; add, change, take out, files.
  import { Button } from 'flowbite-svelte';
  import { untrack } from 'svelte';
  import { push, router } from 'svelte-spa-router';
  import { api, type Failure, type Shelf, type ShelfEntry } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import Add from './Add.svelte';
  import Changes from './Changes.svelte';
  import EntryForm from './EntryForm.svelte';
  import Files from './Files.svelte';
  import { ofFleet, type Form } from './forms';
  import TableReader from './TableReader.svelte';
  import TradeShelf from './TradeShelf.svelte';

  let { params }: { params: { tab?: string; kind?: string; id?: string } } = $props();

  const shelf = new Loaded<Shelf>();
  const forms = new Loaded<Form[]>();
  void forms.take(api.forms());
  const kinds = $derived(forms.data ?? []);
  const kindOf = (kind: string) => kinds.find((k) => k.kind === kind);
  let refused = $state.raw<Failure | null>(null);
  let removed = $state.raw<{ name: string; change: number } | null>(null);
  let find = $state('');

  const tab = $derived(params.tab ?? 'all');
  const atOnce = 300;
  let shown = $state(atOnce);

  // The list is looked through by the program, a part at a time; the forms know all there is.
  const reload = async () => {
    await shelf.take(tab === 'all' ? api.shelf({ find: find.trim(), count: shown }) : api.shelf());
  };
  $effect(() => {
    const [, words, count] = [tab, find, shown];
    const wait = setTimeout(() => untrack(() => void reload()), words && count === atOnce ? 120 : 0);
    return () => clearTimeout(wait);
  });
  const entries = $derived(shelf.data?.entries ?? []);
  const adding = $derived(tab === 'add' ? kindOf(params.kind ?? '') : undefined);
  const changed = $derived(
    tab === 'edit'
      ? entries.find((e) => e.id === params.id && (params.kind === 'gear' ? !ofFleet(e.kind) : e.kind === params.kind))
      : undefined,
  );
  const groups = $derived(kinds.map((k) => ({ kind: k, entries: entries.filter((e) => e.kind === k.kind) })));

  async function saved(kind: string, id: string) {
    await reload();
    if (kind === 'quad') await push(`/swap/${id}`);
    else await push('/shelf');
  }

  async function takeOut(e: ShelfEntry) {
    const answer = await api.remove(e.kind, e.id, e.revision);
    if (answer.ok) {
      removed = { name: e.name, change: answer.data.change };
      refused = null;
      await reload();
    } else refused = answer.failure;
  }

  async function putBack() {
    if (!removed) return;
    const answer = await api.undo(removed.change);
    if (answer.ok) {
      removed = null;
      await reload();
    } else refused = answer.failure;
  }
</script>

<div class="title">
  <h1>Shelf</h1>
  <nav class="flex flex-wrap gap-1" aria-label="Shelf">
    <a
      class="no-underline border-b-3 border-b-transparent min-h-10 px-3.5 py-1.5"
      href="#/shelf"
      aria-current={tab === 'all' ? 'page' : undefined}>Everything</a
    >
    <a
      class="no-underline border-b-3 border-b-transparent min-h-10 px-3.5 py-1.5"
      href="#/shelf/add"
      aria-current={tab === 'add' ? 'page' : undefined}>Add</a
    >
    <a
      class="no-underline border-b-3 border-b-transparent min-h-10 px-3.5 py-1.5"
      href="#/shelf/trade"
      aria-current={tab === 'trade' ? 'page' : undefined}>Trade shelf</a
    >
    <a
      class="no-underline border-b-3 border-b-transparent min-h-10 px-3.5 py-1.5"
      href="#/shelf/files"
      aria-current={tab === 'files' ? 'page' : undefined}>Files</a
    >
    <a
      class="no-underline border-b-3 border-b-transparent min-h-10 px-3.5 py-1.5"
      href="#/shelf/changes"
      aria-current={tab === 'changes' ? 'page' : undefined}>Changes</a
    >
    <a class="no-underline border-b-3 border-b-transparent min-h-10 px-3.5 py-1.5" href="#/about">About</a>
  </nav>
</div>
{#if shelf.failure}<FailureNote failure={shelf.failure} again={reload} />{/if}
{#if forms.failure}<FailureNote failure={forms.failure} again={() => forms.take(api.forms())} />{/if}
{#if refused}<FailureNote failure={refused} />{/if}
{#if shelf.data && shelf.data.aside.length > 0}
  <div class="border-l-5 border-l-unfit bg-sheet mb-3 px-3.5 py-2.5" role="alert">
    <p>
      {shelf.data.aside.length === 1 ? 'One entry cannot' : `${shelf.data.aside.length} entries cannot`} be read and {shelf
        .data.aside.length === 1
        ? 'is'
        : 'are'} left as {shelf.data.aside.length === 1 ? 'it is' : 'they are'}; what rests on {shelf.data.aside
        .length === 1
        ? 'it'
        : 'them'} is unknown. Stop the program and run <code class="mono">yokeswap doctor --repair</code>.
    </p>
    <ul>
      {#each shelf.data.aside as a (a.kind + a.id)}<li>
          {a.kind} <strong>{a.id}</strong> <span class="soft">{a.why}</span>
        </li>{/each}
    </ul>
  </div>
{/if}
{#if removed}
  <p class="flex bg-caution-wash gap-3 items-center mb-3 px-3.5 py-2" role="status">
    Took out {removed.name}. <Button size="xs" color="alternative" onclick={putBack}>Put it back</Button>
  </p>
{/if}
{#if shelf.data && forms.data}
  {#if tab === 'files'}
    <Files shelf={shelf.data} onreload={reload} />
  {:else if tab === 'changes'}
    <Changes />
  {:else if tab === 'table'}
    <TableReader onreload={reload} />
  {:else if tab === 'trade'}
    <TradeShelf {entries} {kinds} onreload={reload} />
  {:else if adding}
    {#key adding.kind}
      <EntryForm form={adding} {entries} onsaved={saved} onclose={() => push('/shelf')} onreload={reload} />
    {/key}
  {:else if tab === 'add'}
    <Add {kinds} />
  {:else if tab === 'edit' && changed}
    {@const form = kindOf(changed.kind)}
    {#if form}
      {#key changed.id}
        <EntryForm
          {form}
          {entries}
          existing={changed}
          field={new URLSearchParams(router.querystring).get('field') ?? undefined}
          onsaved={saved}
          onclose={() => history.back()}
          onreload={reload}
        />
      {/key}
    {/if}
  {:else if tab === 'edit'}
    <p>There is no {params.kind} “{params.id}” on the shelf. <a href="#/shelf">Back to the shelf</a></p>
  {:else if entries.length === 0 && find === ''}
    <section class="panel p-8">
      <h2>The shelf is empty</h2>
      <p><a href="#/shelf/files">Take in a gear pack</a>, or <a href="#/shelf/add">add your own gear by hand</a>.</p>
    </section>
  {:else}
    <div class="flex gap-2.5 items-center mb-3">
      <label for="find">Find</label><input
        class="bg-raised text-ink border border-soft rounded min-h-10 w-[min(320px,100%)]"
        id="find"
        type="search"
        bind:value={find}
        autocomplete="off"
      />
    </div>
    {#each groups.filter((g) => g.entries.length > 0) as g (g.kind.kind)}
      <section class="kind mb-4.5">
        <h2 class="mb-1">
          {g.kind.words} <span class="soft">{g.entries.length}</span>
          <a class="font-normal text-note ml-1.5" href={`#/shelf/add/${g.kind.kind}`} aria-label={`Add: ${g.kind.word}`}
            >add</a
          >
        </h2>
        <ul class="panel">
          {#each g.entries as e (e.id)}
            <li
              class="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto] gap-2.5 items-center border-b border-b-line break-inside-avoid min-h-11 wrap-anywhere text-note px-3.5 py-0.5"
            >
              <a href={`#/shelf/edit/${e.kind}/${e.id}`}>{e.name}</a>
              <span class="soft text-small">{e.model ?? e.source ?? ''}</span>
              <button type="button" onclick={() => takeOut(e)} aria-label={`Take out ${e.name}`}>take out</button>
            </li>
          {/each}
        </ul>
      </section>
    {:else}
      <p class="soft">Nothing on the shelf is called that.</p>
    {/each}
    {#if shelf.data.of > entries.length}
      <p>
        <Button size="sm" color="alternative" disabled={shelf.busy} onclick={() => (shown += atOnce)}
          >Show {Math.min(atOnce, shelf.data.of - entries.length)} more</Button
        > <span class="soft">{entries.length} of {shelf.data.of} are shown.</span>
      </p>
    {/if}
  {/if}
{:else if !shelf.failure && !forms.failure}
  <p class="soft" role="status">Looking on the shelf…</p>
{/if}

<style>
  nav a[aria-current] {
    border-bottom-color: var(--accent);
    font-weight: 700;
  }
  .kind ul {
    list-style: none;
    margin: 0;
    padding: 0;
    columns: 2 420px;
    column-gap: 0;
  }
  .kind li button {
    border: 0;
    background: none;
    color: var(--soft);
    cursor: pointer;
    min-height: 40px;
    text-decoration: underline;
    text-underline-offset: 0.2em;
  }
</style>
