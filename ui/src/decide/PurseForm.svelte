<script lang="ts">
  // What the fleet has to spend, kept with it, and what other currencies are worth.
  import { untrack } from 'svelte';
  import { api, type Failure, type FleetDecision } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';

  interface Props {
    d: FleetDecision;
    onkept: () => void;
  }
  let { d, onkept }: Props = $props();
  let failure = $state.raw<Failure | null>(null);
  const number = (text: string) => (text.trim() === '' ? undefined : Math.max(0, Number(text)));
  // The form begins anew where another purse is read.
  const start = untrack(() => d.purse);
  let now = $state(start.means?.now?.toString() ?? '');
  let month = $state(start.means?.month?.toString() ?? '');
  let currency = $state(start.means?.currency ?? untrack(() => d.currency));
  let rates = $state(start.rates.map((r) => ({ ...r, worth: String(r.worth) })));
  const today = () => new Date().toISOString().slice(0, 10);

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    const answer = await api.spend(d.purse, {
      means: { currency, now: number(now), month: number(month) },
      rates: rates.filter((r) => r.worth.trim() !== '').map((r) => ({ ...r, worth: Number(r.worth) })),
    });
    failure = answer.ok ? null : answer.failure;
    if (answer.ok) onkept();
  }
</script>

<details class="panel px-4 py-2.5" open={d.foreign.length > 0}>
  <summary>What there is to spend, and what currencies are worth</summary>
  <form class="grid gap-2.5 py-2" onsubmit={keep}>
    <div class="flex flex-wrap gap-3">
      <label class="grid gap-0.5"
        >now <input
          type="number"
          min="0"
          step="0.01"
          class="w-32"
          bind:value={() => now, (v) => (now = String(v ?? ''))}
        /></label
      >
      <label class="grid gap-0.5"
        >more each month <input
          type="number"
          min="0"
          step="0.01"
          class="w-32"
          bind:value={() => month, (v) => (month = String(v ?? ''))}
        /></label
      >
      <label class="grid gap-0.5"
        >currency <input
          required
          pattern="[A-Z]{'{3}'}"
          title="three letters, such as EUR"
          class="w-24"
          bind:value={currency}
        /></label
      >
    </div>
    {#each rates as r, i (i)}
      <div class="flex flex-wrap items-end gap-2">
        <label class="grid gap-0.5"
          >one <input
            required
            pattern="[A-Z]{'{3}'}"
            title="three letters, such as GBP"
            class="w-24"
            bind:value={r.currency}
          /></label
        >
        <label class="grid gap-0.5"
          >is worth <input
            required
            type="number"
            min="0.000001"
            step="any"
            class="w-32"
            bind:value={() => r.worth, (v) => (r.worth = String(v ?? ''))}
          /></label
        >
        <label class="grid gap-0.5"
          >of <input
            required
            pattern="[A-Z]{'{3}'}"
            title="three letters, such as EUR"
            class="w-24"
            bind:value={r.in}
          /></label
        >
        <button type="button" class="button" onclick={() => rates.splice(i, 1)}>Leave out</button>
      </div>
    {/each}
    <div class="buttons">
      <button class="button">Keep it</button>
      <button
        type="button"
        class="button"
        onclick={() => rates.push({ currency: '', worth: '', in: currency, seen: today() })}
        >State what another currency is worth</button
      >
    </div>
    {#if failure}<FailureNote {failure} again={() => (failure = null)} />{/if}
  </form>
</details>
