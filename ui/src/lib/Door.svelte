<script lang="ts">
  // Asked once of each browser where other machines reach the program: the key that it
  // printed at its start.
  import { Button } from 'flowbite-svelte';
  import { api, type Failure } from '../api/client.svelte';
  import FailureNote from './FailureNote.svelte';

  let key = $state('');
  let name = $state('');
  let busy = $state(false);
  let failure = $state.raw<Failure | null>(null);

  async function enter(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    const answer = await api.enter(key, name);
    busy = false;
    if (answer.ok) location.reload();
    else failure = { ...answer.failure, title: answer.failure.status === 401 ? 'Not that one' : answer.failure.title };
  }
</script>

<form class="panel grid max-w-136 gap-3 mx-auto my-4 p-4" onsubmit={enter}>
  <h1>Which key?</h1>
  <p>
    This program can be reached from other machines, so each browser is asked once. The key is eight short words; it
    stands where the program was started.
  </p>
  <label class="grid gap-1" for="key"
    >The key <input
      class="min-h-10.5 w-full text-ink bg-raised border border-soft rounded"
      id="key"
      type="text"
      autocomplete="off"
      autocapitalize="none"
      spellcheck="false"
      required
      bind:value={key}
    /></label
  >
  <label class="grid gap-1" for="who"
    >What to call this browser in the history <input
      class="min-h-10.5 w-full text-ink bg-raised border border-soft rounded"
      id="who"
      type="text"
      maxlength="60"
      placeholder="such as: the phone"
      bind:value={name}
    /></label
  >
  {#if failure}<FailureNote {failure} />{/if}
  <Button type="submit" color="alternative" disabled={busy || key.trim() === ''}>Let me in</Button>
</form>

<style>
  input::placeholder {
    color: var(--soft);
    font-style: italic;
  }
</style>
