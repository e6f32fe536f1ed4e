<script lang="ts">
  // The antennas on a piece of kit, a whole set in one press. Where it is not stated how many go
  // on, the children are asked.
  import type { Snippet } from 'svelte';
  import { api, type AntennaPick, type Failure } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';

  interface Props {
    kit: string;
    onpicked: (says: string) => void;
    children: Snippet;
  }
  let { kit, onpicked, children }: Props = $props();

  let picks = $state.raw<AntennaPick[] | null>(null);
  let refused = $state.raw<Failure | null>(null);
  $effect(() => {
    void api.antennaPicks(kit).then((a) => (a.ok ? (picks = a.data) : (refused = a.failure)));
  });
  async function pick(one: AntennaPick) {
    const answer = await api.putAntennas(kit, one.key);
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) onpicked(`${one.label} noted.`);
  }
</script>

{#if picks && picks.length > 0}
  <ul class="grid gap-1" aria-label="Antennas to pick">
    {#each picks as p (p.key)}<li class="grid">
        <button type="button" class="button text-left" onclick={() => pick(p)}
          >{p.label}{#if p.note}
            <small class="soft text-small font-normal ml-2">{p.note}</small>{/if}</button
        >
      </li>{/each}
  </ul>
  <details>
    <summary class="min-h-10 cursor-pointer">Others</summary>
    {@render children()}
  </details>
{:else if picks || refused}
  {@render children()}
{/if}
{#if refused}<FailureNote failure={refused} />{/if}
