<script lang="ts">
  // The way back: first what does not open again, then the steps.
  import { onMount } from 'svelte';
  import { api, type BackView } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import Timeline from './Timeline.svelte';

  const back = new Loaded<BackView>();
  onMount(() => void back.take(api.wayBack()));
</script>

{#if back.failure}
  <FailureNote failure={back.failure} again={() => back.take(api.wayBack())} />
{:else if back.data}
  {@const b = back.data.back}
  <h1 class="sentence" aria-live="polite">{b.says}</h1>
  <p class="soft">
    {#if back.data.began}Steps of the route have been carried out: this leads from here to where the devices stood
      before. <a href="#/walk/back">Walk it on the bench</a>
    {:else}Nothing has been carried out yet: this is how it would go from the end of the route. <a href="#/rehearse"
        >Rehearse it on stand-ins</a
      >{/if}
  </p>
  {#if b.doors.length > 0}
    <section class="border-3 border-double border-unfit bg-unfit-wash mx-0 my-3 px-3.5 py-2.5" aria-labelledby="doors">
      <h2 class="mb-1" id="doors">Doors that do not open again</h2>
      <ul class="list-disc font-semibold pl-5">
        {#each b.doors as d, at (at)}<li>{d}</li>{/each}
      </ul>
    </section>
  {/if}
  {#if b.steps.length > 0}
    <h2 class="mb-1">The steps, and who can fly after each</h2>
    <Timeline steps={b.steps} lanes={b.lanes} begins={back.data.began ? 'now' : 'after the route'} />
  {/if}
{:else}
  <p class="soft" role="status">Looking for the way back…</p>
{/if}
