<script lang="ts">
  // All that was changed, as sentences; each can be taken back, and taking back too.
  import { api, type ChangeList, type Failure } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import { moment } from '../lib/words';

  let { ontaken }: { ontaken?: () => void } = $props();

  const page = new Loaded<ChangeList>();
  let older = $state.raw<ChangeList['changes']>([]);
  let before = $state(0);
  let refused = $state.raw<Failure | null>(null);
  let said = $state('');

  async function load() {
    if (await page.take(api.changes())) {
      older = [];
      before = page.data?.before ?? 0;
    }
  }
  void load();
  const list = $derived([...(page.data?.changes ?? []), ...older]);

  async function more() {
    const answer = await api.changes(before);
    refused = answer.ok ? null : answer.failure;
    if (!answer.ok) return;
    older = [...older, ...answer.data.changes];
    before = answer.data.before ?? 0;
  }
  async function takeBack(id: number, says: string) {
    const answer = await api.undo(id);
    refused = answer.ok ? null : answer.failure;
    said = answer.ok ? `Taken back: ${says}.` : '';
    if (!answer.ok) return;
    ontaken?.();
    await load();
  }
</script>

<h2 class="mb-2">What was changed</h2>
<p class="good mb-2" role="status">{said}</p>
{#if refused}<FailureNote failure={refused} />{/if}
{#if page.failure}<FailureNote failure={page.failure} again={load} />{/if}
{#if page.data && list.length === 0}<p class="soft">Nothing was changed yet.</p>{/if}
<ol class="grid gap-2">
  {#each list as c (c.id)}
    <li class="panel flex flex-wrap items-start gap-x-4 gap-y-1 px-4 py-2.5">
      <span class="grow basis-80 min-w-0 wrap-anywhere">
        <span class="font-semibold first-letter:uppercase inline-block">{c.says}</span>
        <span class="block soft text-note">{moment(c.at)}, {c.who}</span>
        {#if c.details.length > 0}
          <details open={c.details.length === 1}>
            <summary class="text-note cursor-pointer min-h-8"
              >{c.details.length === 1 ? 'one value' : `${c.details.length} values`}</summary
            >
            <ul class="mono text-small">
              {#each c.details as d, i (i)}<li>{d}</li>{/each}
            </ul>
          </details>
        {/if}
      </span>
      <button type="button" class="button" aria-label={`Take back: ${c.says}`} onclick={() => takeBack(c.id, c.says)}
        >Take it back</button
      >
    </li>
  {/each}
</ol>
{#if before > 0}<p class="mt-3"><button type="button" class="button" onclick={more}>Older ones</button></p>{/if}
