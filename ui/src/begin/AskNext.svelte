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
    onanswered: () => Promise<void>;
  }
  let { quad, today, revision, onanswered }: Props = $props();

  const report = new Loaded<Ask>();
  const known = new Known();
  let skipped = $state.raw<string[]>([]);
  let said = $state('');

  let current = $state(false); // what is shown is of the quad as it is
  async function load() {
    current = false;
    if (await report.take(api.asks(quad, today))) current = true;
  }
  $effect(() => {
    const [, ,] = [quad, today, revision];
    untrack(() => void load());
  });

  const keyOf = (q: Question) => `${q.of} ${q.id} ${q.field}`;
  const left = (list: readonly Question[] | undefined) => (list ?? []).filter((q) => !skipped.includes(keyOf(q)));
  const deciding = $derived(left(report.data?.next));
  // What decides nothing keeps its gate unknown all the same, until it is stated.
  const open = $derived(deciding.length > 0 ? deciding : left(report.data?.moot));
  const question = $derived(current ? open[0] : undefined);
  let ready = $state.raw<Question | null>(null); // what it is answered with is there
  $effect(() => {
    const asked = question;
    if (asked) void known.about(asked).then(() => (ready = asked));
  });
  const later = $derived((report.data?.later.length ?? 0) + skipped.length);

  async function answered(says: string) {
    said = says;
    current = false;
    const was = revision;
    await onanswered();
    if (revision === was) await load(); // else it follows the quad by itself
  }
</script>

<section class="panel grid gap-2.5 px-5 py-4" aria-labelledby="ask-title">
  <h2 id="ask-title">What would decide most</h2>
  <p class="good" role="status">{said}</p>
  {#if report.failure}<FailureNote failure={report.failure} again={() => load()} />{/if}
  {#if current && report.data && deciding.length === 0 && (report.data.moot.length > 0 || later > 0)}
    <p>
      {later > 0
        ? 'Of the rest there is nothing else to decide now.'
        : 'Settled: of what is still missing, no answer that was tried changes any level.'}
      {#if question}Until it is stated, its gate stays unknown:{/if}
    </p>
  {/if}
  {#if question && ready === question}
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
  {:else if current && report.data && !question}
    {#if report.data.moot.length + later === 0}<p>Nothing is missing that a gate asks for.</p>{/if}
    {#if skipped.length > 0}<p>
        <button type="button" class="button" onclick={() => (skipped = [])}
          >Ask again what I did not know ({skipped.length})</button
        >
      </p>{/if}
  {:else if !report.failure}<p class="soft" role={said ? undefined : 'status'}>Looking for what decides most…</p>{/if}
</section>
