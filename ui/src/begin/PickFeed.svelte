<script lang="ts">
  // What feeds the air unit: the same choices as on the quad's gates.
  import { api, type Failure, type QuadView } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';

  let { quad, onpicked }: { quad: string; onpicked: () => void } = $props();

  let view = $state.raw<QuadView | null>(null);
  let refused = $state.raw<Failure | null>(null);
  const most = 12;
  const options = $derived(
    (view?.places.find((p) => p.name === 'feed')?.options ?? []).filter((o) => o.key !== '').slice(0, most),
  );
  $effect(() => {
    void api.quad(quad).then((a) => (a.ok ? (view = a.data) : (refused = a.failure)));
  });

  async function pick(at: number) {
    const option = options[at];
    if (!view || !option) return;
    const answer = await api.plan(quad, view.revision, option.patch);
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) onpicked();
  }
</script>

<ul class="grid gap-1">
  {#each options as o, i (o.key)}<li class="grid">
      <button type="button" class="button text-left" onclick={() => pick(i)}
        >{o.label}{#if o.note}
          <small class="soft text-small font-normal">{o.note}</small>{/if}</button
      >
    </li>{/each}
</ul>
{#if refused}<FailureNote failure={refused} />{/if}
