<script lang="ts">
  // What each device ends on, and for goggles which quads in which mode.
  import type { RouteView } from '../api/client.svelte';

  let { devices }: { devices: RouteView['plan']['devices'] } = $props();
  const roles: Record<string, string> = { airUnit: 'air unit', goggles: 'goggles', controller: 'controller' };
</script>

<section aria-labelledby="targets">
  <h2 class="mx-0 mt-4 mb-1" id="targets">What each device ends on</h2>
  <ul class="grid cols-fill-[245px] gap-2">
    {#each devices as d (d.device)}
      {@const moves = d.to !== d.from}
      <li class="panel grid content-start leading-snug text-note wrap-anywhere px-3 py-1.5" class:moves>
        <span><b>{d.label}</b> <span class="soft">{roles[d.role] ?? d.role}</span></span>
        <span class="mono"
          >{moves ? `${d.from || 'not known'} → ${d.to}` : d.to ? `stays on ${d.to}` : 'not known, stays'}{d.mode
            ? `, mode ${d.mode}`
            : ''}</span
        >
        {#each d.uses as u (u.mode)}<span class="soft">mode {u.mode} for {u.quads.join(', ')}</span>{/each}
        {#each d.warns as w, at (at)}<span class="warn">{w}</span>{/each}
      </li>
    {/each}
  </ul>
</section>

<style>
  .moves {
    border-left: 5px solid var(--change);
  }
</style>
