<script lang="ts">
  // What of the frame can be left off or cut: its plates and its standoffs.
  import type { MountView, Patch } from '../api/client.svelte';
  import { fixed } from '../lib/words';

  interface Props {
    plates: MountView['room']['plates'];
    standoffs: MountView['room']['standoffs'];
    onpick: (patch: Patch, says: string) => void;
  }
  let { plates, standoffs, onpick }: Props = $props();

  let to = $state('');
  const mm = $derived(Number(to.replace(',', '.')));

  function cut(event: SubmitEvent) {
    event.preventDefault();
    if (mm > 0) onpick({ cut: { mm } }, `The standoffs are cut to ${fixed(mm, 1)} mm.`);
  }
</script>

{#if plates.length > 0}
  <p class="buttons" role="group" aria-label="Plates of the frame">
    {#each plates as p (p.id)}
      <button
        type="button"
        class="button"
        onclick={() =>
          onpick(
            { leaveOff: { plate: p.id, on: p.off } },
            p.off ? `Put on: the ${p.label}.` : `Left off: the ${p.label}.`,
          )}>{p.off ? `Put the ${p.label} on` : `Leave the ${p.label} off`}</button
      >
    {/each}
  </p>
{/if}
{#if standoffs}
  <form class="flex flex-wrap items-center gap-x-3 gap-y-1.5" onsubmit={cut} aria-label="Standoffs of the frame">
    <span>{standoffs.words}.</span>
    <label class="flex items-center gap-1.5"
      >Cut to <input class="field w-20" inputmode="decimal" bind:value={to} /> mm</label
    >
    <button type="submit" class="button" disabled={!(mm > 0)}>Cut them</button>
    {#if standoffs.cut}
      <button type="button" class="button" onclick={() => onpick({ cut: {} }, 'The standoffs stay whole.')}
        >Leave them whole</button
      >
    {/if}
  </form>
{/if}
