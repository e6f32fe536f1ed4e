<script lang="ts">
  // The curves of a recording, one below the other over the same time, or the bit rate over
  // distance; a stretch is picked by dragging. Where two flights lie over each other, the
  // other one is dashed.
  import { scaleLinear } from 'd3-scale';
  import type { RecordingView } from '../api/client.svelte';

  interface Props {
    recording: RecordingView;
    over: RecordingView | null;
    byDistance: boolean;
    from: number;
    to: number;
    spotName: (id: string) => string;
    onrange: (from: number, to: number) => void;
  }
  let { recording, over, byDistance, from, to, spotName, onrange }: Props = $props();
  type Points = RecordingView['over'];
  let width = $state(640);
  const edge = { left: 58, right: 12 };
  const tall = 120;
  const names: Record<string, string> = {
    'bit-rate': 'bit rate',
    delay: 'delay',
    voltage: 'pack',
    distance: 'distance',
  };
  const rows = $derived(
    byDistance
      ? [{ name: 'bit rate', unit: 'Mbit/s', fromNought: true, is: recording.over, was: over?.over ?? [] }]
      : recording.curves.map((c) => ({
          name: names[c.measure] ?? c.measure,
          unit: c.unit,
          fromNought: c.measure === 'bit-rate' || c.measure === 'delay',
          is: c.points,
          was: over?.curves.find((o) => o.measure === c.measure)?.points ?? [],
        })),
  );
  const xs = $derived(rows.flatMap((r) => [...r.is, ...r.was].map((p) => p.x)));
  const x = $derived(
    scaleLinear([Math.min(...xs, byDistance ? 0 : Infinity), Math.max(...xs, 1)], [edge.left, width - edge.right]),
  );
  const height = $derived(rows.length * tall + 26);
  // Rates and delays begin at nought; what hardly moves, as a voltage, is drawn over its range.
  function y(points: Points, was: Points, i: number, fromNought: boolean) {
    const lows = [...points, ...was].map((p) => p.low);
    const tops = [...points, ...was].map((p) => p.top);
    const least = fromNought ? Math.min(0, ...lows) : Math.min(...lows);
    const most = Math.max(least + 1e-6, ...tops);
    return scaleLinear([least, most], [i * tall + tall - 10, i * tall + 22]).nice(3);
  }
  function band(points: Points, scale: (v: number) => number): string {
    if (points.length === 0) return '';
    const there = points.map((p) => `${x(p.x).toFixed(1)},${scale(p.top).toFixed(1)}`);
    const back = points.map((p) => `${x(p.x).toFixed(1)},${(scale(p.low) + 1.2).toFixed(1)}`).reverse();
    return `M${there.join('L')}L${back.join('L')}Z`;
  }
  const line = (points: Points, scale: (v: number) => number) =>
    points.length === 0 ? '' : `M${points.map((p) => `${x(p.x).toFixed(1)},${scale(p.low).toFixed(1)}`).join('L')}`;
  const clock = (s: number) => `${Math.floor(s / 60)}:${String(Math.round(s % 60)).padStart(2, '0')}`;
  const marks = $derived(byDistance ? [] : recording.marks.filter((m) => m.part === recording.part));

  let start: number | undefined;
  const at = (event: PointerEvent & { currentTarget: SVGElement }) =>
    Math.max(0, x.invert(event.clientX - event.currentTarget.getBoundingClientRect().left));
  const tenth = (v: number) => Math.round(v * 10) / 10;
</script>

<figure class="m-0 min-w-0" bind:clientWidth={width}>
  <svg
    class="block w-full touch-pan-y select-none"
    {height}
    viewBox={`0 0 ${width} ${height}`}
    aria-hidden="true"
    onpointerdown={(e) => {
      if (!byDistance) start = at(e);
    }}
    onpointermove={(e) => {
      if (start === undefined) return;
      const now = at(e);
      if (Math.abs(now - start) > 0.2) onrange(tenth(Math.min(start, now)), tenth(Math.max(start, now)));
    }}
    onpointerup={() => (start = undefined)}
    onpointerleave={() => (start = undefined)}
  >
    {#if !byDistance}
      {#each recording.worst as w, i (i)}<rect
          class="worst"
          x={x(w.fromS)}
          width={Math.max(2, x(w.toS) - x(w.fromS))}
          y={4}
          height={rows.length * tall - 8}
        />{/each}
      {#if to > from}<rect
          class="picked"
          x={x(from)}
          width={Math.max(1, x(to) - x(from))}
          y={4}
          height={rows.length * tall - 8}
        />{/if}
    {/if}
    {#each rows as r, i (r.name)}
      {@const scale = y(r.is, r.was, i, r.fromNought)}
      <text x={edge.left + 4} y={i * tall + 14} class="name">{r.name}, {r.unit}</text>
      {#each scale.ticks(3) as t (t)}
        <line class="grid-line" x1={edge.left} x2={width - edge.right} y1={scale(t)} y2={scale(t)} />
        <text x={edge.left - 6} y={scale(t) + 4} text-anchor="end">{t}</text>
      {/each}
      <path class="band" d={band(r.is, scale)} />
      {#if r.was.length > 0}<path class="was" d={line(r.was, scale)} />{/if}
    {/each}
    {#each marks as m, i (i)}
      <line class="mark" x1={x(m.fromS)} x2={x(m.toS)} y1={21} y2={21} />
      <text class="name" x={(x(m.fromS) + x(m.toS)) / 2} y={15} text-anchor="middle">{spotName(m.spot)}</text>
    {/each}
    {#each x.ticks(Math.max(2, width / 130)) as t (t)}
      <text x={x(t)} y={height - 8} text-anchor="middle">{byDistance ? `${t} m` : clock(t)}</text>
    {/each}
  </svg>
  <figcaption class="soft text-note">
    {byDistance
      ? 'The bit rate over the distance: between its lowest and its highest.'
      : 'Drag over it to pick a stretch. Shaded: where the bit rate is lowest on the whole.'}
    {over ? ' Dashed: the lowest of the flight laid over it.' : ''}
  </figcaption>
</figure>

<style>
  text {
    font-size: 12px;
    fill: var(--soft);
  }
  .name {
    font-weight: 650;
    fill: var(--ink);
  }
  .grid-line {
    stroke: var(--line);
  }
  .band {
    fill: var(--accent);
    stroke: var(--accent);
    stroke-width: 1;
  }
  .was {
    fill: none;
    stroke: var(--focus);
    stroke-width: 2;
    stroke-dasharray: 5 3;
  }
  .worst {
    fill: var(--caution-wash);
  }
  .picked {
    fill: var(--change-wash);
    stroke: var(--change);
  }
  .mark {
    stroke: var(--ink);
    stroke-width: 4;
  }
</style>
