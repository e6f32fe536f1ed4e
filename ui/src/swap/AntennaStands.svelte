<script lang="ts">
  // Where each antenna of the unit stands and points, with the way of its lead.
  import { type MountView, type Patch } from '../api/client.svelte';
  import { fixed } from '../lib/words';

  interface Props {
    room: MountView['room'];
    antennas: string[];
    onpick: (patch: Patch, says: string) => void;
  }
  let { room, antennas, onpick }: Props = $props();
  const next = $derived(room.next);
  type Rod = MountView['room']['rods'][number];

  function put(i: number, stand: Rod['stand'], says: string) {
    onpick({ stand: { ...stand, antenna: i + 1 } }, says);
  }
  const steps = [
    ['forward', { xMM: 2 }],
    ['back', { xMM: -2 }],
    ['left', { yMM: 2 }],
    ['right', { yMM: -2 }],
    ['up', { zMM: 2 }],
    ['down', { zMM: -2 }],
    ['turn left', { turnDeg: 5 }],
    ['turn right', { turnDeg: -5 }],
    ['raise', { riseDeg: 5 }],
    ['lower', { riseDeg: -5 }],
  ] as const;
  function moved(r: Rod, by: Partial<Rod['stand']>): Rod['stand'] {
    const to = { ...r.stand };
    for (const [key, n] of Object.entries(by) as [keyof Rod['stand'], number][]) to[key] += n;
    to.riseDeg = Math.max(-90, Math.min(90, to.riseDeg));
    to.turnDeg = ((to.turnDeg + 540) % 360) - 180;
    return to;
  }
</script>

{#if antennas.length > 0}
  <section class="panel grid gap-2 px-4 py-3" aria-labelledby="stands">
    <h3 id="stands">How the antennas stand</h3>
    <ul>
      {#each room.rods as r, i (i)}
        <li class="border-t border-t-line py-2 grid gap-1.5">
          <span class="wrap-anywhere">
            <b>{i + 1}. {r.label}</b>: {r.lies}{#if r.clashes}, <span class="bad">meets another</span>{/if}.
            {#if r.lead}
              Its lead wants {fixed(r.lead.needMM, 0)} mm{r.lead.hasMM === undefined
                ? ''
                : ` of ${fixed(r.lead.hasMM, 0)}`}, bent around {fixed(r.lead.radiusMM, 1)} mm.
            {/if}
          </span>
          <span class="buttons" role="group" aria-label={`Move antenna ${i + 1}`}>
            {#each steps as [word, by] (word)}
              <button
                type="button"
                class="button"
                onclick={() => put(i, moved(r, by), `Antenna ${i + 1}: ${word}.`)}
                aria-label={`${word}: antenna ${i + 1}`}>{word}</button
              >
            {/each}
          </span>
        </li>
      {:else}
        <li class="soft">Nobody has said where they stand: their angle and distance are as written down.</li>
      {/each}
    </ul>
    <p class="buttons">
      {#if next}
        <button
          type="button"
          class="button"
          onclick={() => onpick({ stand: next }, `Antenna ${next.antenna} stands at the tail.`)}
          >Stand antenna {next.antenna} at the tail</button
        >
      {/if}
      {#if room.rods.length > 0}
        <button
          type="button"
          class="button"
          onclick={() =>
            onpick(
              { stand: { ...room.rods[0]!.stand, antenna: 1, out: true } },
              'Left open: where the antennas stand.',
            )}>Leave open where they stand</button
        >
      {/if}
    </p>
  </section>
{/if}
