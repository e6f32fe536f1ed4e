<script lang="ts">
  // The places of the next fit. Picking sends the option's own patch.
  import { Select } from 'flowbite-svelte';
  import type { Patch, QuadView } from '../api/client.svelte';

  interface Props {
    places: QuadView['places'];
    board: string;
    folded?: boolean; // a phone shows it on asking
    onpick: (patch: Patch, says: string) => void;
  }
  let { places, board, folded = false, onpick }: Props = $props();

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
      <label for={`pick-${place.name}`}>{place.label}</label>
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
      {#if chosen && words(chosen).length > 26}<p class="whole">{words(chosen)}</p>{/if}
    {/if}
  {/each}
  <p class="soft board">flight board: {board}</p>
{/snippet}

<section class="panel" aria-label="The next fit">
  {#if folded}
    <details>
      <summary><h2>next</h2> {places.find((p) => p.name === 'airUnit')?.options.find((o) => o.chosen)?.label ?? 'as now'}: change the plan</summary>
      {@render picks()}
    </details>
  {:else}
    <h2>next</h2>
    {@render picks()}
  {/if}
</section>

<style>
  section {
    padding: 0.8rem 0.9rem 1rem;
    border: 2px solid var(--accent);
    display: grid;
  }
  h2 {
    color: var(--accent);
    font-weight: 700;
  }
  label {
    color: var(--soft);
    font-size: 0.85rem;
    margin-top: 0.6rem;
  }
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
  summary {
    min-height: 32px;
  }
  summary h2 {
    display: inline;
  }
  details :global(label) {
    display: block;
  }
  .whole {
    font-size: 0.82rem;
    color: var(--soft);
    overflow-wrap: anywhere;
  }
  .board {
    margin-top: 0.8rem;
    font-size: 0.9rem;
  }
</style>
