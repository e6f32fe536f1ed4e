<script lang="ts">
  // What is stated of a pair, entered where it is asked for.
  import { api, type Failure } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import Releases from './Releases.svelte';
  import WhoSays from './WhoSays.svelte';

  let { quad, onsaid }: { quad: string; onsaid: () => void } = $props();

  const ways = [
    { value: 'within', word: 'they link on some releases' },
    { value: 'any', word: 'they link on any release' },
    { value: 'never', word: 'they never link' },
  ] as const;
  let says: 'within' | 'any' | 'never' = $state('within');
  let unit = $state('');
  let goggles = $state('');
  let from = $state('');
  let refused = $state.raw<Failure | null>(null);

  async function note(event: SubmitEvent) {
    event.preventDefault();
    const within = says === 'within';
    const answer = await api.state(quad, { says, unit: within ? unit : '', goggles: within ? goggles : '', from });
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) onsaid();
  }
</script>

<form class="grid gap-2" onsubmit={note}>
  <fieldset class="grid gap-1">
    <legend class="unseen">What is stated</legend>
    {#each ways as w (w.value)}
      <label class="flex gap-2 items-center min-h-8"
        ><input type="radio" name="stated" value={w.value} bind:group={says} />{w.word}</label
      >
    {/each}
  </fieldset>
  {#if says === 'within'}
    <Releases bind:unit bind:goggles />
  {/if}
  <WhoSays bind:from />
  {#if refused}<FailureNote failure={refused} />{/if}
  <p><button class="button main">Note it</button></p>
</form>
