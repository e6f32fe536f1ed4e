<script lang="ts">
  // One character grid. With onmove its elements can be dragged, or moved by the
  // arrow keys once chosen.
  import type { OsdDrawn } from '../api/client.svelte';

  interface Props {
    drawn: OsdDrawn;
    label: string;
    profile: number;
    chosen?: string;
    onchoose?: (id: string) => void;
    onmove?: (id: string, x: number, y: number) => void;
  }
  let { drawn, label, profile, chosen = '', onchoose, onmove }: Props = $props();

  type Cell = OsdDrawn['elements'][number];
  const cw = 10;
  // As the goggles show it: the analog grids on 4:3, the others on 16:9.
  const ch = $derived((drawn.columns * cw * (drawn.columns <= 30 ? 3 / 4 : 9 / 16)) / drawn.rows);
  const width = $derived(drawn.columns * cw);
  const height = $derived(drawn.rows * ch);
  const shown = $derived(drawn.elements.filter((e) => (e.profiles ? e.profiles.includes(profile) : profile === 1)));

  let svg: SVGSVGElement | undefined = $state();
  let held = $state.raw<{ id: string; dx: number; dy: number; x: number; y: number } | null>(null);

  function cellAt(event: PointerEvent): { x: number; y: number } {
    const box = svg!.getBoundingClientRect();
    return {
      x: ((event.clientX - box.left) / box.width) * drawn.columns,
      y: ((event.clientY - box.top) / box.height) * drawn.rows,
    };
  }
  const within = (e: Cell, x: number, y: number) => ({
    x: Math.max(0, Math.min(drawn.columns - e.width, x)),
    y: Math.max(0, Math.min(drawn.rows - e.height, y)),
  });

  function down(event: PointerEvent, e: Cell) {
    onchoose?.(e.id);
    if (!onmove) return;
    const at = cellAt(event);
    held = { id: e.id, dx: at.x - e.x, dy: at.y - e.y, x: e.x, y: e.y };
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
  }
  function drag(event: PointerEvent, e: Cell) {
    if (held?.id !== e.id) return;
    const at = cellAt(event);
    held = { ...held, ...within(e, Math.round(at.x - held.dx), Math.round(at.y - held.dy)) };
  }
  function up(e: Cell) {
    if (held?.id === e.id && (held.x !== e.x || held.y !== e.y)) onmove?.(e.id, held.x, held.y);
    held = null;
  }
  const steps: Record<string, [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, -1],
    ArrowDown: [0, 1],
  };
  function key(event: KeyboardEvent, e: Cell) {
    const step = steps[event.key];
    if (!step || !onmove) return;
    event.preventDefault();
    const far = event.shiftKey ? 5 : 1;
    const to = within(e, e.x + step[0] * far, e.y + step[1] * far);
    if (to.x !== e.x || to.y !== e.y) onmove(e.id, to.x, to.y);
  }
  const place = (e: Cell) => (held?.id === e.id ? held : e);
</script>

<!-- The picture behind: a sky and a ground, so that white letters read as in the goggles. -->
<svg bind:this={svg} viewBox={`0 0 ${width} ${height}`} role="group" aria-label={label}>
  <rect {width} {height} class="sky" />
  <path
    d={`M 0 ${height * 0.62} L ${width * 0.3} ${height * 0.55} L ${width * 0.55} ${height * 0.64} L ${width} ${height * 0.57} V ${height} H 0 z`}
    class="ground"
  />
  <path d={`M ${width / 2} 0 V ${height} M 0 ${height / 2} H ${width}`} class="middle" />
  {#each shown as e (e.id)}
    {@const at = place(e)}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <g
      transform={`translate(${at.x * cw} ${at.y * ch})`}
      class="element"
      class:chosen={chosen === e.id}
      class:movable={onmove}
      class:over={e.over}
      role={onmove ? 'button' : undefined}
      tabindex={onmove ? 0 : undefined}
      aria-label={onmove
        ? `${e.label}, column ${e.x + 1} of ${drawn.columns}, row ${e.y + 1} of ${drawn.rows}${e.over ? ', lies over another or off the grid' : ''}`
        : undefined}
      onpointerdown={(event) => down(event, e)}
      onpointermove={(event) => drag(event, e)}
      onpointerup={() => up(e)}
      onpointercancel={() => (held = null)}
      onkeydown={(event) => key(event, e)}
      onfocus={() => onchoose?.(e.id)}
    >
      <rect width={e.width * cw} height={e.height * ch} />
      <text
        x={(e.width * cw) / 2}
        y={(e.height * ch) / 2 + 4.5}
        text-anchor="middle"
        textLength={(e.shows || e.label).length > 1
          ? Math.min(e.width, (e.shows || e.label).length) * cw - 3
          : undefined}
        lengthAdjust="spacingAndGlyphs">{e.shows || e.label}</text
      >
    </g>
  {/each}
</svg>

<style>
  svg {
    width: 100%;
    height: auto;
    display: block;
    border: 2px solid var(--ink);
    touch-action: none;
  }
  .sky {
    fill: #3d5566;
  }
  .ground {
    fill: #3b4b34;
  }
  .middle {
    fill: none;
    stroke: #ffffff;
    stroke-opacity: 0.18;
    stroke-dasharray: 4 5;
  }
  text {
    fill: #ffffff;
    font-family: var(--font-mono);
    font-size: 13.5px;
    font-weight: 700;
    pointer-events: none;
  }
  .element rect {
    fill: #10181d;
    fill-opacity: 0.45;
    stroke: #ffffff;
    stroke-opacity: 0.35;
  }
  .movable {
    cursor: grab;
    outline: none;
  }
  .movable:hover rect,
  .chosen rect {
    fill-opacity: 0.75;
    stroke-opacity: 1;
  }
  .chosen rect {
    stroke: #ffd166;
    stroke-width: 2.5;
  }
  .movable:focus-visible rect {
    stroke: #ffd166;
    stroke-width: 4;
  }
  .over rect {
    fill: #8a1c1c;
    fill-opacity: 0.8;
    stroke: #ffffff;
    stroke-dasharray: 4 3;
    stroke-opacity: 1;
  }
</style>
