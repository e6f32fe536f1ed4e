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

<div
  class="grid bg-unfit-wash border-l-6 border-l-unfit gap-1.5 justify-items-start wrap-anywhere px-4 py-3"
  role="alert"
>
  <h2 class="text-body font-bold text-unfit">{failure.title}</h2>
  <p>{failure.detail}</p>
  {#if failure.wrong.length > 0}
    <ul class="list-disc pl-5">
      {#each failure.wrong as w, i (i)}
        <li>
          {#if w.location}<code class="mono">{w.location}</code>:
          {/if}{w.message}
        </li>
      {/each}
    </ul>
  {/if}
  {#if again}<Button size="sm" onclick={again}>Try again</Button>{/if}
</div>
