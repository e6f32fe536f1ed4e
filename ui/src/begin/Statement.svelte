<script lang="ts">
  // What is stated of a pair, entered where it is asked for.
  import { api, type Failure } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import Releases from './Releases.svelte';
  import WhoSays from './WhoSays.svelte';

  let { quad, onsaid }: { quad: string; onsaid: () => void } = $props();

  let unit = $state('');
  let goggles = $state('');
  let from = $state('');
  let refused = $state.raw<Failure | null>(null);

  let sticks = $state.raw<{ id: string; name: string } | null>(null); // that are to go through the unit
  let through = $state(false);
  $effect(() => {
    void api.pair(quad).then((a) => a.ok && (sticks = a.data.controller ?? null));
  });

  async function note(says: 'within' | 'any' | 'never', with_ = through) {
    const within = says === 'within';
    const answer = await api.state(quad, {
      says,
      unit: within ? unit : '',
      goggles: within ? goggles : '',
      from,
      ...(with_ && sticks ? { through: sticks.id } : {}),
    });
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) onsaid();
  }
</script>

<form
  class="grid gap-2"
  onsubmit={(e) => {
    e.preventDefault();
    void note('within');
  }}
>
  <WhoSays bind:from />
  <p class="buttons">
    <button type="button" class="button" onclick={() => note('any')}>They link on any release</button>
    {#if sticks}<button type="button" class="button" onclick={() => note('any', true)}
        >On any release, {sticks.name} through it</button
      >{/if}
    <button type="button" class="button" onclick={() => note('never')}>They never link</button>
  </p>
  <Releases bind:unit bind:goggles />
  {#if sticks}<label class="flex gap-2 items-center min-h-8"
      ><input type="checkbox" bind:checked={through} />{sticks.name} goes through the air unit on these</label
    >{/if}
  {#if refused}<FailureNote failure={refused} />{/if}
  <p><button class="button main">They link on these</button></p>
</form>
