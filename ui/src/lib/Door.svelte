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

<form class="panel" onsubmit={enter}>
  <h1>Which key?</h1>
  <p>This program can be reached from other machines, so each browser is asked once. The key is eight short words; it stands where the program was started.</p>
  <label for="key">The key <input id="key" type="text" autocomplete="off" autocapitalize="none" spellcheck="false" required bind:value={key} /></label>
  <label for="who">What to call this browser in the history <input id="who" type="text" maxlength="60" placeholder="such as: the phone" bind:value={name} /></label>
  {#if failure}<FailureNote {failure} />{/if}
  <Button type="submit" color="alternative" disabled={busy || key.trim() === ''}>Let me in</Button>
</form>

<style>
  form {
    max-width: 34rem;
    margin: 1rem auto;
    padding: 1rem;
    display: grid;
    gap: 0.7rem;
  }
  label {
    display: grid;
    gap: 0.2rem;
  }
  input {
    min-height: 42px;
    width: 100%;
    color: var(--ink);
    background-color: var(--raised);
    border: 1px solid var(--soft);
    border-radius: 4px;
  }
  input::placeholder {
    color: var(--soft);
    font-style: italic;
  }
</style>
