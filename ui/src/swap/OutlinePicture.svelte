<script lang="ts">
  // The wiring from pad to pad: the board where its pads lie, what is wired to it left and
  // right of it. What each wire is stands in words beneath.
  import type { PinsView } from '../api/client.svelte';
  import LevelMark from '../lib/LevelMark.svelte';

  let { outline }: { outline: NonNullable<PinsView['outline']> } = $props();

  const gap = 14; // mm between the pieces
  // Where each piece's left front corner lies: the board in the middle, the others by turns.
  const corners = $derived.by(() => {
    const board = outline.pieces[0];
    const at = [{ x: 0, y: 0 }];
    const down = [0, 0]; // how far each side is filled
    outline.pieces.slice(1).forEach((p, i) => {
      const side = i % 2;
      const y = down[side] ?? 0;
      at.push({ x: side === 0 ? -gap - p.xMM : (board?.xMM ?? 0) + gap, y });
      down[side] = y + p.yMM + gap / 2;
    });
    return at;
  });
  const box = $derived.by(() => {
    const edges = outline.pieces.map((p, i) => ({
      ...corners[i]!,
      right: corners[i]!.x + p.xMM,
      rear: corners[i]!.y + p.yMM,
    }));
    const left = Math.min(...edges.map((e) => e.x)) - 3;
    const right = Math.max(...edges.map((e) => e.right)) + 3;
    return { left, wide: right - left, long: Math.max(...edges.map((e) => e.rear)) + 10 };
  });
  const text = $derived(Math.max(1.1, box.wide / 70));
  function spot(piece: number, pad: number) {
    const [c, p] = [corners[piece], outline.pieces[piece]?.pads[pad]];
    return { x: (c?.x ?? 0) + (p?.xMM ?? 0), y: (c?.y ?? 0) + (p?.yMM ?? 0) };
  }
  // The words of a pad stand inwards from the edge it is nearest to.
  function label(p: (typeof outline.pieces)[number], pad: (typeof p.pads)[number]) {
    const edges = [pad.xMM, p.xMM - pad.xMM, pad.yMM, p.yMM - pad.yMM];
    const off = 0.9;
    switch (edges.indexOf(Math.min(...edges))) {
      case 0:
        return { x: pad.xMM + off, y: pad.yMM, turn: 0, anchor: 'start' } as const;
      case 1:
        return { x: pad.xMM - off, y: pad.yMM, turn: 0, anchor: 'end' } as const;
      case 2:
        return { x: pad.xMM, y: pad.yMM + off, turn: -90, anchor: 'end' } as const;
      default:
        return { x: pad.xMM, y: pad.yMM - off, turn: -90, anchor: 'start' } as const;
    }
  }
  function curve(w: (typeof outline.wires)[number]) {
    const [a, b] = [spot(w.piece, w.pad), spot(0, w.to)];
    const bend = (b.x - a.x) / 2;
    return `M${a.x} ${a.y}C${a.x + bend} ${a.y} ${b.x - bend} ${b.y} ${b.x} ${b.y}`;
  }
</script>

<section class="panel px-3.5 py-3" aria-labelledby="outline">
  <h3 id="outline">From pad to pad</h3>
  <svg
    viewBox={`${box.left} -6 ${box.wide} ${box.long}`}
    role="img"
    aria-label={`Pads of ${outline.pieces[0]?.label} and ${outline.wires.length} wires to them`}
  >
    {#each outline.pieces as p, i (p.node)}
      <g transform={`translate(${corners[i]?.x ?? 0} ${corners[i]?.y ?? 0})`}>
        <rect class={['edge', !p.placed && 'row']} x="0" y="0" width={p.xMM} height={p.yMM} rx="1" />
        <text class="name" x={p.xMM / 2} y="-1.5" font-size={text * 1.2}>{p.label}</text>
        {#each p.pads as pad, k (k)}
          <circle class={['pad', pad.back && 'back', pad.wired && 'wired']} cx={pad.xMM} cy={pad.yMM} r="0.5" />
        {/each}
      </g>
    {/each}
    {#each outline.wires as w, i (i)}
      <path class="under" d={curve(w)} />
      <path class={['wire', w.level !== 'fits' && 'wrong']} d={curve(w)} style:stroke={w.paint || 'var(--soft)'} />
    {/each}
    {#each outline.pieces as p, i (p.node)}
      <g transform={`translate(${corners[i]?.x ?? 0} ${corners[i]?.y ?? 0})`}>
        {#each p.pads as pad, k (k)}
          {#if i === 0 || pad.wired}
            {@const l = label(p, pad)}
            <text
              class="words"
              transform={`translate(${l.x} ${l.y}) rotate(${l.turn})`}
              y={text * 0.35}
              font-size={text}
              text-anchor={l.anchor}>{i === 0 ? pad.printed || pad.words : k + 1}</text
            >
          {/if}
        {/each}
      </g>
    {/each}
  </svg>
  <p class="soft">
    Rings lie underneath. A part whose pads nobody has placed stands as a row of its pins, pin 1 first.
    {#if outline.unplaced.length > 0}Not placed yet, though wired: {outline.unplaced.join(', ')}.{/if}
  </p>
  <ul class="grid cols-fill-[300px] gap-x-4 gap-y-0.5">
    {#each outline.wires as w, i (i)}
      <li class="flex items-center gap-1.5">
        <LevelMark level={w.level} size={16} /><span
          class="inline-block w-5 h-1.5 rounded border border-line"
          style:background={w.paint || 'var(--soft)'}
        ></span>
        {w.words}
      </li>
    {/each}
  </ul>
</section>

<style>
  svg {
    width: 100%;
    max-height: 440px;
  }
  .edge {
    fill: var(--raised);
    stroke: var(--ink);
    stroke-width: 0.35;
  }
  .row {
    stroke-dasharray: 1 0.8;
  }
  .pad {
    fill: var(--line);
    stroke: var(--ink);
    stroke-width: 0.2;
  }
  .back {
    fill: none;
    stroke-width: 0.5;
  }
  .under,
  .wire {
    fill: none;
    stroke-linecap: round;
  }
  .under {
    stroke: var(--ink);
    stroke-width: 1;
  }
  .wire {
    stroke-width: 0.7;
  }
  .wrong {
    stroke-dasharray: 2 1.4;
  }
  .name {
    fill: var(--ink);
    text-anchor: middle;
    font-weight: 650;
  }
  .words {
    fill: var(--ink);
    paint-order: stroke;
    stroke: var(--raised);
    stroke-width: 0.4;
  }
</style>
