<script lang="ts">
  // Two candidates in full, what differs marked in words.
  import type { Candidate } from '../api/client.svelte';
  import { levelWords, levelOf } from '../lib/levels';
  import { best, origin, sides } from './sides';

  let { two }: { two: [Candidate, Candidate] } = $props();

  const list = (words: string[]) => words.join(', ') || 'none';
  const rows = $derived(
    [
      { title: 'from', says: origin },
      { title: 'worst gate', says: (c: Candidate) => levelWords[levelOf(c.level)] },
      ...sides.slice(1),
      { title: 'gained', says: (c: Candidate) => list(c.outcome.gained) },
      { title: 'lost', says: (c: Candidate) => list(c.outcome.lost) },
      { title: 'flies with', says: (c: Candidate) => list(c.outcome.goggles) },
      { title: 'never with', says: (c: Candidate) => list(c.outcome.notGoggles) },
      { title: 'not known with', says: (c: Candidate) => list(c.outcome.unsure) },
      { title: 'sticks through', says: (c: Candidate) => list(c.outcome.controllers) },
      {
        title: 'cannot be undone',
        says: (c: Candidate) =>
          c.outcome.oneWay === undefined ? 'not known' : c.outcome.oneWay > 0 ? `${c.outcome.oneWay} steps` : 'nothing',
      },
      { title: 'changes', says: (c: Candidate) => String(best(c)?.steps.length ?? 0) },
    ].map((r) => ({ title: r.title, words: two.map((c) => r.says(c)) })),
  );
  const same = $derived(rows.filter((r) => r.words[0] === r.words[1]).map((r) => r.title));
</script>

<section class="panel grid gap-2 px-4 py-3" aria-labelledby="pair">
  <h2 id="pair">{two[0].label} against {two[1].label}</h2>
  <table class="w-full">
    <thead>
      <tr
        ><th scope="col"><span class="unseen">what</span></th>{#each two as c (c.key)}<th scope="col">{c.label}</th
          >{/each}</tr
      >
    </thead>
    <tbody>
      {#each rows.filter((r) => r.words[0] !== r.words[1]) as r (r.title)}
        <tr
          ><th scope="row">{r.title}</th>{#each r.words as w, i (i)}<td>{w}</td>{/each}</tr
        >
      {/each}
    </tbody>
  </table>
  {#if same.length > 0}<p class="soft">The same in both: {same.join(', ')}.</p>{/if}
</section>

<style>
  th,
  td {
    padding: 4px 12px 4px 0;
    text-align: left;
    vertical-align: top;
    border-top: 1px solid var(--line);
  }
</style>
