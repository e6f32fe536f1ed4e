<script lang="ts">
  // The route there, and the way back.
  import WayBack from './WayBack.svelte';
  import WayOut from './WayOut.svelte';

  let { params }: { params: { way?: string } } = $props();
  const homeward = $derived(params.way === 'back');
</script>

<nav class="flex gap-1.5 mb-2.5" aria-label="There and back">
  <a
    class="min-h-9 border border-line rounded no-underline text-ink px-3.5 py-1"
    href="#/route"
    aria-current={homeward ? undefined : 'page'}>The route</a
  >
  <a
    class="min-h-9 border border-line rounded no-underline text-ink px-3.5 py-1"
    href="#/route/back"
    aria-current={homeward ? 'page' : undefined}>The way back</a
  >
  <a class="min-h-9 border border-line rounded no-underline text-ink px-3.5 py-1" href="#/links">What links with what</a
  >
</nav>
{#if homeward}<WayBack />{:else}<WayOut />{/if}

<style>
  a[aria-current] {
    background: var(--accent-wash);
    border-color: var(--accent);
    font-weight: 700;
  }
</style>
