<script lang="ts">
  // A quad taken apart, seen from above, and what it is flown with; the numbers on the
  // drawing are those of its places.
  import type { Slot } from '../api/client.svelte';

  interface Props {
    slots: Slot[];
    analog: boolean;
    chosen?: string | undefined;
    onopen: (name: string) => void;
  }
  let { slots, analog, chosen, onopen }: Props = $props();

  // Where each place is on the drawing.
  const spots: Record<string, [number, number]> = {
    airUnit: [210, 232],
    camera: [210, 84],
    goggles: [64, 52],
    controller: [356, 52],
    receiver: [262, 250],
    board: [210, 176],
    firmware: [254, 160],
    pack: [210, 116],
    antennas: [150, 282],
    frame: [92, 176],
  };
  const arms = [
    { x: -1, y: -1 },
    { x: 1, y: -1 },
    { x: -1, y: 1 },
    { x: 1, y: 1 },
  ];
  const numbered = $derived(slots.map((s, i) => ({ slot: s, n: i + 1, at: spots[s.name] })));
</script>

<div class="grid gap-4 min-[620px]:grid-cols-[minmax(0,1fr)_minmax(14rem,17rem)]">
  <svg
    class="panel w-full h-auto max-sm:max-h-56"
    viewBox="0 0 420 320"
    role="img"
    aria-label="A quad from above with the places that can be filled, numbered as in the list"
  >
    <g class="frame">
      {#each arms as { x, y } (`${x}${y}`)}
        <path d={`M${210 + x * 26} ${176 + y * 40}L${210 + x * 108} ${176 + y * 76}`} />
        <circle cx={210 + x * 108} cy={176 + y * 76} r="46" class="prop" />
        <circle cx={210 + x * 108} cy={176 + y * 76} r="9" />
      {/each}
      <rect x="176" y="92" width="68" height="172" rx="12" />
    </g>
    <rect class="part" x="194" y="72" width="32" height="18" rx="3" />
    <rect class="part" x="184" y="98" width="52" height="34" rx="4" />
    <rect class="part" x="186" y="150" width="48" height="48" rx="3" />
    <rect class="part" x="188" y="212" width="44" height="38" rx="3" />
    <rect class="part" x="240" y="240" width="34" height="18" rx="3" />
    <path class="part" d="M196 250L158 288M224 250L262 288" />
    <g class="off">
      <path d="M36 40h56a8 8 0 0 1 8 8v14a10 10 0 0 1-10 10H76l-10-8-10 8H40a10 10 0 0 1-10-10V46z" />
      <path d="M322 40h68l10 34a8 8 0 0 1-8 8h-72a8 8 0 0 1-8-8zM340 54v10M372 54v10" />
    </g>
    {#each numbered as p (p.slot.name)}
      {#if p.at}
        <g class="spot" class:filled={p.slot.holds !== ''} class:chosen={p.slot.name === chosen}>
          <circle cx={p.at[0]} cy={p.at[1]} r="13" />
          <text x={p.at[0]} y={p.at[1] + 5}>{p.n}</text>
        </g>
      {/if}
    {/each}
  </svg>
  <ol class="grid gap-1.5 content-start">
    {#each numbered as p (p.slot.name)}
      <li class="grid">
        <button
          type="button"
          class="slot grid grid-cols-[1.9rem_1fr] items-center text-left rounded min-h-11 px-2.5 py-1"
          aria-pressed={p.slot.name === chosen}
          onclick={() => onopen(p.slot.name)}
        >
          <span class="number" class:filled={p.slot.holds !== ''} aria-hidden="true">{p.n}</span>
          <span class="wrap-anywhere"
            ><span class="soft text-small block">{p.slot.title}</span>
            {#if p.slot.holds}<strong class="font-semibold">{p.slot.holds}</strong>
              {#if p.slot.asks.length > 0}<span class="soft text-small">{p.slot.asks.length} asked</span>{/if}
            {:else if p.slot.name === 'camera'}<span class="soft">its own</span
              >{:else if analog && p.slot.name === 'airUnit'}analog video today{:else}<span class="soft">open</span
              >{/if}</span
          >
        </button>
      </li>
    {/each}
  </ol>
</div>

<style>
  .frame {
    fill: var(--sheet);
    stroke: var(--soft);
    stroke-width: 3;
  }
  .frame .prop {
    fill: none;
    stroke: var(--line);
    stroke-width: 1.5;
    stroke-dasharray: 5 5;
  }
  .part,
  .off {
    fill: var(--raised);
    stroke: var(--soft);
    stroke-width: 2;
  }
  .spot circle {
    fill: var(--raised);
    stroke: var(--soft);
    stroke-width: 2;
    stroke-dasharray: 4 3;
  }
  .spot text {
    fill: var(--ink);
    font-size: 14px;
    font-weight: 700;
    text-anchor: middle;
  }
  .spot.filled circle {
    fill: var(--accent);
    stroke: var(--accent);
    stroke-dasharray: none;
  }
  .spot.filled text {
    fill: var(--sheet);
  }
  .spot.chosen circle {
    stroke: var(--focus);
    stroke-width: 4;
  }
  .slot {
    background: var(--sheet);
    border: 1px solid var(--line);
  }
  .slot[aria-pressed='true'] {
    border-color: var(--accent);
    background: var(--accent-wash);
  }
  .number {
    display: inline-grid;
    place-items: center;
    width: 1.5rem;
    height: 1.5rem;
    border-radius: 50%;
    border: 1.5px dashed var(--soft);
    font-weight: 700;
    font-size: 0.85rem;
  }
  .number.filled {
    background: var(--accent);
    border: 0;
    color: var(--sheet);
  }
</style>
