<script lang="ts">
  // What becomes of the goggles and controllers in a choice: who flies with them, and what is done with
  // those that nobody flies with.
  import type { FleetDecision } from '../api/client.svelte';

  let { devices }: { devices: FleetDecision['devices'] } = $props();
</script>

{#if devices.length > 0}
  <section class="panel px-4 py-2.5 grid gap-1.5" aria-labelledby="devices">
    <h2 id="devices" class="text-body m-0">What becomes of the goggles and sticks</h2>
    <ul class="grid gap-1 list-none p-0 m-0">
      {#each devices as d (d.kit ?? d.label)}
        <li>
          <strong>{d.label}</strong>: {d.says}
          {#if d.quads.length > 0}<span class="soft">Flies {d.quads.join('; ')}.</span>{/if}
        </li>
      {/each}
    </ul>
  </section>
{/if}
