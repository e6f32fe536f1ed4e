<script lang="ts">
  // What went wrong, where, and what to do. Data on screen stays beside it.
  import { Button } from 'flowbite-svelte';
  import type { Failure } from '../api/client.svelte';

  interface Props {
    failure: Failure;
    again?: () => void;
  }
  let { failure, again }: Props = $props();
</script>

<div class="note" role="alert">
  <h2>{failure.title}</h2>
  <p>{failure.detail}</p>
  {#if failure.wrong.length > 0}
    <ul>
      {#each failure.wrong as w, i (i)}
        <li>{#if w.location}<code class="mono">{w.location}</code>: {/if}{w.message}</li>
      {/each}
    </ul>
  {/if}
  {#if again}<Button size="sm" onclick={again}>Try again</Button>{/if}
</div>

<style>
  .note {
    background: var(--unfit-wash);
    border-left: 6px solid var(--unfit);
    padding: 0.75rem 1rem;
    display: grid;
    gap: 0.4rem;
    justify-items: start;
    overflow-wrap: anywhere;
  }
  h2 {
    font-size: 1.05rem;
    font-weight: 700;
    color: var(--unfit);
  }
  ul {
    margin: 0;
    padding-left: 1.2rem;
    list-style: disc;
  }
</style>
