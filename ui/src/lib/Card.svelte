<script lang="ts">
  // A panel with a title of its own, as they lie side by side on a screen.
  import type { Snippet } from 'svelte';

  let { title, children }: { title: string; children: Snippet } = $props();
</script>

<div class="panel">
  <h2>{title}</h2>
  {@render children()}
</div>

<style>
  .panel {
    padding: 1rem 1.2rem 1.2rem;
    display: grid;
    align-content: start;
    gap: 0.6rem;
    min-width: 0;
  }
</style>
