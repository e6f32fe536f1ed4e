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

<section class="panel px-3.5 pt-3 pb-4" aria-label="The fit now">
  <h2 class="flex justify-between text-soft text-body">now <LevelMark {level} size={18} /></h2>
  <p class="font-bold text-part">{fit.airUnit}</p>
  <dl class="mt-2.5">
    {#each rows as [name, value] (name)}
      <dt class="text-soft text-small mt-2">{name}</dt>
      <dd class="wrap-anywhere">{value}</dd>
    {/each}
  </dl>
</section>

<style>
  @media (max-width: 1000px) {
    dl {
      display: grid;
      grid-template-columns: max-content 1fr;
      gap: 0.2rem 1rem;
    }
  }
</style>
