<script lang="ts">
  // A photo that was let go of: taken back, or deleted, which is asked for twice.
  import { photoURL, type AlbumView } from '../api/client.svelte';

  interface Props {
    quad: string;
    photo: AlbumView['letGo'][number];
    onback: () => void;
    ondrop: () => void;
  }
  let { quad, photo, onback, ondrop }: Props = $props();
  let leaving = $state(false);
  const name = $derived(photo.words || photo.label);
</script>

<li class="flex flex-wrap gap-3 items-center">
  <img class="h-16 w-auto rounded" src={photoURL(quad, photo.id)} alt={name} loading="lazy" />
  <span>{name}</span>
  {#if leaving}
    <button type="button" class="button" onclick={ondrop}>Delete it for good</button>
    <button type="button" class="button" onclick={() => (leaving = false)}>Leave it here</button>
  {:else}
    <button type="button" class="button" onclick={onback}>Take it back</button>
    <button type="button" class="button" onclick={() => (leaving = true)}>Delete it</button>
  {/if}
</li>
