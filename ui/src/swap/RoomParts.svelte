<script lang="ts">
  // The parts that have a place or can be given one, in words: where each lies, what comes out of
  // it on which side, and what can be done with it.
  import { api, type MountView, type Patch } from '../api/client.svelte';

  type Block = MountView['room']['blocks'][number];
  interface Props {
    quad: string;
    parts: Block[];
    loose: Block[];
    onpick: (patch: Patch, says: string) => void;
    put: (place: NonNullable<Block['place']>, says: string) => void;
    turn: (b: Block) => void;
  }
  let { quad, parts, loose, onpick, put, turn }: Props = $props();

  let said = $state('');

  async function find(b: Block) {
    const answer = await api.seatFor(quad, b.part!);
    said = answer.ok ? answer.data.says : answer.failure.title;
    if (answer.ok && answer.data.place) put(answer.data.place, `${b.label}: ${answer.data.says}`);
  }
  const onHoles = (b: Block) =>
    !b.snap || (b.snap.xMM === b.place!.xMM && b.snap.yMM === b.place!.yMM && b.snap.quarters === b.place!.quarters);
</script>

<p class="good" aria-live="polite">{said}</p>
<ul>
  {#each [...parts, ...loose] as b (b.part)}
    {@const placed = parts.includes(b)}
    <li class="border-t border-t-line py-1.5 flex flex-wrap justify-between items-center gap-x-4 gap-y-1">
      <span class="wrap-anywhere">
        {#if placed}<b>{b.label}</b>: {b.lies}{#if b.clashes}, <span class="bad">meets another</span>{/if}{:else}<b
            >{b.label}</b
          >: nobody has said where{/if}
        {#if placed && b.openings}
          <span class="block soft text-note">
            {#each b.openings as o, i (i)}{i > 0 ? '; ' : ''}{o.what} on the {o.side}{#if o.before}<span class="bad"
                  >, {o.before} lies before it</span
                >{/if}{/each}
          </span>
        {/if}
      </span>
      <span class="buttons">
        <button type="button" class="button" onclick={() => find(b)} aria-label={`Find a seat for ${b.label}`}
          >Find a seat</button
        >
        {#if placed && !onHoles(b)}
          <button
            type="button"
            class="button"
            onclick={() => put(b.snap!, `Onto its holes: ${b.label}.`)}
            aria-label={`Put ${b.label} onto its holes`}>Onto its holes</button
          >
        {/if}
        {#if placed}
          <button type="button" class="button" onclick={() => turn(b)} aria-label={`Turn ${b.label}`}>Turn</button>
          <button
            type="button"
            class="button"
            onclick={() => onpick({ place: { ...b.place!, out: true } }, `Left open: where ${b.label} lies.`)}
            aria-label={`Leave open where ${b.label} lies`}>Leave open</button
          >
        {/if}
      </span>
    </li>
  {/each}
</ul>
