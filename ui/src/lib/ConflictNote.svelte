<script lang="ts">
  // A stale write: what is there now beside what was sent, and the two ways on.
  import { Button } from 'flowbite-svelte';
  import type { FieldChange } from '../api/client.svelte';

  interface Props {
    conflict: { revision: number; differences: FieldChange[] };
    keepTheirs: () => void;
    applyMine: (revision: number) => void;
  }
  let { conflict, keepTheirs, applyMine }: Props = $props();
</script>

<div class="grid bg-caution-wash border-l-6 border-l-caution gap-2 px-4 py-3" role="alert">
  <h2>Changed meanwhile, in another tab or by another program</h2>
  <p>Nothing was overwritten. This is what is there now, and what you asked for:</p>
  <table class="rows">
    <thead><tr><th scope="col">value</th><th scope="col">there now</th><th scope="col">yours</th></tr></thead>
    <tbody>
      {#each conflict.differences as d (d.path)}
        <tr
          ><th scope="row" class="mono">{d.path || 'all of it'}</th><td class="mono">{d.before || '–'}</td><td
            class="mono">{d.after || '–'}</td
          ></tr
        >
      {:else}
        <tr><td colspan="3">No value differs: what is there is what you asked for.</td></tr>
      {/each}
    </tbody>
  </table>
  <div class="flex gap-2 flex-wrap">
    <Button size="sm" onclick={keepTheirs}>Keep what is there</Button>
    <Button size="sm" color="alternative" onclick={() => applyMine(conflict.revision)}>Apply mine on top</Button>
  </div>
</div>
