<script lang="ts">
  // A quad needs a name, no more; what is on it is filled in on its picture.
  import { push } from 'svelte-spa-router';
  import { api, type Failure, type ShelfEntry } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';

  let { params }: { params: { story?: string } } = $props();

  const stories: Record<string, { title: string; next: string }> = {
    convert: { title: 'A quad from analog to digital', next: 'First what is on it today; then what goes in.' },
    swap: { title: 'Another air unit', next: 'First what is on it today; then what goes in.' },
    bought: { title: 'A quad that has an air unit', next: 'What is on it, as far as you know.' },
    keep: { title: 'A quad of your fleet', next: 'What is on it, as far as you want to keep it.' },
  };
  const story = $derived(stories[params.story ?? 'keep'] ?? { title: 'A quad', next: '' });
  let name = $state('');
  let like = $state('');
  let quads = $state.raw<ShelfEntry[]>([]);
  void api.quads().then((a) => a.ok && (quads = a.data.entries));
  let refused = $state.raw<Failure | null>(null);
  let busy = $state(false);

  async function begin(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    const answer = await api.beginQuad(name, params.story === 'convert', like);
    busy = false;
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) await push(`/fill/${answer.data.quad}/today/${like ? '' : 'first'}`);
  }
</script>

<h1 class="mb-3">{story.title}</h1>
<form class="panel grid grid-cols-1 gap-3 px-5 py-4 max-w-[34rem]" onsubmit={begin}>
  <label class="grid gap-0.5">What do you call it?<input required maxlength="200" bind:value={name} /></label>
  {#if quads.length > 0}
    <label class="grid grid-cols-1 gap-0.5"
      >Like
      <select bind:value={like}>
        <option value="">none that is there</option>
        {#each quads as q (q.id)}<option value={q.id}>{q.name}</option>{/each}
      </select>
    </label>
  {/if}
  <p class="soft">
    {like
      ? 'What is on it and what is planned is copied; its air unit is another one of the same model, to be bought.'
      : story.next}
  </p>
  {#if refused}<FailureNote failure={refused} />{/if}
  <p class="buttons"><button class="button main" disabled={busy}>Next</button><a href="#/">Back</a></p>
</form>
