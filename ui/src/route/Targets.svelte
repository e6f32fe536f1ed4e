<script lang="ts">
  // What each device ends on, and for goggles which quads in which mode.
  import type { RouteView } from '../api/client.svelte';

  let { devices }: { devices: RouteView['plan']['devices'] } = $props();
  const roles: Record<string, string> = { airUnit: 'air unit', goggles: 'goggles', controller: 'controller' };
</script>

<section aria-labelledby="targets">
  <h2 id="targets">What each device ends on</h2>
  <ul>
    {#each devices as d (d.device)}
      {@const moves = d.to !== d.from}
      <li class="panel" class:moves>
        <span><b>{d.label}</b> <span class="soft">{roles[d.role] ?? d.role}</span></span>
        <span class="mono">{moves ? `${d.from || 'not known'} → ${d.to}` : d.to ? `stays on ${d.to}` : 'not known, stays'}{d.mode ? `, mode ${d.mode}` : ''}</span>
        {#each d.uses as u (u.mode)}<span class="soft">mode {u.mode} for {u.quads.join(', ')}</span>{/each}
        {#each d.warns as w, at (at)}<span class="warn">{w}</span>{/each}
      </li>
    {/each}
  </ul>
</section>

<style>
  h2 {
    margin: 1rem 0 0.3rem;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 245px), 1fr));
    gap: 0.5rem;
  }
  li {
    padding: 0.4rem 0.7rem;
    display: grid;
    align-content: start;
    line-height: 1.3;
    font-size: 0.95rem;
    overflow-wrap: anywhere;
  }
  .moves {
    border-left: 5px solid var(--change);
  }
</style>
