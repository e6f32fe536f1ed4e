<script lang="ts">
  // What air units have flown: minutes and crashes, and an outing noted in a few presses.
  import { api, type Failure, type HoursView } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';

  const hours = new Loaded<HoursView>();
  void hours.take(api.hours());
  let quad = $state('');
  let on = $state(new Date().toLocaleDateString('en-CA'));
  let minutes = $state('');
  let crash = $state(false);
  let says = $state('');
  let refused = $state.raw<Failure | null>(null);
  let wrong = $state('');
  let said = $state('');
  const picked = $derived(hours.data?.quads.find((q) => q.id === quad) ?? hours.data?.quads[0]);

  async function note(event: Event) {
    event.preventDefault();
    if (!picked) return;
    [refused, wrong, said] = [null, '', ''];
    const flown = minutes.trim() === '' ? undefined : Number(minutes.replace(',', '.'));
    if (flown !== undefined && !Number.isFinite(flown)) {
      wrong = `“${minutes}” is not a number of minutes.`;
      return;
    }
    const answer = await api.fly(picked.id, { on, crash, says, ...(flown === undefined ? {} : { minutes: flown }) });
    if (!answer.ok) {
      refused = answer.failure;
      return;
    }
    hours.data = answer.data;
    said = `Noted: ${picked.name}, ${on}.`;
    [minutes, crash, says] = ['', false, ''];
  }
  async function looked(of: string, at: number) {
    const answer = await api.lookOver(of, at);
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) hours.data = answer.data;
  }
</script>

<div class="title">
  <h1>Hours and crashes</h1>
  <p class="soft">What each air unit has flown, on whichever quad.</p>
  <span class="flex gap-3 items-center ml-auto"><a href="#/prove">Prove</a><a href="#/log">Log</a></span>
</div>
{#if hours.failure}<FailureNote failure={hours.failure} again={() => hours.take(api.hours())} />{/if}
{#if hours.data}
  {@const v = hours.data}
  {#if v.quads.length > 0}
    <form class="panel grid cols-fill-[145px] gap-3 px-3.5 py-2.5 items-end" aria-label="Note a flight" onsubmit={note}>
      <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0"
        >Quad
        <select value={picked?.id ?? ''} onchange={(e) => (quad = e.currentTarget.value)}>
          {#each v.quads as q (q.id)}<option value={q.id}>{q.name}{q.note ? `, ${q.note}` : ''}</option>{/each}
        </select></label
      >
      <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0"
        >Day <input class="w-full min-w-0" type="date" bind:value={on} /></label
      >
      <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0"
        >Minutes in the air <input
          class="w-full min-w-0"
          inputmode="decimal"
          autocomplete="off"
          bind:value={minutes}
        /></label
      >
      <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0"
        >In words <input class="w-full min-w-0" maxlength="400" bind:value={says} /></label
      >
      <label class="flex gap-2 items-center min-h-11"><input type="checkbox" bind:checked={crash} /> it crashed</label>
      <button class="button main">Note it</button>
    </form>
  {/if}
  {#if wrong}<p class="bad mt-2" role="alert">{wrong}</p>{/if}
  {#if refused}<FailureNote failure={refused} />{/if}
  <p class="good mt-2" role="status">{said}</p>
  {#each v.units as u (u.kit ?? '')}
    <section class="panel mt-3 px-3.5 py-2" aria-label={u.name}>
      <h2>{u.name}</h2>
      <p>
        {u.says}{u.sinceCrash === undefined ? '' : ` Since the last one ${Math.round(u.sinceCrash)} min.`}
        {u.plugs ?? ''}
      </p>
      <ul>
        {#each u.lines as l (`${l.quad} ${l.at}`)}
          <li class="flex flex-wrap gap-x-3 gap-y-1 items-center border-t border-t-line py-1">
            <span class="grow basis-60 min-w-0 wrap-anywhere"
              >{l.on}, <a href={`#/swap/${l.quad}`}>{l.name}</a>, {l.minutes === undefined
                ? 'not timed'
                : `${l.minutes} min`}{#if l.crash}, <b>✕ crash</b>{l.looked ? ', looked over' : ''}{/if}{l.says
                ? `: ${l.says}`
                : ''}</span
            >
            {#if l.crash && !l.looked}<button type="button" class="button" onclick={() => looked(l.quad, l.at)}
                >Looked over<span class="unseen">: {l.name}, {l.on}</span></button
              >{/if}
          </li>
        {/each}
      </ul>
    </section>
  {:else}
    <p class="soft mt-3">Nothing is noted yet. What is noted goes to the unit that was on the quad that day.</p>
  {/each}
{:else if !hours.failure}
  <p class="soft" role="status">Adding up…</p>
{/if}
