<script lang="ts">
  // Both plugs face to face as seen from the mating side, and each wire in its own
  // colour with its name, from the pin it sits in to where it ends.
  import type { PinsPicture } from '../api/client.svelte';
  import { levelOf, levelWords } from '../lib/levels';

  let { picture }: { picture: PinsPicture } = $props();
  let width = $state(640);
  const row = 40;
  const top = 26;
  const left = $derived(Math.min(150, width * 0.3));
  const right = $derived(width - Math.min(170, width * 0.32));
  const rows = $derived(Math.max(picture.unit.pins.length, picture.board.pins.length));

  function path(from: number, to: number): string {
    const y1 = top + row * from;
    const y2 = top + row * to;
    const bend = (right - left) / 2.6;
    return `M ${left + 13} ${y1} C ${left + bend} ${y1} ${right - bend} ${y2} ${right - 13} ${y2}`;
  }
  const words = (w: PinsPicture['wires'][number]) =>
    `${w.colour ? `${w.colour} wire: ` : ''}${w.function || 'empty slot'} to ${w.terminal || 'nothing'}${w.says ? `, ${w.says}` : ''}: ${levelWords[levelOf(w.level)]}`;
</script>

<figure class="panel overflow-hidden px-0 py-2.5" bind:clientWidth={width}>
  <figcaption class="unseen">
    {picture.unit.label}, {picture.unit.kind}, to {picture.board.label}, {picture.board.kind}. {picture.wires
      .map(words)
      .join('. ')}.
  </figcaption>
  {#if picture.missing}<p class="missing">{picture.missing}</p>{/if}
  {#if rows > 0}
    <div class="flex justify-between gap-4 leading-tight px-3.5 py-0" aria-hidden="true">
      <p><strong>{picture.unit.label}</strong> <span class="soft block text-note">{picture.unit.kind}</span></p>
      <p class="text-right">
        <strong>{picture.board.label}</strong> <span class="soft block text-note">{picture.board.kind}</span>
      </p>
    </div>
    <svg {width} height={top + row * rows} aria-hidden="true">
      {#each picture.wires as w, i (i)}
        {#if w.pin >= 0 && w.spot >= 0}
          <path d={path(w.pin, w.spot)} class="edge {w.level}" />
          <path d={path(w.pin, w.spot)} class="wire" style:stroke={w.paint} class:spare={w.level === 'caution'} />
        {/if}
      {/each}
      {#each picture.wires as w, i (i)}
        {#if w.pin >= 0}
          <text x={left + 20} y={top + row * w.pin - 8} class="name"
            >{w.colour ?? ''}{#if w.says}<tspan class="says {w.level}" dx="6"
                >{w.level === 'unfit' ? '✕' : w.level === 'fits' ? '' : '!'}{width < 520 ? '' : ` ${w.says}`}</tspan
              >{/if}</text
          >
        {/if}
      {/each}
      {#each picture.unit.pins as p, i (i)}
        <rect x={left - 12} y={top + row * i - 12} width="24" height="24" class="pin" class:ghost={!p.used} />
        <text x={left} y={top + row * i + 5} text-anchor="middle" class="number">{p.n}</text>
        {#if p.n === 1}<path d={`M ${left - 12} ${top - 12} h 9 l -9 9 z`} class="first" />{/if}
        <text x={left - 20} y={top + row * i + 5} text-anchor="end" class:soft={!p.used}>{p.words || 'empty'}</text>
      {/each}
      {#each picture.board.pins as p, i (i)}
        <rect
          x={right - 12}
          y={top + row * i - 12}
          width="24"
          height="24"
          class="pin"
          class:ghost={!p.used}
          rx={p.n > 0 ? 0 : 12}
        />
        {#if p.n > 0}<text x={right} y={top + row * i + 5} text-anchor="middle" class="number">{p.n}</text>{/if}
        {#if p.n === 1}<path d={`M ${right - 12} ${top - 12} h 9 l -9 9 z`} class="first" />{/if}
        <text x={right + 20} y={top + row * i + 5} class:soft={!p.used}>{p.words || 'empty'}</text>
      {/each}
    </svg>
  {/if}
</figure>

<style>
  .missing {
    padding: 0 0.9rem 0.4rem;
    font-weight: 600;
  }
  text {
    fill: var(--ink);
    font-size: 14px;
  }
  text.soft {
    fill: var(--soft);
  }
  .number {
    font-family: var(--font-mono);
    font-size: 13px;
  }
  .name {
    font-size: 12.5px;
  }
  .pin {
    fill: var(--raised);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .ghost {
    stroke: var(--line);
    stroke-dasharray: 3 3;
  }
  .first {
    fill: var(--ink);
  }
  .edge {
    fill: none;
    stroke: var(--ink);
    stroke-width: 6;
  }
  .edge.unfit {
    stroke: var(--unfit);
    stroke-width: 9;
  }
  .edge.change {
    stroke: var(--change);
    stroke-width: 9;
    stroke-dasharray: 9 5;
  }
  .wire {
    fill: none;
    stroke-width: 4;
  }
  .spare {
    stroke-dasharray: 4 6;
  }
  .says {
    font-weight: 700;
  }
  .says.unfit {
    fill: var(--unfit);
  }
  .says.change {
    fill: var(--change);
  }
  .says.caution {
    fill: var(--caution);
  }
</style>
