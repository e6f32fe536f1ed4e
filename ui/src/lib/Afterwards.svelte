<script lang="ts">
  // What stands below the first look: drawn when that is painted, so that it comes sooner.
  import { onMount, type Snippet } from 'svelte';

  let { children }: { children: Snippet } = $props();
  let painted = $state(false);

  onMount(() => {
    let frame = requestAnimationFrame(() => {
      frame = requestAnimationFrame(() => (painted = true));
    });
    return () => cancelAnimationFrame(frame);
  });
</script>

{#if painted}{@render children()}{/if}
