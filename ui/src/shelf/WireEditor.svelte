<script lang="ts">
  // The wires of a harness: the colours in order make a straight cable, then each
  // wire can be sent to another slot.
  import { Button, Input } from 'flowbite-svelte';
  import { parseRow, straight, type HarnessWire } from './pins';

  interface Props {
    id: string;
    label: string;
    wires: HarnessWire[];
    bare: boolean;
    onchange: (wires: HarnessWire[] | undefined) => void;
  }
  let { id, label, wires, bare, onchange }: Props = $props();

  const colours = $derived(
    Array.from(
      { length: Math.max(0, ...wires.map((w) => w.from)) },
      (_, i) => wires.find((w) => w.from === i + 1)?.colour || '-',
    ).join(', '),
  );
  function set(at: number, part: Partial<Record<keyof HarnessWire, string | number | undefined>>) {
    onchange(
      wires.map((w, i) =>
        i === at
          ? (Object.fromEntries(
              Object.entries({ ...w, ...part }).filter(([, v]) => v !== undefined && v !== ''),
            ) as unknown as HarnessWire)
          : w,
      ),
    );
  }
  const number = (e: Event) => {
    const n = Number((e.currentTarget as HTMLInputElement).value);
    return Number.isFinite(n) && n > 0 ? n : undefined;
  };
  const columns = [
    { key: 'to', name: 'to slot' },
    { key: 'awg', name: 'AWG' },
    { key: 'lengthMM', name: 'length in mm' },
  ] as const;
</script>

<fieldset class="grid col-span-full border border-line rounded grid-cols-[minmax(0,1fr)] gap-1 min-w-0 px-3 pt-2 pb-3">
  <legend class="text-note font-semibold">{label}</legend>
  <label class="text-note font-semibold" for={id}
    >colours in order, slot 1 first <span class="soft font-normal"
      >separated by commas, a dash for an empty slot: makes a straight cable</span
    ></label
  >
  <Input
    {id}
    size="sm"
    autocomplete="off"
    value={wires.length > 0 ? colours : ''}
    placeholder=""
    onchange={(e: Event) => {
      const made = straight(parseRow((e.currentTarget as HTMLInputElement).value), bare, wires);
      onchange(made.length > 0 ? made : undefined);
    }}
  />
  {#if wires.length > 0}
    <div class="scroll">
      <table>
        <thead
          ><tr
            ><th scope="col">slot</th><th scope="col">colour</th
            >{#each columns as c (c.key)}{#if c.key !== 'to' || !bare}<th scope="col">{c.name}</th>{/if}{/each}<th
              scope="col"><span class="unseen">take out</span></th
            ></tr
          ></thead
        >
        <tbody>
          {#each wires as w, i (w.from)}
            <tr>
              <th scope="row" class="mono">{w.from}</th>
              <td
                ><input
                  class="w-28 border border-soft px-1.5 py-0"
                  value={w.colour ?? ''}
                  aria-label={`Colour of the wire in slot ${w.from}`}
                  onchange={(e) => set(i, { colour: e.currentTarget.value.trim() })}
                /></td
              >
              {#each columns as c (c.key)}
                {#if c.key !== 'to' || !bare}
                  <td
                    ><input
                      class="w-28 border border-soft px-1.5 py-0"
                      inputmode="decimal"
                      value={w[c.key] ?? ''}
                      aria-label={`${c.name} of the wire in slot ${w.from}`}
                      onchange={(e) => set(i, { [c.key]: number(e) })}
                    /></td
                  >
                {/if}
              {/each}
              <td
                ><Button
                  type="button"
                  size="xs"
                  color="alternative"
                  onclick={() => {
                    const rest = wires.filter((_, k) => k !== i);
                    onchange(rest.length > 0 ? rest : undefined);
                  }}
                  aria-label={`Take out the wire in slot ${w.from}`}>Take out</Button
                ></td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
</fieldset>

<style>
  th,
  td {
    text-align: left;
    padding: 0.15rem 0.5rem 0.15rem 0;
    font-weight: 500;
  }
</style>
