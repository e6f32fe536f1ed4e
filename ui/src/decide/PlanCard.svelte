<script lang="ts">
  // One whole plan: its changes in order, what it takes, what it warns of and what is still
  // to be found out; planned as a whole in one press.
  import type { WholePlan } from '../api/client.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { money } from '../lib/words';

  interface Props {
    plan: WholePlan;
    name: string;
    onplan: (plan: WholePlan) => void;
  }
  let { plan, name, onplan }: Props = $props();
  const doors = $derived(plan.cost.doors ?? 0);
  function priced(line: WholePlan['buys'][number]): string {
    if (line.printed) return 'to print';
    if (line.times === 0) return 'comes in a box';
    const price =
      line.offer?.price === undefined
        ? 'no price stated'
        : money(line.offer.price * line.times, line.offer.currency ?? '');
    if (line.count === 0) return `for what comes with it, ${price}`;
    return line.boxed ? `${line.boxed} in a box, ${price}` : price;
  }
</script>

<article class="panel grid gap-2 px-4 py-3" aria-label={name}>
  <h3 class="flex flex-wrap items-center gap-x-3">
    {name}
    {#each plan.gates as g (g.gate)}
      <span class="inline-flex items-center gap-1 text-note font-normal"
        ><LevelMark level={g.level} size={16} />{g.title}</span
      >
    {/each}
  </h3>
  {#if plan.steps.length === 0}<p>It is planned so already: nothing to change.</p>{/if}
  <ol class="list-decimal pl-5">
    {#each plan.steps as step, i (i)}<li>{step.says}</li>{/each}
  </ol>
  {#if plan.buys.length > 0}
    <p>
      <strong>To have first:</strong>
      {plan.buys.map((b) => `${b.count > 1 ? `${b.count} × ` : ''}${b.label} (${priced(b)})`).join(', ')}.
    </p>
  {/if}
  {#if doors > 0}
    <p>
      <LevelMark level="caution" size={16} />
      {doors === 1 ? 'One step' : `${doors} steps`} of it cannot be undone.
    </p>
  {/if}
  {#if plan.beware}<p><LevelMark level="unfit" size={16} /> {plan.beware}</p>{/if}
  {#if plan.findOut}
    <p><strong>To find out first:</strong> {[...new Set(plan.findOut.map((m) => m.label))].join('; ')}.</p>
  {/if}
  {#if plan.warns}
    <details>
      <summary>{plan.warns.length === 1 ? 'One caution' : `${plan.warns.length} cautions`}</summary>
      <ul class="list-disc pl-5">
        {#each plan.warns as w, i (i)}<li>{w}</li>{/each}
      </ul>
    </details>
  {/if}
  {#if plan.steps.length > 0}
    <div class="buttons"><button type="button" class="button" onclick={() => onplan(plan)}>Plan this</button></div>
  {/if}
</article>
