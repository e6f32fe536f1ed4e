<script lang="ts">
  // The route there, and the way back.
  import WayBack from './WayBack.svelte';
  import WayOut from './WayOut.svelte';

  let { params }: { params: { way?: string } } = $props();
  const homeward = $derived(params.way === 'back');
</script>

<nav aria-label="There and back">
  <a href="#/route" aria-current={homeward ? undefined : 'page'}>The route</a>
  <a href="#/route/back" aria-current={homeward ? 'page' : undefined}>The way back</a>
</nav>
{#if homeward}<WayBack />{:else}<WayOut />{/if}

<style>
  nav {
    display: flex;
    gap: 0.4rem;
    margin-bottom: 0.6rem;
  }
  a {
    padding: 0.3rem 0.9rem;
    min-height: 36px;
    border: 1px solid var(--line);
    border-radius: 4px;
    text-decoration: none;
    color: var(--ink);
  }
  a[aria-current] {
    background: var(--accent-wash);
    border-color: var(--accent);
    font-weight: 700;
  }
</style>
