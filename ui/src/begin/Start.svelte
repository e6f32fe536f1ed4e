<script lang="ts">
  // What brings somebody here: each answer leads on the shortest way to a first verdict.
  import { place } from '../api/client.svelte';

  const ways = [
    {
      says: 'Do these two link, and on which firmware?',
      more: 'An air unit, goggles, what is on them, and what is stated of the pair.',
      to: '#/begin/link',
    },
    {
      says: 'I convert a quad from analog',
      more: 'What is on it today, what goes in, and what that breaks.',
      to: '#/begin/quad/convert',
    },
    {
      says: 'I swap an air unit',
      more: 'Another generation in a quad that flies digital already.',
      to: '#/begin/quad/swap',
    },
    {
      says: 'I bought a quad that has one',
      more: 'What is on it, and whether it goes with what you fly with.',
      to: '#/begin/quad/bought',
    },
    {
      says: 'I only want to keep my fleet',
      more: 'Quads, goggles, spares and their firmware in one place.',
      to: '#/begin/quad/keep',
    },
  ];
</script>

<section class="grid gap-3" aria-labelledby="begin">
  <h1 id="begin">What brings you here?</h1>
  <ul class="grid gap-3 cols-fill-[20rem]">
    {#each ways as w (w.to)}
      <li class="grid">
        <a
          class="panel grid content-start gap-1 px-5 py-4 no-underline text-ink border-l-6 border-l-accent hover:bg-accent-wash"
          href={w.to}
        >
          <strong class="text-part leading-snug">{w.says}</strong>
          <span class="soft">{w.more}</span>
        </a>
      </li>
    {/each}
    <li class="grid">
      {#if place === ''}
        <a
          class="panel grid content-start gap-1 px-5 py-4 no-underline text-ink border-l-6 border-l-line hover:bg-accent-wash"
          href="/demo/"
        >
          <strong class="text-part leading-snug">Look round with the demo</strong>
          <span class="soft">Nine invented quads in a place of their own, never mixed with yours.</span>
        </a>
      {/if}
    </li>
  </ul>
  <p class="soft">
    Somebody gave you files? <a href="#/shelf/files">Take in a gear pack, a fleet file or a backup</a>.
  </p>
</section>
