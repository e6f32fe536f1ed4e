<script lang="ts">
  // Whether two devices link, from as little as can be asked; the answer has an address.
  import { push } from 'svelte-spa-router';
  import { api, type Failure, type LinkQuestion, type Pair } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import FindingCard from '../swap/FindingCard.svelte';

  let { params }: { params: { quad?: string } } = $props();

  const says: { value: LinkQuestion['says']; word: string }[] = [
    { value: 'within', word: 'they link on some releases' },
    { value: 'any', word: 'they link on any release' },
    { value: 'never', word: 'they never link' },
    { value: 'nothing', word: 'nobody has said anything' },
  ];
  let q: LinkQuestion = $state({
    unit: { name: '', release: '', works: '' },
    goggles: { name: '', release: '', works: '' },
    says: 'within',
    from: '',
    activated: true,
  });
  const ends = $derived([
    { key: 'unit', title: 'Air unit', of: q.unit, like: '1.0.4' },
    { key: 'goggles', title: 'Goggles', of: q.goggles, like: '2.2' },
  ]);
  let refused = $state.raw<Failure | null>(null);
  let busy = $state(false);
  const pair = new Loaded<Pair>();

  $effect(() => {
    if (params.quad) void pair.take(api.pair(params.quad));
  });

  async function ask(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    const answer = await api.askLink(q);
    busy = false;
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) await push(`/begin/link/${answer.data.quad}`);
  }
</script>

{#if params.quad}
  {#if pair.failure}<FailureNote failure={pair.failure} again={() => pair.take(api.pair(params.quad ?? ''))} />{/if}
  {#if pair.data}
    {@const p = pair.data}
    <div class="title">
      <h1>{p.name}</h1>
      <LevelMark level={p.level} size={26} word />
    </div>
    <div class="grid gap-2.5 max-w-[46rem]">
      {#each p.findings as f, i (i)}<FindingCard
          finding={f}
          open={i === 0}
          onfix={() => push(`/swap/${p.quad}/link`)}
        />{/each}
      <p class="buttons">
        <a class="button main inline-flex items-center" href={`#/fill/${p.quad}/plan`}>Go on with this quad</a>
        <a class="button inline-flex items-center" href={`#/swap/${p.quad}/link`}>All of the link gate</a>
        <a class="button inline-flex items-center" href="#/begin/link">Ask of two others</a>
      </p>
    </div>
  {:else if !pair.failure}<p class="soft" role="status">Judging…</p>{/if}
{:else}
  <h1 class="mb-3">Do these two link, and on which firmware?</h1>
  <form class="panel grid gap-4 px-5 py-4 max-w-[46rem]" onsubmit={ask}>
    <div class="grid gap-4 cols-fit-[16rem]">
      {#each ends as e (e.key)}
        <fieldset class="grid gap-2 content-start">
          <legend>{e.title}</legend>
          <label class="grid gap-0.5">its name<input required maxlength="200" bind:value={e.of.name} /></label>
          <label class="grid gap-0.5"
            >the release on it, empty if not read yet<input
              maxlength="40"
              inputmode="decimal"
              placeholder={`such as ${e.like}`}
              bind:value={e.of.release}
            /></label
          >
        </fieldset>
      {/each}
    </div>
    <fieldset class="grid gap-1.5">
      <legend>What is stated of the pair, by a maker or by whoever has tried it</legend>
      {#each says as s (s.value)}
        <label class="flex gap-2 items-center min-h-8"
          ><input type="radio" name="says" value={s.value} bind:group={q.says} />{s.word}</label
        >
      {/each}
    </fieldset>
    {#if q.says === 'within'}
      <div class="grid gap-4 cols-fit-[16rem]">
        {#each ends as e (e.key)}
          <label class="grid gap-0.5"
            >{e.title}: on which releases, empty for any<input
              maxlength="200"
              placeholder={`such as >=${e.like}`}
              bind:value={e.of.works}
            /></label
          >
        {/each}
      </div>
    {/if}
    <label class="flex gap-2 items-center min-h-8"
      ><input type="checkbox" bind:checked={q.activated} />Both have been activated once, or need it not</label
    >
    {#if refused}<FailureNote failure={refused} />{/if}
    <p class="buttons"><button class="button main" disabled={busy}>Answer</button><a href="#/">Back</a></p>
  </form>
{/if}
