<script lang="ts">
  // The quad in plan and from the side, to scale. A part is dragged in the plan or moved by
  // keys, turned by quarters, or has a place found; what meets is marked, with a word.
  import type { MountView, Patch } from '../api/client.svelte';
  import { fixed } from '../lib/words';
  import { outlinePath } from '../shelf/corners';
  import FrameParts from './FrameParts.svelte';
  import RoomParts from './RoomParts.svelte';

  interface Props {
    quad: string;
    room: MountView['room'];
    balance: MountView['balance'];
    onpick: (patch: Patch, says: string) => void;
  }
  let { quad, room, balance, onpick }: Props = $props();
  type Block = MountView['room']['blocks'][number];

  let moving = $state<{ part: string; x: number; y: number } | null>(null); // by how far, in mm

  const parts = $derived(room.blocks.filter((b) => b.place));
  // Of what lies over another the smaller is drawn on top, so that each can be taken hold of.
  const area = (b: Block) => ((b.max[0] ?? 0) - (b.min[0] ?? 0)) * ((b.max[1] ?? 0) - (b.min[1] ?? 0));
  const drawn = $derived(parts.toSorted((a, b) => area(b) - area(a)));
  const frame = $derived(room.blocks.filter((b) => !b.place));
  const ends = (axis: number) => {
    const all = [
      ...room.blocks.flatMap((b) => [b.min[axis] ?? 0, b.max[axis] ?? 0]),
      ...room.rods.flatMap((r) => [r.foot[axis] ?? 0, r.tip[axis] ?? 0]),
    ];
    const beside = axis === 1 && room.rounds.length > 0 ? 40 : 12; // something of the propellers is seen
    return [Math.min(-20, ...all) - beside, Math.max(20, ...all) + beside] as const;
  };
  const [x, y, z] = $derived([ends(0), ends(1), ends(2)]);

  // Forward points up in the plan, the left lies left; from the side, forward points left.
  const shift = (b: Block, axis: 0 | 1) => (moving && moving.part === b.part ? (axis === 0 ? moving.x : moving.y) : 0);
  const plan = (b: Block, of: Block = b) => ({
    x: -((b.max[1] ?? 0) + shift(of, 1)),
    y: -((b.max[0] ?? 0) + shift(of, 0)),
    width: (b.max[1] ?? 0) - (b.min[1] ?? 0),
    height: (b.max[0] ?? 0) - (b.min[0] ?? 0),
  });
  const side = (b: Block, of: Block = b) => ({
    x: -((b.max[0] ?? 0) + shift(of, 0)),
    y: -(b.max[2] ?? 0),
    width: (b.max[0] ?? 0) - (b.min[0] ?? 0),
    height: (b.max[2] ?? 0) - (b.min[2] ?? 0),
  });

  function put(place: NonNullable<Block['place']>, says: string) {
    onpick({ place: { ...place, out: false } }, says);
  }
  const moved = (b: Block, by: { x?: number; y?: number; z?: number; turn?: number }) =>
    put(
      {
        ...b.place!,
        xMM: b.place!.xMM + (by.x ?? 0),
        yMM: b.place!.yMM + (by.y ?? 0),
        zMM: b.place!.zMM + (by.z ?? 0),
        quarters: ((b.place!.quarters ?? 0) + (by.turn ?? 0) + 4) % 4,
      },
      `Moved: ${b.label}.`,
    );

  let from = { x: 0, y: 0, perMM: 1 };
  function down(event: PointerEvent, b: Block) {
    const shape = event.currentTarget as SVGGraphicsElement;
    const drawing = shape.ownerSVGElement!;
    from = { x: event.clientX, y: event.clientY, perMM: drawing.getBoundingClientRect().width / (y[1] - y[0]) };
    moving = { part: b.part!, x: 0, y: 0 };
    shape.setPointerCapture(event.pointerId);
  }
  function move(event: PointerEvent) {
    if (!moving) return;
    moving.x = -Math.round((event.clientY - from.y) / from.perMM);
    moving.y = -Math.round((event.clientX - from.x) / from.perMM);
  }
  function up(b: Block) {
    const by = moving;
    moving = null;
    if (!by || (by.x === 0 && by.y === 0)) return;
    const snap = b.snap;
    const near = (to: number, at: number) => Math.abs(to - at) <= 4;
    if (snap && near(b.place!.xMM + by.x, snap.xMM) && near(b.place!.yMM + by.y, snap.yMM))
      put(snap, `Onto its holes: ${b.label}.`);
    else moved(b, by);
  }
  function onkeydown(event: KeyboardEvent, b: Block) {
    const step = event.shiftKey ? 10 : 1;
    const by = {
      ArrowUp: { x: step },
      ArrowDown: { x: -step },
      ArrowLeft: { y: step },
      ArrowRight: { y: -step },
      PageUp: { z: step },
      PageDown: { z: -step },
      r: { turn: 1 },
    }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    moved(b, by);
  }
  // Where something comes out, as a point outwards from the middle of its side.
  const ways: Record<string, [number, number, number]> = {
    front: [1, 0, 0],
    rear: [-1, 0, 0],
    left: [0, 1, 0],
    right: [0, -1, 0],
    top: [0, 0, 1],
    bottom: [0, 0, -1],
  };
  function point(b: Block, to: string, view: 'plan' | 'side') {
    const way = ways[to];
    if (!way || (view === 'plan' ? way[2] : way[1]) !== 0) return ''; // not seen from there
    const at = way.map((w, i) => {
      const middle = ((b.min[i] ?? 0) + (b.max[i] ?? 0)) / 2;
      return w === 0 ? middle : w > 0 ? (b.max[i] ?? 0) : (b.min[i] ?? 0);
    });
    const corner = (out: number, beside: number) => {
      const p = at.map((v, i) => v + (way[i] ?? 0) * out);
      if (view === 'plan') return [-(p[1]! + (way[0] !== 0 ? beside : 0)), -(p[0]! + (way[1] !== 0 ? beside : 0))];
      return [-(p[0]! + (way[2] !== 0 ? beside : 0)), -(p[2]! + (way[0] !== 0 ? beside : 0))];
    };
    return [corner(0, 2), corner(3.5, 0), corner(0, -2)].map((p) => p.join(',')).join(' ');
  }
  // The edges of what the camera sees, as far as they are drawn.
  function edges(shot: NonNullable<MountView['room']['shot']>, from: 'plan' | 'side') {
    const [lensX, lensY, lensZ] = shot.lens as [number, number, number];
    const middle = from === 'plan' ? shot.turned : shot.tiltDeg;
    const half = (from === 'plan' ? shot.viewXDeg : shot.viewYDeg) / 2;
    const start = from === 'plan' ? [-lensY, -lensX] : [-lensX, -lensZ];
    const end = (deg: number) => {
      const rad = (deg * Math.PI) / 180;
      const [ahead, up] = [60 * Math.cos(rad), 60 * Math.sin(rad)];
      return from === 'plan' ? [-lensY - up, -lensX - ahead] : [-lensX - ahead, -lensZ - up];
    };
    return [end(middle + half), start, end(middle - half)].map((p) => p.join(',')).join(' ');
  }
  const lies = (b: Block) => `${b.label}, ${b.lies}${b.clashes ? ', meets another' : ''}`;
