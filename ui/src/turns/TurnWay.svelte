<script lang="ts">
  // One way of a turn: how the quad flies after it, what is done each time, and what once.
  import type { TurnPair } from '../api/client.svelte';
  import LevelMark from '../lib/LevelMark.svelte';

  interface Props {
    way: TurnPair['there'];
    quad: string;
    shown: boolean; // the gates' screen shows the fit that this turn leads to
  }
  let { way, quad, shown }: Props = $props();
  const each = $derived(way.steps.filter((s) => s.eachTime));
  const once = $derived(way.steps.filter((s) => !s.eachTime));
</script>

<section class="panel grid gap-2 content-start px-4 py-3" aria-label={`To ${way.to}`}>
  <h3 class="flex flex-wrap items-center gap-2">To {way.to} <LevelMark level={way.level} size={20} word /></h3>
  {#if way.worst}
    <p>
      {#if !shown}{way.worst.title}{:else}<a href={`#/swap/${quad}/${way.worst.gate}`}>{way.worst.title}</a>{/if}: {way
        .worst.says}
    </p>
  {/if}
  <p class="font-bold mt-1">
    At each turn: {each.length} steps{way.minutes > 0 ? `, the updates about ${way.minutes} minutes` : ''}
  </p>
  <ol class="list-decimal pl-6">
    {#each each as s (s.id)}<li>{s.title}</li>{/each}
  </ol>
  {#if once.length > 0}
    <p class="font-bold mt-1">The first time only: {once.length}</p>
    <ol class="list-decimal pl-6">
      {#each once as s (s.id)}<li>{s.title}</li>{/each}
    </ol>
  {/if}
  <p class="soft">Tools at each turn: {way.tools.join(', ') || 'none'}</p>
</section>
