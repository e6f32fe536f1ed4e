<script lang="ts">
  // One question at a time: what decides most, answered where it is asked, until nothing
  // that is missing matters.
  import { untrack } from 'svelte';
  import { api, type Ask, type Question } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import Answer from './Answer.svelte';
  import { Known } from './known.svelte';

  interface Props {
    quad: string;
    today: boolean;
    revision: number; // of the quad: what is asked follows it
    onanswered: () => void;
  }
  let { quad, today, revision, onanswered }: Props = $props();

  const report = new Loaded<Ask>();
  const known = new Known();
  let skipped = $state.raw<string[]>([]);
  let said = $state('');

  async function load() {
    await Promise.all([known.load(), report.take(api.asks(quad, today))]);
  }
  $effect(() => {
    const [, ,] = [quad, today, revision];
    untrack(() => void load());
  });

  const keyOf = (q: Question) => `${q.of} ${q.id} ${q.field}`;
  const open = $derived((report.data?.next ?? []).filter((q) => !skipped.includes(keyOf(q))));
  const question = $derived(open[0]);
  const later = $derived((report.data?.later.length ?? 0) + skipped.length);

  async function answered(says: string) {
    said = says;
    onanswered();
    await load();
  }
</script>

<section class="panel grid gap-2.5 px-5 py-4" aria-labelledby="ask-title">
  <h2 id="ask-title">What would decide most</h2>
  <p class="good" role="status">{said}</p>
  {#if report.failure}<FailureNote failure={report.failure} again={() => load()} />{/if}
  {#if question}
    {#key keyOf(question)}
      <p class="font-semibold first-letter:uppercase wrap-anywhere">{question.label}?</p>
      <p class="soft text-note">
        {#each question.gates as gate, i (gate)}{i > 0 ? ', ' : ''}<a href={`#/swap/${quad}/${gate}`}>{gate}</a>{/each}
        {question.gates.length === 1 ? 'waits' : 'wait'} for it{#if open.length > 1}; {open.length - 1} more after it{/if}
      </p>
      <Answer {quad} {today} missing={question} {known} onanswered={answered} />
      <p>
        <button type="button" class="button" onclick={() => (skipped = [...skipped, keyOf(question)])}
          >I don't know: ask the next</button
        >
      </p>
    {/key}
  {:else if report.data}
    <p>
      {report.data.moot.length + later === 0
        ? 'Nothing is missing that a gate asks for.'
        : later > 0
          ? 'There is nothing else to ask now.'
          : 'Settled: of what is still missing, no answer that was tried changes any level.'}
    </p>
    {#if skipped.length > 0}<p>
        <button type="button" class="button" onclick={() => (skipped = [])}
          >Ask again what I did not know ({skipped.length})</button
        >
      </p>{/if}
  {:else if !report.failure}<p class="soft" role="status">Looking for what decides most…</p>{/if}
</section>
