<script lang="ts">
  // Which quads are proven as they fly today, and what makes one unproven again.
  import type { Standing } from '../api/client.svelte';
  import LevelMark from '../lib/LevelMark.svelte';

  let { standings }: { standings: Standing[] } = $props();
  const states = $derived([...new Set(standings.map((s) => s.state))]);
</script>

{#if standings.length > 0}
  <details class="panel px-3.5 py-2.5 mt-3">
    <summary class="min-h-8 cursor-pointer"
      ><b>Proven as they fly today</b>
      <span class="soft"
        >{states.map((state) => `${standings.filter((s) => s.state === state).length} ${state}`).join(', ')}</span
      ></summary
    >
    <ul class="grid gap-1.5 mt-1.5">
      {#each standings as s (s.quad)}
        <li class="grid grid-cols-[1.5rem_minmax(0,1fr)] gap-2 border-t border-t-line pt-1.5">
          <LevelMark level={s.finding.level} size={18} />
          <span class="wrap-anywhere">
            <a href={`#/swap/${s.quad}`}><b>{s.name}</b></a>, {s.state}{#if s.flight}, <a
                href={`#/prove/fly/${s.flight}`}>flown on {s.on}</a
              >{:else if s.on}, first flown on {s.on}{/if}
            <span class="soft block">{s.finding.says}</span>
          </span>
        </li>
      {/each}
    </ul>
  </details>
{/if}
