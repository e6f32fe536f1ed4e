<script lang="ts">
  // A board or a part as a builder copies it off a photo: its size, and its pads dragged to
  // where they lie. A photo put underneath stays in this window.
  import { Button, Input, Select } from 'flowbite-svelte';
  import { parseNumber } from './entry';
  import { kept, whole, withPad, type Outline, type PadPlace } from './outline';

  interface Props {
    id: string;
    label: string;
    outline: Outline;
    places: { at: string; words: string }[];
    onchange: (outline: Outline | undefined) => void;
  }
  let { id, label, outline, places, onchange }: Props = $props();

  let back = $state(false); // which side is looked at
  let photo = $state('');
  let adding = $state('');
  let drawing: SVGSVGElement | undefined = $state();
  let dragged = $state(-1);

  const sized = $derived((outline.xMM ?? 0) > 0 && (outline.yMM ?? 0) > 0);
  const [wide, long] = $derived([outline.xMM ?? 1, outline.yMM ?? 1]);
  const pads = $derived(outline.pads ?? []);
  const words = (at: string) => places.find((p) => p.at === at)?.words ?? at;
  // From underneath, left is right.
  const seen = (p: PadPlace) => (back ? wide - p.xMM : p.xMM);

  function setSize(side: 'xMM' | 'yMM', typed: string) {
    const { value, wrong } = parseNumber(typed);
    if (!wrong) onchange(whole({ ...outline, [side]: value as number | undefined }));
  }
  function move(i: number, x: number, y: number) {
    const p = pads[i];
    if (p) onchange(withPad(outline, i, { ...p, xMM: kept(x, wide), yMM: kept(y, long) }));
  }
  function set(i: number, part: Partial<PadPlace>) {
    const p = pads[i];
    if (!p) return;
    const next = { ...p, ...part };
    if (!next.printed) delete next.printed;
    if (!next.back) delete next.back;
    onchange(withPad(outline, i, next));
  }
  function setNumber(i: number, side: 'xMM' | 'yMM', typed: string) {
    const { value, wrong } = parseNumber(typed);
    if (!wrong && typeof value === 'number') set(i, { [side]: kept(value, side === 'xMM' ? wide : long) });
  }
  function pointermove(event: PointerEvent) {
    const box = drawing?.getScreenCTM()?.inverse();
    if (dragged < 0 || !box) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(box);
    move(dragged, back ? wide - at.x : at.x, at.y);
  }
  function keydown(event: KeyboardEvent, i: number) {
    const step = event.shiftKey ? 0.1 : 0.5;
    const p = pads[i];
    const to = {
      ArrowLeft: [back ? step : -step, 0],
      ArrowRight: [back ? -step : step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    }[event.key];
    if (p && to) move(i, p.xMM + (to[0] ?? 0), p.yMM + (to[1] ?? 0));
    else if (event.key === 'Delete') onchange(withPad(outline, i, undefined));
    else return;
    event.preventDefault();
  }
  function add() {
    if (!adding) return;
    const pad: PadPlace = { at: adding, xMM: kept(wide / 2, wide), yMM: kept(long / 2, long) };
    if (back) pad.back = true;
    onchange(whole({ ...outline, pads: [...pads, pad] }));
    adding = places[places.findIndex((p) => p.at === adding) + 1]?.at ?? '';
  }
  function underlay(event: Event) {
    const file = (event.currentTarget as HTMLInputElement).files?.[0];
    if (photo) URL.revokeObjectURL(photo);
    photo = file ? URL.createObjectURL(file) : '';
  }
  const text = (e: Event) => (e.currentTarget as HTMLInputElement | HTMLSelectElement).value;
</script>

<fieldset class="grid col-span-full border border-line rounded grid-cols-[minmax(0,1fr)] gap-2 min-w-0 px-3 pt-2 pb-3">
  <legend class="text-note font-semibold"
    >{label}
    <span class="soft font-normal">seen from above, its front up; the photo stays in this window</span></legend
  >
  <div class="flex flex-wrap gap-3 items-end">
    {#each [['xMM', 'from left to right'], ['yMM', 'from front to rear']] as const as [side, name] (side)}
      <div>
        <label class="text-note font-semibold" for={`${id}-${side}`}
          >{name} <span class="soft font-normal">in mm</span></label
        >
        <Input
          id={`${id}-${side}`}
          class="w-28"
          size="sm"
          inputmode="decimal"
          autocomplete="off"
          value={outline[side] === undefined ? '' : String(outline[side])}
          onchange={(e: Event) => setSize(side, text(e))}
        />
      </div>
    {/each}
    {#if sized}
      <div>
        <label class="text-note font-semibold" for={`${id}-photo`}>photo to copy from</label>
        <input id={`${id}-photo`} class="block text-note" type="file" accept="image/*" onchange={underlay} />
      </div>
      <div>
        <label class="text-note font-semibold" for={`${id}-side`}>side</label>
        <Select
          id={`${id}-side`}
          size="sm"
          placeholder=""
          value={back ? 'back' : 'front'}
          items={[
            { value: 'front', name: 'from above' },
            { value: 'back', name: 'from underneath' },
          ]}
          onchange={(e: Event) => (back = text(e) === 'back')}
        />
      </div>
    {/if}
  </div>
  {#if sized}
    <div class="grid gap-3 items-start lg:grid-cols-[minmax(0,420px)_minmax(0,1fr)]">
      <svg
        bind:this={drawing}
        viewBox={`-2 -2 ${wide + 4} ${long + 4}`}
        role="group"
        aria-label={back ? 'Pads from underneath' : 'Pads from above'}
        onpointermove={pointermove}
        onpointerup={() => (dragged = -1)}
        onpointerleave={() => (dragged = -1)}
      >
        {#if photo}<image
            href={photo}
            x="0"
            y="0"
            width={wide}
            height={long}
            preserveAspectRatio="none"
            opacity="0.6"
          />{/if}
        <rect class="edge" x="0" y="0" width={wide} height={long} rx={Math.min(wide, long) / 20} />
        {#each pads as p, i (i)}
          {#if Boolean(p.back) === back}
            <g
              class="pad"
              tabindex="0"
              role="slider"
              aria-label={`${words(p.at)}: arrow keys move it`}
              aria-valuenow={p.xMM}
              aria-valuetext={`${p.xMM} mm from the left, ${p.yMM} mm from the front`}
              onpointerdown={(e) => {
                dragged = i;
                e.preventDefault();
                (e.currentTarget as SVGGElement).focus();
              }}
              onkeydown={(e) => keydown(e, i)}
            >
              <circle cx={seen(p)} cy={p.yMM} r={Math.max(wide, long) / 45} />
              <text x={seen(p)} y={p.yMM - Math.max(wide, long) / 30} font-size={Math.max(wide, long) / 24}
                >{p.printed || p.at}</text
              >
            </g>
          {/if}
        {/each}
      </svg>
      <div class="scroll">
        <table>
          <thead
            ><tr
              ><th scope="col">pad</th><th scope="col">printed there</th><th scope="col">left, mm</th><th scope="col"
                >front, mm</th
              ><th scope="col">underneath</th><th scope="col"><span class="unseen">take out</span></th></tr
            ></thead
          >
          <tbody>
            {#each pads as p, i (i)}
              <tr>
                <th scope="row">{words(p.at)}</th>
                <td
                  ><input
                    class="w-20 border border-soft px-1.5 py-0"
                    value={p.printed ?? ''}
                    aria-label={`Printed at ${words(p.at)}`}
                    onchange={(e) => set(i, { printed: e.currentTarget.value.trim() })}
                  /></td
                >
                {#each ['xMM', 'yMM'] as const as side (side)}
                  <td
                    ><input
                      class="w-16 border border-soft px-1.5 py-0"
                      inputmode="decimal"
                      value={p[side]}
                      aria-label={`${words(p.at)}, from the ${side === 'xMM' ? 'left' : 'front'} in mm`}
                      onchange={(e) => setNumber(i, side, e.currentTarget.value)}
                    /></td
                  >
                {/each}
                <td
                  ><input
                    type="checkbox"
                    checked={p.back ?? false}
                    aria-label={`${words(p.at)} lies underneath`}
                    onchange={(e) => set(i, { back: e.currentTarget.checked })}
                  /></td
                >
                <td
                  ><Button
                    type="button"
                    size="xs"
                    color="alternative"
                    aria-label={`Take out ${words(p.at)}`}
                    onclick={() => onchange(withPad(outline, i, undefined))}>Take out</Button
                  ></td
                >
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    </div>
    <div class="flex flex-wrap gap-2 items-end">
      <div>
        <label class="text-note font-semibold" for={`${id}-add`}>place a pad</label>
        <Select
          id={`${id}-add`}
          size="sm"
          placeholder=""
          bind:value={adding}
          items={[{ value: '', name: 'which' }, ...places.map((p) => ({ value: p.at, name: p.words }))]}
        />
      </div>
      <Button type="button" size="sm" color="alternative" disabled={!adding} onclick={add}>Place it</Button>
    </div>
  {:else}
    <p class="soft">Enter its size, then its pads can be placed.</p>
  {/if}
</fieldset>

<style>
  svg {
    width: 100%;
    max-height: 420px;
    touch-action: none;
    background: var(--paper);
  }
  .edge {
    fill: none;
    stroke: var(--ink);
    stroke-width: 0.3;
  }
  .pad {
    cursor: grab;
  }
  .pad circle {
    fill: var(--raised);
    stroke: var(--accent);
    stroke-width: 0.4;
  }
  .pad:focus-visible circle {
    stroke-width: 0.9;
  }
  .pad text {
    fill: var(--ink);
    text-anchor: middle;
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 0.3;
  }
  th,
  td {
    text-align: left;
    padding: 0.15rem 0.5rem 0.15rem 0;
    font-weight: 500;
  }
</style>
