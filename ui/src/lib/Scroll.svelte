<script lang="ts">
  // What is wider than the screen scrolls by itself, by keyboard as well, and says what it is.
  import type { Snippet } from 'svelte';

  let { label, of = '', children }: { label: string; of?: string; children: Snippet } = $props();
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class={`scroll ${of}`} role="group" aria-label={label} tabindex="0">{@render children()}</div>
