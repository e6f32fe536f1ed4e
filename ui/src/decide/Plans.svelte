<script lang="ts">
  // What a search for whole plans found: plans, plans that hang on what nobody has stated, and
  // what forbids one.
  import type { Snippet } from 'svelte';
  import type { WholeFound, WholePlan } from '../api/client.svelte';
  import PlanCard from './PlanCard.svelte';

  interface Props {
    found: WholeFound;
    onplan: (plan: WholePlan) => void;
    folded?: boolean; // all but the first
    more?: Snippet; // plans of another kind
  }
  let { found, onplan, folded = false, more }: Props = $props();

  const list = $derived([
    ...found.plans.map((plan, i) => ({ plan, name: i === 0 ? 'The best plan' : `Another way, ${i + 1}` })),
    ...found.hanging.map((plan, i) => ({ plan, name: `Hangs on what is not known, ${i + 1}` })),
  ]);
  const first = $derived(folded ? list.slice(0, 1) : list);
  const others = $derived(list.slice(first.length));
</script>

<div class="grid gap-2.5">
  {#each first as one (one.name)}<PlanCard plan={one.plan} name={one.name} {onplan} />{/each}
  {#if others.length > 0}
    <details>
      <summary class="font-bold min-h-10 cursor-pointer"
        >{others.length === 1 ? 'One other way' : `${others.length} other ways`}</summary
      >
      <div class="grid gap-2.5">
        {#each others as one (one.name)}<PlanCard plan={one.plan} name={one.name} {onplan} />{/each}
      </div>
    </details>
  {/if}
  {@render more?.()}
  {#each found.forbids ?? [] as f (f.gate)}
    <div>
      <h3>What forbids it: the {f.title} gate</h3>
      <ul class="list-disc pl-5">
        {#each f.findings as finding, i (i)}<li>{finding.says}</li>{/each}
      </ul>
    </div>
  {/each}
  <p class="soft text-note">
    {found.tried} fits tried{found.all ? ', and no other could matter' : '; not all that could matter'}.
  </p>
</div>
