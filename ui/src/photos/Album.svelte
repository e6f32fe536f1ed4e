<script lang="ts">
  // The photos of a quad: of it whole, of steps, plugs and faults, before a swap beside after it.
  import { untrack } from 'svelte';
  import { router } from 'svelte-spa-router';
  import { api, type AlbumView, type Failure, type PhotoOf } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import Gone from './Gone.svelte';
  import Photo from './Photo.svelte';
  import { shrunk } from './shrink';

  let { params }: { params: { quad: string } } = $props();
  type Kept = AlbumView['groups'][number]['others'][number];

  const album = new Loaded<AlbumView>();
  const id = $derived(params.quad);
  $effect(() => {
    const quad = id;
    untrack(() => void album.take(api.photos(quad)));
  });

  const query = new URLSearchParams(router.querystring ?? '');
  let thing = $state(`${query.get('of') ?? 'quad'} ${query.get('key') ?? ''}`);
  let moment = $state<'' | 'before' | 'after'>('');
  let words = $state('');
  let failure = $state.raw<Failure | null>(null);
  let wrong = $state('');
  let busy = $state(false);
  let over = $state(false); // something is dragged over the place to drop it
  const kinds = { quad: 'the whole quad', step: 'a step', plug: 'a plug', fault: 'a fault' } as const;

  async function keep(files: FileList | null | undefined) {
    [failure, wrong, over] = [null, '', false];
    const [of = 'quad', key = ''] = [thing.slice(0, thing.indexOf(' ')), thing.slice(thing.indexOf(' ') + 1)];
    for (const file of files ?? []) {
      busy = true;
      try {
        const what = { of: of as PhotoOf, key, moment, words };
        const answer = await api.keepPhoto(id, what, await shrunk(file));
        if (answer.ok) album.data = answer.data;
        else failure = answer.failure;
      } catch (e) {
        wrong = `${file.name}: ${e instanceof Error ? e.message : String(e)}`;
      }
    }
    busy = false;
    words = '';
  }
  async function say(p: Kept, change: Partial<Kept>) {
    const answer = await api.sayPhoto(id, p.id, {
      moment: (change.moment ?? p.moment ?? '') as '' | 'before' | 'after',
      words: change.words ?? p.words ?? '',
      marks: change.marks ?? p.marks,
      letGo: change.letGo ?? false,
    });
    failure = answer.ok ? null : answer.failure;
    if (answer.ok) album.data = answer.data;
  }
  async function drop(p: Kept) {
    const answer = await api.dropPhoto(id, p.id);
    failure = answer.ok ? null : answer.failure;
    if (answer.ok) album.data = answer.data;
  }
</script>

{#if album.failure}
  <FailureNote failure={album.failure} again={() => album.take(api.photos(params.quad))} />
{:else if !album.data}
  <p class="soft" role="status">Looking for photos…</p>
{:else}
  {@const v = album.data}
  <div class="title">
    <h1>Photos of {v.name}</h1>
    <span class="screen-only flex gap-3 items-center ml-auto">
      <a href={`#/bench/${v.quad}`}>Bench sheet</a>
      <a href={`#/swap/${v.quad}`}>Plan</a>
    </span>
  </div>
  <section
    class="panel screen-only grid grid-cols-[minmax(0,1fr)] gap-3 px-4 py-3"
    class:over
    aria-labelledby="add"
    ondragover={(e) => {
      e.preventDefault();
      over = true;
    }}
    ondragleave={() => (over = false)}
    ondrop={(e) => {
      e.preventDefault();
      void keep(e.dataTransfer?.files);
    }}
  >
    <h2 id="add">Add a photo</h2>
    <div
      class="grid grid-cols-[minmax(0,1fr)] gap-3 min-[700px]:grid-cols-[minmax(0,2fr)_minmax(0,1fr)_minmax(0,2fr)] items-end"
    >
      <label class="grid grid-cols-[minmax(0,1fr)] gap-0.5"
        >What it shows
        <select class="w-full" bind:value={thing}>
          {#each v.things as t (t.of + ' ' + (t.key ?? ''))}<option value={`${t.of} ${t.key ?? ''}`}
              >{kinds[t.of as keyof typeof kinds]}{t.of === 'quad' ? '' : `: ${t.label}`}</option
            >{/each}
        </select></label
      >
      <label class="grid grid-cols-[minmax(0,1fr)] gap-0.5"
        >When
        <select class="w-full" bind:value={moment}>
          <option value="">not said</option>
          <option value="before">before the swap</option>
          <option value="after">after it</option>
        </select></label
      >
      <label class="grid grid-cols-[minmax(0,1fr)] gap-0.5"
        >In words
        <input
          class="border border-soft rounded bg-raised text-ink px-2 min-h-10.5"
          maxlength="400"
          bind:value={words}
        /></label
      >
    </div>
    <p class="flex flex-wrap gap-3 items-center">
      <label class="button main cursor-pointer inline-flex items-center focus-within:outline-2"
        >{busy ? 'Keeping it…' : 'Take or choose a photo'}<input
          class="unseen"
          type="file"
          accept="image/*"
          multiple
          disabled={busy}
          onchange={(e) => {
            const input = e.currentTarget;
            void keep(input.files).then(() => (input.value = ''));
          }}
        /></label
      >
      <span class="soft text-note"
        >or drop it here. It is made small and set upright; where and when it was taken is not kept.</span
      >
    </p>
    {#if wrong}<p class="bad" role="alert">{wrong}</p>{/if}
    {#if failure}<FailureNote {failure} />{/if}
  </section>
  {#each v.groups as g (g.of + ' ' + (g.key ?? ''))}
    <section class="grid gap-2 mt-4" aria-label={`${kinds[g.of as keyof typeof kinds]}: ${g.label}`}>
      <h2>{g.label}{g.of === 'quad' ? '' : `, ${kinds[g.of as keyof typeof kinds]}`}</h2>
      <div class="grid grid-cols-[minmax(0,1fr)] gap-4 min-[700px]:grid-cols-2 items-start">
        {#each [{ title: 'before', list: g.before }, { title: 'after', list: g.after }] as side (side.title)}
          {#if g.before.length + g.after.length > 0}
            <div class="grid gap-3 content-start">
              <h3>{side.title}</h3>
              {#each side.list as p (p.id)}<Photo
                  quad={v.quad}
                  photo={p}
                  pins={v.pins}
                  onsay={(change) => say(p, change)}
                  ondrop={() => say(p, { letGo: true })}
                />{:else}<p class="soft">none yet</p>{/each}
            </div>
          {/if}
        {/each}
        {#each g.others as p (p.id)}<Photo
            quad={v.quad}
            photo={p}
            pins={v.pins}
            onsay={(change) => say(p, change)}
            ondrop={() => say(p, { letGo: true })}
          />{/each}
      </div>
    </section>
  {:else}
    <p class="soft mt-4">None yet. Before anything is unsoldered is the time for the first.</p>
  {/each}
  {#if v.letGo.length > 0}
    <section class="panel screen-only grid gap-2 mt-4 px-4 py-3" aria-labelledby="gone">
      <h2 id="gone">Let go of</h2>
      <ul class="grid gap-2 list-none p-0 m-0">
        {#each v.letGo as p (p.id)}<Gone
            quad={v.quad}
            photo={p}
            onback={() => say(p, { letGo: false })}
            ondrop={() => drop(p)}
          />{/each}
      </ul>
    </section>
  {/if}
{/if}

<style>
  .over {
    outline: 3px dashed var(--accent);
  }
</style>
