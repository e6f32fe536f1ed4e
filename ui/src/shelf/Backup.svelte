<script lang="ts">
  // All that is kept as one file, and such a file put in the place of all that is kept.
  import { Button } from 'flowbite-svelte';
  import { api, place, type Failure } from '../api/client.svelte';
  import Card from '../lib/Card.svelte';
  import FailureNote from '../lib/FailureNote.svelte';

  let { onreload }: { onreload: () => Promise<void> } = $props();
  let file = $state.raw<File | null>(null);
  let replace = $state(false);
  let busy = $state(false);
  let done = $state('');
  let failure = $state.raw<Failure | null>(null);

  function choose(input: HTMLInputElement) {
    [file, failure, done, replace] = [input.files?.[0] ?? null, null, '', false];
    input.value = '';
  }

  async function restore() {
    if (!file) return;
    busy = true;
    const answer = await api.restore(file, replace);
    busy = false;
    if (!answer.ok) {
      failure = answer.failure;
      return;
    }
    [file, failure] = [null, null];
    done = `Taken in: ${answer.data.rows} rows. What was here before lies as a copy beside the database.`;
    await onreload();
  }
</script>

<Card title="Everything at once">
  <p class="soft">
    The fleet, all gear packs, the bench, kept flight boards and the whole history in one file, to move to another
    machine or to lie in a drawer. It is read again and found whole before it is sent.
  </p>
  <p><a class="underline" href={`${place}/api/backup`} download>Write a backup</a></p>
  <label class="font-semibold" for="backup">Put a backup in the place of all that is here</label>
  <input id="backup" type="file" accept=".jsonl" onchange={(e) => choose(e.currentTarget)} />
  {#if file}
    <p>{file.name}, {Math.ceil(file.size / 1024)} kB</p>
    <label class="font-normal"
      ><input type="checkbox" bind:checked={replace} /> What is here may go; a copy of it is kept</label
    >
    <div class="buttons">
      <Button disabled={busy || !replace} onclick={restore}>{busy ? 'Taking it in…' : 'Take it in'}</Button>
      <Button color="alternative" onclick={() => (file = null)}>Leave it</Button>
    </div>
  {/if}
  {#if failure}<FailureNote {failure} />{/if}
  {#if done}<p role="status">{done}</p>{/if}
</Card>

<style>
  input[type='file'] {
    border: 1px solid var(--soft);
    border-radius: 4px;
    background: var(--raised);
    color: var(--ink);
    min-height: 44px;
    max-width: 100%;
  }
</style>
