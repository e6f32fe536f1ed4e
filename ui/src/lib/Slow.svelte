<script lang="ts">
  // What the program is at while somebody waits for it, what makes it take long, and a way
  // to stop waiting.
  import { Button } from 'flowbite-svelte';
  import { slow, stopWaiting } from '../api/client.svelte';

  const seconds = (n: number) => (n === 1 ? '1 second' : `${n} seconds`);
</script>

{#if slow.seconds > 0 && slow.jobs.length > 0}
  <div
    class="screen-only fixed inset-x-0 bottom-0 z-20 flex flex-wrap items-center gap-x-4 gap-y-1 bg-sheet text-ink border-t-2 border-ink px-5 py-2"
    role="status"
  >
    <div class="grid gap-0.5 flex-1 min-w-60">
      <strong>Still working on it, for {seconds(slow.seconds)}.</strong>
      {#each slow.jobs.slice(0, 3) as job (job.id)}
        <span class="first-letter:uppercase">
          {job.says}{#if job.of > 0}: {Math.floor((100 * job.done) / job.of)} %{/if}{#if job.why}<span class="soft"
              >, over {job.why}</span
            >{/if}
          {#if job.of > 0}<progress
              class="block w-full h-2 accent-accent"
              max={job.of}
              value={job.done}
              aria-label={job.says}
            ></progress>{/if}
        </span>
      {/each}
    </div>
    <Button color="alternative" onclick={stopWaiting}>Stop waiting</Button>
  </div>
{/if}
