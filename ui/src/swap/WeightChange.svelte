<script lang="ts">
  // What comes and leaves in grams, and what the scale said.
  import type { MountView } from '../api/client.svelte';
  import { fixed, signed } from '../lib/words';

  let { weight }: { weight: MountView['weight'] } = $props();
  const grams = (g: number) => `${signed(g, 1)} g`;
</script>

{#if weight.parts.length > 0}
  <section class="panel px-3.5 py-2.5" aria-labelledby="weight">
    <h3 id="weight">
      {#if weight.changeG !== undefined}{grams(weight.changeG)}{weight.offG
          ? ` (give or take ${fixed(weight.offG, 1)} g)`
          : ''}{weight.afterG === undefined
          ? ''
          : `: ${weight.beforeG} g becomes ${fixed(weight.afterG, 0)} g`}{weight.flightTime === undefined
          ? ''
          : `, hover time ${weight.hoverMinNow === undefined || weight.hoverMinNext === undefined ? `about ${fixed(weight.flightTime, 2)} of today's` : `about ${fixed(weight.hoverMinNow, 1)} min now, ${fixed(weight.hoverMinNext, 1)} min then`}`}{:else}Weight
        not known: {weight.unknown.join(', ')}{/if}
    </h3>
    <ul class="my-1">
      {#each weight.parts as p, i (i)}<li>
          {p.comes ? 'in' : 'out'}: {p.label}
          <span class="mono"
            >{p.massG === undefined ? '? g' : `${fixed(p.massG, 1)} g`}{p.offG ? ` ± ${fixed(p.offG, 1)}` : ''}</span
          >{#if p.rests}<span class="soft">, {p.rests === 'its sheet' ? 'by its sheet' : p.rests}</span>{/if}
        </li>{/each}
    </ul>
    {#if weight.measuredG !== undefined}<p>
        <b>Measured: {weight.measuredG} g</b>{weight.errorG === undefined
          ? ''
          : `, ${grams(weight.errorG)} against what was added up`}.
      </p>{/if}
    {#if weight.sister}<p>
        {grams(weight.sister.moreG)} against {weight.sister.label} on the same frame, {fixed(weight.sister.auwG, 0)} g.
      </p>{/if}
    {#if weight.class}<p><b>{weight.class}</b></p>{/if}
    {#if weight.guessedG}<p>
        {fixed(weight.guessedG, 1)} g of it are guessed: put those parts on a scale before you count on a gram.
      </p>{/if}
    {#if weight.leftOut.length > 0}<p class="soft">Not counted: {weight.leftOut.join(', ')}.</p>{/if}
    <p class="soft">
      Weigh it before and after in the same configuration: what the scale says goes before what is added up.
    </p>
  </section>
{/if}
