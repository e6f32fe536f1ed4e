<script lang="ts">
  // The usual caution at a step that can hurt.
  import type { Snippet } from 'svelte';

  let { children }: { children: Snippet } = $props();
</script>

<p class="flex items-start gap-2.5 px-3 py-2 leading-snug bg-caution-wash">
  <svg class="flex-none text-caution" width="20" height="20" viewBox="0 0 24 24" aria-hidden="true"
    ><path d="M12 2.5L22.5 21h-21z" fill="none" stroke="currentColor" stroke-width="2.2" /><path
      d="M12 9v5.5M12 17.2v.6"
      stroke="currentColor"
      stroke-width="2.2"
      stroke-linecap="round"
    /></svg
  >
  <span><b>Caution.</b> {@render children()}</span>
</p>
