<script lang="ts">
  // One photo with what is marked on it. A mark is put where the photo is pressed, or with the arrows
  // and Enter.
  import { photoURL, type AlbumView } from '../api/client.svelte';

  type Kept = AlbumView['groups'][number]['others'][number];
  interface Props {
    quad: string;
    photo: Kept;
    pins: string[];
    onsay: (change: Partial<Kept>) => void;
    ondrop: () => void;
  }
  let { quad, photo, pins, onsay, ondrop }: Props = $props();

  let marking = $state(false);
  let says = $state('');
  let cross = $state({ x: 0.5, y: 0.5 });
  const within = (share: number) => Math.round(Math.min(Math.max(share, 0), 1) * 1000) / 1000;

  function put(x: number, y: number) {
    if (!marking || says.trim() === '') return;
    onsay({ marks: [...photo.marks, { x: within(x), y: within(y), says: says.trim() }] });
    says = '';
  }
  function press(event: MouseEvent) {
    const box = (event.currentTarget as Element).getBoundingClientRect();
    cross = { x: within((event.clientX - box.left) / box.width), y: within((event.clientY - box.top) / box.height) };
    put(cross.x, cross.y);
  }
  function onkeydown(event: KeyboardEvent) {
    const step = event.shiftKey ? 0.1 : 0.02;
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key];
    if (by) cross = { x: within(cross.x + by[0]!), y: within(cross.y + by[1]!) };
    else if (event.key === 'Enter') put(cross.x, cross.y);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
  const name = $derived(photo.words || `${photo.label}, photo ${photo.id}`);
</script>

<figure class="panel grid gap-2 p-2.5">
  <div class="relative">
    <img class="w-full rounded" src={photoURL(quad, photo.id)} width={photo.wide} height={photo.high} alt={name} />
    {#if marking}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
      <div
        class="absolute inset-0 cursor-crosshair"
        role="application"
        tabindex="0"
        aria-label={`Where it is on ${name}: press, or move the cross by the arrows and press Enter`}
        onclick={press}
        {onkeydown}
      >
        <span class="cross" style:left={`${100 * cross.x}%`} style:top={`${100 * cross.y}%`} aria-hidden="true">＋</span
        >
      </div>
    {/if}
    {#each photo.marks as m, i (i)}
      <span class="mark" style:left={`${100 * m.x}%`} style:top={`${100 * m.y}%`} title={m.says} aria-hidden="true"
        >{i + 1}</span
      >
    {/each}
  </div>
  <figcaption class="grid gap-1.5">
    {#if photo.words}<span>{photo.words}</span>{/if}
    <span class="soft text-note">{photo.at.slice(0, 10)}</span>
    {#if photo.marks.length > 0}
      <ol class="list-decimal pl-5" aria-label={`Marked on ${name}`}>
        {#each photo.marks as m, i (i)}
          <li>
            {m.says}
            <button
              type="button"
              class="link screen-only"
              onclick={() => onsay({ marks: photo.marks.filter((_, k) => k !== i) })}
              >take it off<span class="unseen">: {m.says}</span></button
            >
          </li>
        {/each}
      </ol>
    {/if}
    {#if marking}
      <label class="grid gap-0.5"
        >What is marked
        <input
          class="border border-soft rounded bg-raised text-ink px-2 min-h-9"
          list={`pins-${photo.id}`}
          maxlength="80"
          bind:value={says}
        /></label
      >
      <datalist id={`pins-${photo.id}`}
        >{#each pins as p (p)}<option value={p}></option>{/each}</datalist
      >
      <p class="soft text-note">Then press where it is.</p>
    {/if}
    <div class="screen-only flex flex-wrap gap-2.5 items-center">
      <button type="button" class="button" aria-pressed={marking} onclick={() => (marking = !marking)}
        >{marking ? 'Done marking' : 'Mark a pin or wire'}</button
      >
      <label class="flex gap-2 items-center"
        ><span class="unseen">When {name} was taken</span>
        <select value={photo.moment ?? ''} onchange={(e) => onsay({ moment: e.currentTarget.value as Kept['moment'] })}>
          <option value="">not said when</option>
          <option value="before">before the swap</option>
          <option value="after">after it</option>
        </select></label
      >
      <button type="button" class="link" onclick={ondrop}>Let it go</button>
    </div>
  </figcaption>
</figure>

<style>
  .mark,
  .cross {
    position: absolute;
    transform: translate(-50%, -50%);
    pointer-events: none;
  }
  .mark {
    display: grid;
    place-items: center;
    min-width: 1.6rem;
    height: 1.6rem;
    border: 2px solid #fff;
    border-radius: 50%;
    background: #1b1b1b;
    color: #fff;
    font-size: 0.85rem;
    font-weight: 700;
  }
  .cross {
    color: #fff;
    text-shadow:
      0 0 3px #000,
      0 0 3px #000;
    font-size: 1.6rem;
  }
  .link {
    text-decoration: underline;
    min-height: 2rem;
  }
</style>
