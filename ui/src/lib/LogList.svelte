<script lang="ts">
  // A quad's log: what was done and found, the newest first.
  import type { Note } from '../api/client.svelte';
  import { moment } from './words';

  let { name, notes }: { name: string; notes: Note[] } = $props();
</script>

{#if notes.length > 0}
  <section class="panel" aria-labelledby="log">
    <h2 id="log">Log of {name}</h2>
    <ul>{#each notes as n (n.id)}<li><span class="mono">{moment(n.at)}</span> {n.says}</li>{/each}</ul>
  </section>
{/if}

<style>
  section {
    margin-top: 0.8rem;
    padding: 0.6rem 0.9rem;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 0.2rem 0 0;
  }
  li {
    border-top: 1px solid var(--line);
    padding: 0.2rem 0;
  }
</style>
