<script lang="ts">
  // The places of the next fit. Picking sends the option's own patch.
  import { Select } from 'flowbite-svelte';
  import type { Patch, QuadView } from '../api/client.svelte';

  interface Props {
    places: QuadView['places'];
    board: string;
    onpick: (patch: Patch, says: string) => void;
  }
  let { places, board, onpick }: Props = $props();

  function pick(place: QuadView['places'][number], select: HTMLSelectElement) {
    const option = place.options.find((o) => o.key === select.value);
    if (option && !option.chosen) onpick(option.patch, `Picked ${option.label} as ${place.label}.`);
  }
</script>

<section class="panel" aria-label="The next fit">
  <h2>next</h2>
  {#each places as place (place.name)}
    {@const chosen = place.options.find((o) => o.chosen)}
    {#if place.options.length > 0}
      <label for={`pick-${place.name}`}>{place.label}</label>
      <Select
        id={`pick-${place.name}`}
        size="sm"
        placeholder=""
        value={chosen?.key ?? ''}
        items={place.options.map((o) => ({ value: o.key, name: o.note ? `${o.label} (${o.note})` : o.label }))}
        onchange={(e: Event) => pick(place, e.currentTarget as HTMLSelectElement)}
        class="pick"
      />
    {/if}
  {/each}
  <p class="soft board">flight board: {board}</p>
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
  .board {
    margin-top: 0.8rem;
    font-size: 0.9rem;
  }
</style>
