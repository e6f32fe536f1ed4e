<script lang="ts">
  // What cannot be had: the facts that exclude each other, and the ways out
  // that were tried.
  import { Button } from 'flowbite-svelte';
  import { api, type Failure, type RouteConflict, type RouteView } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';

  let { links, whole }: { links: RouteView['plan']['links']; whole: number } = $props();
  const failed = $derived(links.map((l, want) => ({ ...l, want })).filter((l) => !l.met));
  const changed = $derived(links.filter((l) => l.met && (l.lost.length > 0 || l.gained.length > 0)));

  // The plan explains the first ones; the others are asked for.
  let asked = $state.raw<{ whole: number; of: Record<number, RouteConflict> }>({ whole: 0, of: {} });
  let failure = $state.raw<Failure | null>(null);
  const conflictOf = (l: (typeof failed)[number]) =>
    l.conflict ?? (asked.whole === whole ? asked.of[l.want] : undefined);
  async function ask(want: number) {
    const answer = await api.routeWhy(want, whole);
    failure = answer.ok ? null : answer.failure;
    if (answer.ok) asked = { whole, of: { ...(asked.whole === whole ? asked.of : {}), [want]: answer.data } };
  }
</script>

<section class="panel grid gap-1.5 wrap-anywhere px-3.5 py-3" aria-labelledby="refusals">
  <h2 id="refusals">{failed.length === 0 ? 'Everything wanted works' : `${failed.length} cannot be had`}</h2>
  {#if failure}<FailureNote {failure} />{/if}
  {#each failed as l, i (l.quad + l.goggles)}
    {@const conflict = conflictOf(l)}
    <details class="border-l-5 border-l-unfit text-note pl-3" open={i === 0}>
      <summary class="cursor-pointer min-h-7.5 px-0 py-0.5"
        ><b>{l.quadName} with {l.gogglesName}</b> <span class="soft">{l.weight}</span></summary
      >
      <p>{l.says}.</p>
      {#if !conflict}
        <Button size="xs" color="alternative" onclick={() => ask(l.want)}>Ask why not, and what would help</Button>
      {:else}
        {#if conflict.facts.length > 0}
          <p class="soft">{conflict.facts.length > 1 ? 'These exclude each other:' : 'It would need:'}</p>
          <ul class="list-disc mb-1 pl-4.5">
            {#each conflict.facts as f, i (i)}<li>{f}</li>{/each}
          </ul>
        {/if}
        {#if conflict.ways.length > 0}
          <p class="soft">Tried, and would resolve it:</p>
          <ul class="list-disc mb-1 pl-4.5">
            {#each conflict.ways as w, i (i)}<li>
                {w.says}{#if w.costs}<span class="soft">, {w.costs}</span>{/if}
              </li>{/each}
          </ul>
        {:else}
          <p class="soft">Nothing that was tried resolves it.</p>
        {/if}
      {/if}
    </details>
  {/each}
  {#if changed.length > 0}
    <h2>What changes on the way</h2>
    <ul class="plain list-disc mb-1 pl-4.5">
      {#each changed as l (l.quad + l.goggles)}
        <li>
          <b>{l.quadName}</b> with {l.gogglesName}: {l.gained.length > 0 ? `gains ${l.gained.join(', ')}` : ''}{l.gained
            .length > 0 && l.lost.length > 0
            ? '; '
            : ''}{l.lost.length > 0 ? `loses ${l.lost.join(', ')}` : ''}
        </li>
      {/each}
    </ul>
  {/if}
</section>
