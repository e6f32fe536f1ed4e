<script lang="ts">
  // What can go into one place: what is yours, what the trade shelf has, or something new.
  import { api, type Failure, type SheetFound, type Slot, type Take } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { takeable, withRead, type Entry } from '../shelf/entry';
  import { copyNamed } from '../shelf/sheet';
  import SheetReader from '../shelf/SheetReader.svelte';

  interface Props {
    slot: Slot;
    today: boolean;
    all: string; // where all places are
    onfill: (take: Take, stay?: boolean) => Promise<boolean>; // stay: there are values to come
    onread: () => Promise<void>; // its model knows more
    onnext: () => void;
    more: boolean; // places to fill after this one
  }
  let { slot, today, all, onfill, onread, onnext, more }: Props = $props();

  let typed = $state(''); // its name, by hand
  let heading = $state(''); // off its sheet
  const name = $derived(typed.trim() === '' ? heading : typed);
  let like = $state('');
  let mine = $derived(today || slot.name !== 'airUnit');
  let find = $state('');
  let read = $state.raw<SheetFound[]>([]); // off the sheet of what is new
  const taken = $derived(takeable({}, read).length);
  let busy = $state(false);
  const groups = $derived([
    { title: 'What you have', list: slot.choices.filter((c) => c.group === 'yours') },
    { title: 'From the trade shelf', list: slot.choices.filter((c) => c.group === 'shelf') },
  ]);
  const models = $derived(slot.choices.filter((c) => c.key.startsWith('model:')));
  const found = (label: string) => label.toLowerCase().includes(find.trim().toLowerCase());

  let said = $state('');
  let refused = $state.raw<Failure | null>(null);

  /** Values read off a sheet go into the model at once. */
  async function takeRead(found: SheetFound[]) {
    const shelf = await api.shelf({ find: slot.model });
    const there = shelf.ok ? shelf.data.entries.find((e) => e.id === slot.model && e.set !== undefined) : undefined;
    if (!there) return;
    found = takeable(there.entry as Entry, found);
    if (found.length === 0) return;
    const answer = await api.save(there.kind, there.id, there.revision, withRead(there.entry as Entry, found));
    refused = answer.ok ? null : answer.failure;
    said = answer.ok
      ? `${found.length === 1 ? 'One value is' : `${found.length} values are`} noted, with the words as their source.`
      : '';
    if (answer.ok) await onread();
  }
  async function add(event: SubmitEvent) {
    event.preventDefault();
    if (busy) return;
    busy = true;
    const values = takeable({}, read);
    refused = await copyNamed(values);
    if (!refused && (await onfill({ name, like: like || undefined, mine: slot.device && mine }, values.length > 0))) {
      if (values.length > 0) await takeRead(values);
      if (values.length > 0 && !refused) onnext();
    }
    busy = false;
  }
</script>

<section class="panel grid gap-3 px-5 py-4" aria-labelledby="slot-title">
  <div class="flex flex-wrap justify-between items-baseline gap-3">
    <h2 id="slot-title" class="first-letter:uppercase">{slot.title}</h2>
    <a href={all}>All places</a>
  </div>
  {#if slot.holds}
    <p>In it: <strong>{slot.holds}</strong></p>
    {#if slot.asks.length > 0}
      <details>
        <summary class="min-h-8 cursor-pointer"
          >{slot.asks.length === 1 ? 'One value is asked of it' : `${slot.asks.length} values are asked of it`}</summary
        >
        <ul class="list-disc pl-5">
          {#each slot.asks as one (one)}<li>{one}</li>{/each}
        </ul>
      </details>
    {:else}<p class="soft">No gate asks more of it.</p>{/if}
    <p class="buttons">
      {#if slot.model}<a class="button inline-flex items-center" href={`#/shelf/edit/gear/${slot.model}`}
          >All its values</a
        >{/if}
      {#if slot.kit}<a class="button inline-flex items-center" href={`#/shelf/edit/kit/${slot.kit}`}>What is on it</a
        >{/if}
      <button type="button" class="button" onclick={() => onfill({ mine: false })}>Take it out</button>
    </p>
    {#if slot.model}
      <details>
        <summary class="font-bold min-h-10 cursor-pointer">Read it off a sheet</summary>
        <SheetReader kind={slot.kind} ontake={takeRead} />
        <p class="good" role="status">{said}</p>
      </details>
    {/if}
  {/if}
  <form class="grid gap-2" onsubmit={add}>
    <label class="grid gap-0.5"
      >Something new, by its name<input
        required={heading === ''}
        maxlength="200"
        placeholder={heading}
        bind:value={typed}
      /></label
    >
    {#if models.length > 0}
      <label class="grid gap-0.5"
        >like
        <select bind:value={like}>
          <option value="">nothing that is there</option>
          {#each models as m (m.key)}<option value={m.key.slice('model:'.length)}>{m.label}</option>{/each}
        </select>
      </label>
    {/if}
    <SheetReader kind={slot.kind} label="its sheet, if you have it" bind:picked={read} bind:heading />
    {#if heading !== '' && typed.trim() === ''}<p class="soft text-note">Its sheet calls it “{heading}”.</p>{/if}
    {#if slot.device}<label class="flex gap-2 items-center min-h-8"
        ><input type="checkbox" bind:checked={mine} />I have it</label
      >{/if}
    <p class="buttons">
      <button class="button main" disabled={busy}
        >Put it in{taken > 0 ? ` with ${taken === 1 ? 'one value' : `${taken} values`}` : ''}</button
      >
      {#if more && slot.open}<button type="button" class="button" onclick={onnext}>Leave it open</button>{/if}
    </p>
    {#if refused}<FailureNote failure={refused} />{/if}
  </form>
  {#if slot.choices.length > 8}<label class="grid gap-0.5">Find<input type="search" bind:value={find} /></label>{/if}
  {#each groups as g (g.title)}
    {@const list = g.list.filter((c) => found(c.label))}
    {#if list.length > 0}
      <div class="grid gap-1.5">
        <h3>{g.title}</h3>
        <ul class="grid gap-1 max-h-72 overflow-y-auto" tabindex="-1">
          {#each list as c (c.key)}
            <li class="grid">
              <button
                type="button"
                class="text-left bg-raised border border-line hover:border-accent rounded min-h-10 px-3 py-1"
                onclick={() => onfill({ key: c.key, mine: slot.device && (today || c.key.startsWith('kit:')) })}
              >
                <strong class="font-semibold">{c.label}</strong> <small class="soft text-small block">{c.note}</small>
              </button>
            </li>
          {/each}
        </ul>
      </div>
    {/if}
  {/each}
</section>
