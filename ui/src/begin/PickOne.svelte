<script lang="ts">
  // What is missing of a fit, where it can be picked: each answer is one press. Where it
  // cannot, the children are asked.
  import type { Snippet } from 'svelte';
  import { api, type Failure, type Missing, type Picks } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';

  interface Props {
    quad: string;
    missing: Missing;
    onpicked: (says: string) => void;
    children: Snippet;
  }
  let { quad, missing, onpicked, children }: Props = $props();

  let view = $state.raw<Picks | null>(null);
  let refused = $state.raw<Failure | null>(null);
  $effect(() => {
    void api.picks(quad, missing.field).then((a) => (a.ok ? (view = a.data) : (refused = a.failure)));
  });

  async function pick(option: Picks['picks'][number]) {
    if (!view) return;
    const change = missing.field.startsWith('now.') ? api.note : api.plan;
    const answer = await change(quad, view.revision, option.patch);
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) onpicked(`Noted: ${missing.label}: ${option.label}.`);
  }
</script>

{#if view && view.picks.length > 0}
  <ul class="grid gap-1" aria-label="Answers to pick">
    {#each view.picks as o (o.key)}<li class="grid">
        <button type="button" class="button text-left" onclick={() => pick(o)}
          >{o.label}{#if o.note}
            <small class="soft text-small font-normal ml-2">{o.note}</small>{/if}</button
        >
      </li>{/each}
  </ul>
  <details>
    <summary class="min-h-10 cursor-pointer">Something else</summary>
    {@render children()}
  </details>
{:else if view || refused}
  {@render children()}
{/if}
{#if refused}<FailureNote failure={refused} />{/if}
