<script lang="ts">
  // Two quads picked of those there are, never the same twice, with what else is picked beside.
  import type { Snippet } from 'svelte';

  interface Props {
    quads: { id: string; name: string }[];
    one: string;
    other: string;
    onpick: (change: { one?: string; other?: string }) => void;
    children?: Snippet;
  }
  let { quads, one, other, onpick, children }: Props = $props();
  const picks = $derived([
    { label: 'One quad', value: one, not: other, set: (id: string) => onpick({ one: id }) },
    { label: 'The other', value: other, not: one, set: (id: string) => onpick({ other: id }) },
  ]);
</script>

<div class="flex flex-wrap gap-x-5 gap-y-2 my-2.5">
  {#each picks as pick (pick.label)}
    <label class="flex flex-wrap items-center gap-2 min-w-0 max-w-full"
      >{pick.label}
      <select class="min-w-0 max-w-full" value={pick.value} onchange={(e) => pick.set(e.currentTarget.value)}>
        <option value="">pick a quad</option>
        {#each quads.filter((q) => q.id !== pick.not) as q (q.id)}<option value={q.id}>{q.name}</option>{/each}
      </select></label
    >
  {/each}
  {@render children?.()}
</div>
