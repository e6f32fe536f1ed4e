<script lang="ts">
  // What is still to be done: noted by hand, stop-gaps with what they wait for, and what a gate
  // asks to be looked at again.
  import { untrack } from 'svelte';
  import { api, place, type Failure, type TasksView } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';

  const view = new Loaded<TasksView>();
  let refused = $state.raw<Failure | null>(null);
  let said = $state('');
  const load = () => view.take(api.tasks());
  $effect(() => untrack(() => void load()));
  async function done(task: string, is: boolean, says: string) {
    const answer = await api.taskDone(task, is);
    refused = answer.ok ? null : answer.failure;
    if (!answer.ok) return;
    view.data = answer.data;
    said = is ? `Done: ${says}` : `Open again: ${says}`;
  }
</script>

<div class="title">
  <h1>Still to be done</h1>
  <span class="flex gap-3 items-center ml-auto"
    ><a href="#/prove">Prove</a><a href={`${place}/api/tasks.ics`} download>Calendar (iCalendar)</a><a
      href="#/shelf/add/task">Note something</a
    ></span
  >
</div>
{#if refused}<FailureNote failure={refused} />{/if}
<p class="good" role="status">{said}</p>
{#if view.failure}
  <FailureNote failure={view.failure} again={load} />
{:else if !view.data}
  <p class="soft" role="status">Looking what is open…</p>
{:else}
  {@const v = view.data}
  {#if v.open.length === 0}<p class="soft">Nothing is open.</p>{/if}
  <ul class="grid gap-2">
    {#each v.open as t (t.key)}
      <li class="panel flex flex-wrap gap-x-4 gap-y-1.5 items-center px-3.5 py-2.5">
        <span class="grow basis-80 min-w-0 wrap-anywhere">
          <b class="first-letter:uppercase inline-block">{t.says}</b>
          <span class="soft text-note block"
            >{#if t.quad}<a href={`#/swap/${t.quad}${t.gate ? `/${t.gate}` : ''}`}>{t.name}</a>{/if}{t.gate
              ? `${t.quad ? ', ' : ''}${t.gate} gate`
              : ''}{t.after ? `, after ${t.after}` : ''}</span
          >
        </span>
        <span class={t.late ? 'text-unfit font-bold' : 'soft'}
          >{t.due ? (t.late ? `late, due ${t.due}` : `due ${t.due}`) : 'no day'}</span
        >
        {#if t.task}{@const task = t.task}
          <a href={`#/shelf/edit/task/${task}`} aria-label={`Change: ${t.says}`}>Change</a>
          <button
            type="button"
            class="button main"
            aria-label={`Done: ${t.says}`}
            onclick={() => done(task, true, t.says)}>Done</button
          >
        {:else}<span class="soft text-note">goes when it is so no longer</span>{/if}
      </li>
    {/each}
  </ul>
  {#if v.done.length > 0}
    <details class="panel px-3.5 py-2.5 mt-3">
      <summary class="font-bold min-h-8 cursor-pointer">Done</summary>
      <ul class="grid gap-1.5">
        {#each v.done as t (t.id)}<li class="flex flex-wrap gap-3 items-center">
            <span class="grow">{t.says} <span class="soft">{t.on}</span></span>
            <button
              type="button"
              class="button"
              aria-label={`Open again: ${t.says}`}
              onclick={() => done(t.id, false, t.says)}>Open again</button
            >
          </li>{/each}
      </ul>
    </details>
  {/if}
{/if}
