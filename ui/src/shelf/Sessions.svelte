<script lang="ts">
  // Who was let in from other machines; nothing is shown where nobody was.
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { api, type Failure, type Session } from '../api/client.svelte';
  import Card from '../lib/Card.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { moment } from '../lib/words';

  let list = $state.raw<Session[]>([]);
  let failure = $state.raw<Failure | null>(null);

  async function look() {
    const answer = await api.sessions();
    if (answer.ok) list = answer.data;
    else failure = answer.failure;
  }
  onMount(look);

  async function end(id: number) {
    const answer = await api.endSession(id);
    failure = answer.ok ? null : answer.failure;
    if (answer.ok) await look();
  }
</script>

{#if list.length > 0 || failure}
  <Card title="Who was let in">
    <p class="soft">Browsers that knew the key. One that is let in no longer is asked for it again.</p>
    {#if failure}<FailureNote {failure} />{/if}
    <ul class="grid gap-1.5">
      {#each list as s (s.id)}
        <li class="flex flex-wrap justify-between gap-1.5 wrap-anywhere">
          <span><strong>{s.name}</strong> <span class="soft">since {moment(s.at)}</span></span>
          <Button size="xs" color="alternative" onclick={() => end(s.id)} aria-label={`Let ${s.name} in no longer`}
            >Let in no longer</Button
          >
        </li>
      {/each}
    </ul>
  </Card>
{/if}
