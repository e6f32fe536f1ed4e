<script lang="ts">
  // A quad's log: what was done and found, the newest first.
  import type { Note } from '../api/client.svelte';
  import { moment } from './words';

  let { name, notes }: { name: string; notes: Note[] } = $props();
</script>

{#if notes.length > 0}
  <section class="panel mt-3 px-3.5 py-2.5" aria-labelledby="log">
    <h2 id="log">Log of {name}</h2>
    <ul class="mt-1">
      {#each notes as n (n.id)}<li class="border-t border-t-line px-0 py-1">
          <span class="mono">{moment(n.at)}</span>
          {n.says}
        </li>{/each}
    </ul>
  </section>
{/if}
