<script lang="ts">
  // A row of pins copied off a drawing: type one after another, Enter goes on, a
  // whole row separated by commas fills the rest.
  import { Button, Select } from 'flowbite-svelte';
  import { tick } from 'svelte';
  import { withPin, type KnownRow } from './pins';

  interface Props {
    id: string;
    label: string;
    pins: string[];
    known: string[];
    rows: KnownRow[]; // orders that are stated elsewhere, or usual
    /** Whether an order that others have has been held against the drawing; undefined: it is one's own. */
    held: boolean | undefined;
    onchange: (pins: string[] | undefined) => void;
    /** An order that others have was picked. */
    onpick: (pins: string[]) => void;
    onheld: (held: boolean) => void;
  }
  let { id, label, pins, known, rows, held, onchange, onpick, onheld }: Props = $props();
  const words = (row: KnownRow) =>
    `${row.pins.map((p) => p || '–').join(', ')} (${
      row.usual ? 'usual' : row.of.slice(0, 2).join(', ') + (row.of.length > 2 ? ' …' : '')
    })`;
  function pick(row: KnownRow | undefined) {
    if (row) onpick([...row.pins]);
  }

  function set(at: number, text: string) {
    onchange(withPin(pins, at, text));
  }
  async function keydown(event: KeyboardEvent, at: number) {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    const box = event.currentTarget as HTMLInputElement;
    const row = withPin(pins, at, box.value);
    if (at + 1 >= row.length) row.push('');
    onchange(row);
    await tick();
    document.getElementById(`${id}-${at + 1}`)?.focus();
  }
</script>

<fieldset class="col-span-full border border-line rounded min-w-0 px-3 pt-2 pb-3">
  <legend class="text-note font-semibold"
    >{label}
    <span class="soft font-normal"
      >pin 1 first, seen from the mating side; Enter goes on, a row with commas fills the rest, a dash is an empty slot</span
    ></legend
  >
  {#if rows.length > 0}
    <div class="max-w-150 mb-2">
      <Select
        size="sm"
        placeholder=""
        aria-label={`${label}, an order that is known`}
        value=""
        items={[
          { value: '', name: 'an order that is known' },
          ...rows.slice(0, 30).map((row, i) => ({ value: String(i), name: words(row) })),
        ]}
        onchange={(e: Event) => pick(rows[Number((e.currentTarget as HTMLSelectElement).value || -1)])}
      />
    </div>
  {/if}
  <ol class="grid cols-fill-[130px] gap-1.5 mb-2">
    {#each pins as pin, i (i)}
      <li class="grid grid-cols-[1.8rem_1fr] items-center">
        <label for={`${id}-${i}`}>{i + 1}</label>
        <input
          class="min-w-0 border border-soft px-1.5 py-0"
          id={`${id}-${i}`}
          value={pin}
          list={`${id}-known`}
          autocomplete="off"
          aria-label={`${label}, pin ${i + 1}`}
          onchange={(e) => set(i, e.currentTarget.value)}
          onkeydown={(e) => keydown(e, i)}
        />
      </li>
    {/each}
  </ol>
  <datalist id={`${id}-known`}
    >{#each known as k (k)}<option value={k}></option>{/each}</datalist
  >
  {#if held !== undefined && pins.length > 0}<label class="held flex gap-2 items-center min-h-11"
      ><input type="checkbox" checked={held} onchange={(e) => onheld(e.currentTarget.checked)} />
      <span
        >I have held it against the drawing of mine: pin 1 is where it says, and each pin is what it says. A wrong pin
        destroys the unit; until then the wiring is a caution.</span
      ></label
    >{/if}
  <div class="buttons">
    <Button type="button" size="xs" color="alternative" onclick={() => onchange([...pins, ''])}>Add a pin</Button>
    {#if pins.length > 0}<Button
        type="button"
        size="xs"
        color="alternative"
        onclick={() => onchange(pins.length > 1 ? pins.slice(0, -1) : undefined)}>Take the last out</Button
      >{/if}
  </div>
</fieldset>

<style>
  li label {
    font-family: var(--font-mono);
    text-align: center;
    border: 1px solid var(--soft);
    border-right: 0;
    min-height: 40px;
    display: grid;
    place-items: center;
  }
  .buttons :global(button) {
    min-height: 36px;
  }
</style>
