<script lang="ts">
  // The end of a swap: what was planned becomes what the quad flies. And its log.
  import { untrack } from 'svelte';
  import { api, type Failure, type Note, type Run } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import LogList from '../lib/LogList.svelte';

  let { run, onfinished }: { run: Run; onfinished: () => void } = $props();
  let revision = $state(0);
  let planned = $state(false);
  let notes = $state.raw<Note[]>([]);
  let asking = $state(false);
  let failure = $state.raw<Failure | null>(null);
  let done = $state('');

  const quad = $derived(run.quad);
  $effect(() => {
    const id = quad;
    untrack(() => void look(id));
  });
  async function look(id: string) {
    const [view, log] = await Promise.all([api.quad(id), api.logOf(id)]);
    if (view.ok) [revision, planned] = [view.data.revision, view.data.planned];
    if (log.ok) notes = log.data;
  }
  const left = $derived(run.states.length - run.done);
  async function finish() {
    if (left > 0 && !asking) {
      asking = true;
      return;
    }
    const answer = await api.finish(quad, revision, left > 0);
    asking = false;
    if (!answer.ok) {
      failure = answer.failure;
      return;
    }
    failure = null;
    done = `Finished: ${run.name} flies as it was planned.`;
    await look(quad);
    onfinished();
  }
</script>

<section class="screen-only mt-3" aria-label="Finish the swap">
  {#if failure}<FailureNote {failure} again={() => look(quad)} />{/if}
  <p role="status">{done}</p>
  {#if planned}
    {#if asking}
      <p class="warn text-unfit font-semibold mb-1.5">
        {left} of {run.states.length} steps are not done. Finish it only if they were done without ticking them here.
      </p>
      <button type="button" class="button mr-3" onclick={finish}>Finish it anyway</button>
      <button type="button" class="button mr-3" onclick={() => (asking = false)}>Not yet</button>
    {:else}
      <button type="button" class="button mr-3" class:main={left === 0} onclick={finish}
        >Finish the swap: it flies like this now</button
      >
      <span class="soft">parts that came out go into the drawer, the readings into the log</span>
    {/if}
  {/if}
  <LogList name={run.name} {notes} />
</section>
