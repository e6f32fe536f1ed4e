<script lang="ts">
  // The places of the next fit. Picking sends the option's own patch.
  import { Select } from 'flowbite-svelte';
  import type { Patch, QuadView } from '../api/client.svelte';

  interface Props {
    places: QuadView['places'];
    folded?: boolean; // a phone shows it on asking
    onpick: (patch: Patch, says: string) => void;
  }
  let { places, folded = false, onpick }: Props = $props();

  // A box of fixed width cuts a long name off: it stands below as well.
  const words = (o: QuadView['places'][number]['options'][number]) => (o.note ? `${o.label} (${o.note})` : o.label);

  function pick(place: QuadView['places'][number], select: HTMLSelectElement) {
    const option = place.options.find((o) => o.key === select.value);
    if (option && !option.chosen) onpick(option.patch, `Picked ${option.label} as ${place.label}.`);
  }
</script>

{#snippet picks()}
  {#each places as place (place.name)}
    {@const chosen = place.options.find((o) => o.chosen)}
    {#if place.options.length > 0}
      <label class="text-soft text-small mt-2.5" for={`pick-${place.name}`}>{place.label}</label>
      <Select
        id={`pick-${place.name}`}
        size="sm"
        placeholder=""
        value={chosen?.key ?? ''}
        items={place.options.map((o) => ({ value: o.key, name: words(o) }))}
        onchange={(e: Event) => pick(place, e.currentTarget as HTMLSelectElement)}
        class="pick"
        title={chosen ? words(chosen) : ''}
      />
      {#if chosen && words(chosen).length > 26}<p class="text-small text-soft wrap-anywhere">{words(chosen)}</p>{/if}
    {/if}
  {/each}
{/snippet}

<section class="panel grid border-2 border-accent px-3.5 pt-3 pb-4" aria-label="The next fit">
  {#if folded}
    <details>
      <summary class="min-h-8"
        ><h2 class="inline text-accent font-bold">next</h2>
        {places.find((p) => p.name === 'airUnit')?.options.find((o) => o.chosen)?.label ?? 'as now'}: change the plan</summary
      >
      {@render picks()}
    </details>
  {:else}
    <h2 class="text-accent font-bold">next</h2>
    {@render picks()}
  {/if}
</section>

<style>
  section :global(select) {
    font-size: 1rem;
    font-weight: 600;
    background-color: var(--raised);
    color: var(--ink);
    border-color: var(--line);
    min-height: 42px;
    text-overflow: ellipsis;
    padding-right: 2rem;
  }
  details :global(label) {
    display: block;
  }
</style>
