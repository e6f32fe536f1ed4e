<script lang="ts">
  // What to set on the flight board and in the goggles, against how the quad flies
  // today, and the way to the board itself.
  import type { QuadView } from '../api/client.svelte';
  import SettingRows from '../board/SettingRows.svelte';

  let { quad, goggles, plan }: { quad: string; goggles: string; plan: QuadView['settings'] } = $props();
  const differs = $derived(plan.rows.filter((r) => !r.same).length);
</script>

{#if plan.rows.length > 0}
  <section class="panel px-3.5 py-2.5" aria-labelledby="to-set">
    <h3 id="to-set">
      {differs === 0
        ? 'Nothing to set anew on the flight board'
        : differs === 1
          ? 'One thing to set on the flight board'
          : `${differs} things to set on the flight board`}
    </h3>
    {#if differs > 0}<SettingRows rows={plan.rows.filter((r) => !r.same)} against="today" />{/if}
    <details>
      <summary class="cursor-pointer min-h-7 text-soft">what stays as it is</summary>
      <SettingRows rows={plan.rows.filter((r) => r.same)} against="today" />
    </details>
    {#each plan.missing ?? [] as m (m.field + m.label)}<p>The plan does not say: {m.label}.</p>{/each}
    {#if plan.goggles.length > 0}<p>
        In the goggles: <b>{plan.goggles.map((g) => g.says).join(', ')}</b>.{#if goggles}&nbsp;<a
            class="font-semibold"
            href={`#/goggles/${goggles}`}>All that is set in them</a
          >{/if}
      </p>{/if}
    {#each plan.firmware as says (says)}<p class="soft">{says}</p>{/each}
    <p><a class="font-semibold" href={`#/board/${quad}`}>Ask the flight board whether it is so, and set it</a></p>
  </section>
{/if}
