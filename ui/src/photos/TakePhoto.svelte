<script lang="ts">
  // A photo taken in place, or chosen: of a step, a plug, a fault. Those there are of it stand beside.
  import { untrack } from 'svelte';
  import { api, photoURL, type AlbumView, type Failure, type PhotoOf } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { shrunk } from './shrink';

  interface Props {
    quad: string;
    of: PhotoOf;
    thing?: string; // which step or plug
  }
  let { quad, of, thing = '' }: Props = $props();

  let album = $state.raw<AlbumView | null>(null);
  let failure = $state.raw<Failure | null>(null);
  let wrong = $state('');
  let busy = $state(false);
  $effect(() => {
    const asked = quad;
    untrack(() => void api.photos(asked).then((a) => (album = a.ok ? a.data : null)));
  });
  const group = $derived(album?.groups.find((g) => g.of === of && (g.key ?? '') === thing));
  const photos = $derived(group ? [...group.before, ...group.after, ...group.others] : []);

  async function take(event: Event) {
    const input = event.currentTarget as HTMLInputElement;
    const file = input.files?.[0];
    if (!file) return;
    [failure, wrong, busy] = [null, '', true];
    try {
      const answer = await api.keepPhoto(quad, { of, key: thing, moment: '', words: '' }, await shrunk(file));
      if (answer.ok) album = answer.data;
      else failure = answer.failure;
    } catch (e) {
      wrong = e instanceof Error ? e.message : String(e);
    }
    busy = false;
    input.value = ''; // the same file can be taken again
  }
</script>

<div class="screen-only flex flex-wrap gap-2.5 items-center">
  <label class="button cursor-pointer inline-flex items-center focus-within:outline-2"
    >{busy ? 'Keeping it…' : 'Add a photo'}<input
      class="unseen"
      type="file"
      accept="image/*"
      disabled={busy}
      onchange={take}
    /></label
  >
  {#each photos as p (p.id)}<a href={`#/photos/${quad}`}
      ><img
        class="h-11 rounded border border-line"
        src={photoURL(quad, p.id)}
        alt={p.words || `${p.label}, photo ${p.id}`}
      /></a
    >{/each}
  <a href={`#/photos/${quad}?of=${of}${thing ? `&key=${encodeURIComponent(thing)}` : ''}`}>All photos</a>
</div>
{#if wrong}<p class="bad" role="alert">{wrong}</p>{/if}
{#if failure}<FailureNote {failure} />{/if}
