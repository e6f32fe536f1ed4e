<script lang="ts">
  // A panel with a title of its own, as they lie side by side on a screen.
  import type { Snippet } from 'svelte';

  let { title, children }: { title: string; children: Snippet } = $props();
</script>

<div class="panel grid grid-cols-[minmax(0,1fr)] content-start gap-2.5 min-w-0 px-5 pt-4 pb-5">
  <h2>{title}</h2>
  {@render children()}
</div>
