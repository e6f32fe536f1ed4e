<script lang="ts">
  import type { QuadView } from '../api/client.svelte';
  import LevelMark from '../lib/LevelMark.svelte';

  let { fit, level }: { fit: QuadView['now']; level: string } = $props();
  const rows = $derived<[string, string][]>([
    ['goggles', fit.goggles],
    ['controller', fit.controller],
    ['pack', fit.pack],
    ['board', fit.board],
    ['air unit fed from', fit.feed],
  ]);
</script>

<section class="panel" aria-label="The fit now">
  <h2>now <LevelMark {level} size={18} /></h2>
  <p class="unit">{fit.airUnit}</p>
  <dl>
    {#each rows as [name, value] (name)}
      <dt>{name}</dt>
      <dd>{value}</dd>
    {/each}
  </dl>
</section>

<style>
  section {
    padding: 0.8rem 0.9rem 1rem;
  }
  h2 {
    display: flex;
    justify-content: space-between;
    color: var(--soft);
    font-size: 1rem;
  }
  .unit {
    font-weight: 700;
    font-size: 1.15rem;
  }
  dl {
    margin: 0.6rem 0 0;
  }
  dt {
    color: var(--soft);
    font-size: 0.85rem;
    margin-top: 0.5rem;
  }
  dd {
    margin: 0;
    overflow-wrap: anywhere;
  }
  @media (max-width: 1000px) {
    dl {
      display: grid;
      grid-template-columns: max-content 1fr;
      gap: 0.2rem 1rem;
    }
  }
</style>