</script>

<section class="panel grid gap-2 px-4 py-3" aria-labelledby="room">
  <h3 id="room">Where it lies</h3>
  {#if parts.length === 0}
    <p class="soft">Nothing has a place yet{room.loose.length > 0 ? ': find one below.' : '.'}</p>
  {:else}
    <div class="grid gap-3 min-[700px]:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] items-start">
      <figure>
        <figcaption class="soft text-note">
          from above, forward up; drag a part, or focus it and use the arrows, Page keys and r
        </figcaption>
        <svg
          viewBox={`${-y[1]} ${-x[1]} ${y[1] - y[0]} ${x[1] - x[0]}`}
          class="max-h-96 w-full"
          role="group"
          aria-label="Plan"
        >
          {#each room.rounds as r, i (i)}
            <circle
              cx={-r.yMM}
              cy={-r.xMM}
              r={r.diameterMM / 2}
              class="frame"
              class:sweeps={r.propeller}
              class:clashes={r.clashes}
            />
          {/each}
          {#each frame as b, i (i)}
            {#if b.outlines}<path d={outlinePath(b.outlines)} fill-rule="evenodd" class="frame" />
            {:else}<rect {...plan(b)} class="frame" class:post={b.post} />{/if}
          {/each}
          {#if room.shot}<polyline class="view" points={edges(room.shot, 'plan')} />{/if}
          {#each room.rods as r, i (i)}
            <line
              x1={-(r.foot[1] ?? 0)}
              y1={-(r.foot[0] ?? 0)}
              x2={-(r.tip[1] ?? 0)}
              y2={-(r.tip[0] ?? 0)}
              stroke-width={r.diameterMM}
              class="rod"
              class:clashes={r.clashes}
            />
          {/each}
          {#each drawn as b (b.part)}
            {#each b.free ?? [] as f, i (i)}<rect {...plan(f, b)} class="free" class:clashes={f.clashes} />{/each}
            <rect
              {...plan(b)}
              class="part"
              class:clashes={b.clashes}
              tabindex="0"
              role="button"
              aria-label={lies(b)}
              onpointerdown={(e) => down(e, b)}
              onpointermove={move}
              onpointerup={() => up(b)}
              onkeydown={(e) => onkeydown(e, b)}
            />
            <text
              x={plan(b).x + plan(b).width / 2}
              y={plan(b).y + plan(b).height / 2}
              text-anchor="middle"
              dominant-baseline="middle">{b.clashes ? '✕ ' : ''}{b.label}</text
            >
            {#if !moving}
              {#each b.openings ?? [] as o, i (i)}<polygon
                  points={point(b, o.side, 'plan')}
                  class="opening"
                  class:clashes={o.before}
                />{/each}
            {/if}
          {/each}
        </svg>
      </figure>
      <figure>
        <figcaption class="soft text-note">from the side, forward to the left</figcaption>
        <svg
          viewBox={`${-x[1]} ${-z[1]} ${x[1] - x[0]} ${z[1] - z[0]}`}
          class="max-h-60 w-full"
          role="img"
          aria-label="Side view"
        >
          {#each room.rounds as r, i (i)}
            <rect
              x={-r.xMM - r.diameterMM / 2}
              y={-r.toMM}
              width={r.diameterMM}
              height={r.toMM - r.fromMM}
              class="frame"
              class:sweeps={r.propeller}
              class:clashes={r.clashes}
            />
          {/each}
          {#each frame as b, i (i)}<rect {...side(b)} class="frame" class:post={b.post} />{/each}
          {#if room.shot}<polyline class="view" points={edges(room.shot, 'side')} />{/if}
          {#each room.rods as r, i (i)}
            <line
              x1={-(r.foot[0] ?? 0)}
              y1={-(r.foot[2] ?? 0)}
              x2={-(r.tip[0] ?? 0)}
              y2={-(r.tip[2] ?? 0)}
              stroke-width={r.diameterMM}
              class="rod"
              class:clashes={r.clashes}
            />
          {/each}
          {#each parts as b (b.part)}
            {#each b.free ?? [] as f, i (i)}<rect {...side(f, b)} class="free" class:clashes={f.clashes} />{/each}
            <rect {...side(b)} class="part" class:clashes={b.clashes} />
            <text
              x={side(b).x + side(b).width / 2}
              y={side(b).y + side(b).height / 2}
              text-anchor="middle"
              dominant-baseline="middle">{b.label}</text
            >
            {#each b.openings ?? [] as o, i (i)}<polygon
                points={point(b, o.side, 'side')}
                class="opening"
                class:clashes={o.before}
              />{/each}
          {/each}
        </svg>
      </figure>
    </div>
  {/if}
  {#if balance.xMM !== undefined}
    <p>
      What has a place weighs {fixed(balance.countedG, 1)} g together and balances {fixed(Math.abs(balance.xMM), 1)} mm
      {balance.xMM < 0 ? 'behind' : 'ahead of'} the origin{balance.left.length > 0
        ? `, without ${balance.left.join(', ')}: no mass of its own is stated`
        : ''}.
      {#if balance.packMM !== undefined}Moving the pack by 10 mm moves the balance of the whole quad by {fixed(
          balance.packMM,
          1,
        )} mm.{/if}
    </p>
  {/if}
  <RoomParts {quad} {parts} loose={room.loose} {onpick} {put} turn={(b) => moved(b, { turn: 1 })} />
  <FrameParts plates={room.plates} standoffs={room.standoffs} {onpick} />
  {#if room.lacks.length > 0}<p class="soft text-note">Not drawn for want of: {room.lacks.join(', ')}.</p>{/if}
</section>

<style>
  svg {
    touch-action: none;
  }
  rect {
    stroke-width: 0.6;
    vector-effect: none;
  }
  .frame {
    fill: var(--line);
    fill-opacity: 0.25;
    stroke: var(--soft);
  }
  .post {
    fill-opacity: 0.8;
  }
  .part {
    fill: var(--accent);
    fill-opacity: 0.25;
    stroke: var(--accent);
    cursor: grab;
  }
  .part:focus-visible {
    stroke-width: 1.6;
    outline: none;
  }
  .clashes {
    stroke: var(--unfit);
    stroke-dasharray: 2 1;
    stroke-width: 1.2;
  }
  .sweeps {
    fill-opacity: 0.08;
    stroke-dasharray: 4 2;
  }
  circle,
  path,
  polyline {
    stroke-width: 0.6;
  }
  .view {
    fill: none;
    stroke: var(--ink);
    stroke-dasharray: 1 2;
  }
  .rod {
    stroke: var(--accent);
    stroke-linecap: round;
    stroke-opacity: 0.7;
  }
  .rod.clashes {
    stroke: var(--unfit);
  }
  .opening {
    fill: var(--ink);
    stroke: var(--ink);
    stroke-width: 0.4;
    pointer-events: none;
  }
  .opening.clashes {
    fill: none;
  }
  .free {
    fill: none;
    stroke: var(--soft);
    stroke-dasharray: 1.5 1.5;
  }
  text {
    font-size: 6.5px;
    fill: var(--ink);
    pointer-events: none;
  }
</style>
