<script lang="ts">
  // What cannot be had: the facts that exclude each other, and the ways out
  // that were tried.
  import type { RouteView } from '../api/client';

  let { links }: { links: RouteView['plan']['links'] } = $props();
  const failed = $derived(links.filter((l) => !l.met));
  const changed = $derived(links.filter((l) => l.met && (l.lost.length > 0 || l.gained.length > 0)));
</script>

<section class="panel" aria-labelledby="refusals">
  <h2 id="refusals">{failed.length === 0 ? 'Everything wanted works' : `${failed.length} cannot be had`}</h2>
  {#each failed as l, i (l.quad + l.goggles)}
    <details open={i === 0}>
      <summary><b>{l.quadName} with {l.gogglesName}</b> <span class="soft">{l.weight}</span></summary>
      <p>{l.says}.</p>
      {#if l.conflict && l.conflict.facts.length > 0}
        <p class="soft">{l.conflict.facts.length > 1 ? 'These exclude each other:' : 'It would need:'}</p>
        <ul>{#each l.conflict.facts as f, i (i)}<li>{f}</li>{/each}</ul>
      {/if}
      {#if l.conflict && l.conflict.ways.length > 0}
        <p class="soft">Tried, and would resolve it:</p>
        <ul>{#each l.conflict.ways as w, i (i)}<li>{w.says}{#if w.costs}<span class="soft">, {w.costs}</span>{/if}</li>{/each}</ul>
      {:else}
        <p class="soft">Nothing that was tried resolves it.</p>
      {/if}
    </details>
  {/each}
  {#if changed.length > 0}
    <h2>What changes on the way</h2>
    <ul class="plain">
      {#each changed as l (l.quad + l.goggles)}
        <li><b>{l.quadName}</b> with {l.gogglesName}: {l.gained.length > 0 ? `gains ${l.gained.join(', ')}` : ''}{l.gained.length > 0 && l.lost.length > 0 ? '; ' : ''}{l.lost.length > 0 ? `loses ${l.lost.join(', ')}` : ''}</li>
      {/each}
    </ul>
  {/if}
</section>

<style>
  section {
    padding: 0.7rem 0.9rem;
    display: grid;
    gap: 0.35rem;
    overflow-wrap: anywhere;
  }
  h2 {
    font-weight: 700;
  }
  summary {
    cursor: pointer;
    padding: 0.15rem 0;
    min-height: 30px;
  }
  details {
    border-left: 5px solid var(--unfit);
    padding-left: 0.7rem;
    font-size: 0.95rem;
  }
  ul {
    margin: 0 0 0.3rem;
    padding-left: 1.1rem;
    list-style: disc;
  }
</style>
