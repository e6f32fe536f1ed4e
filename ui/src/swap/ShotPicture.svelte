<script lang="ts">
  // What the camera sees of its own quad: the picture with what lies in it, at the tilt it is
  // flown at.
  import { type MountView, type Patch } from '../api/client.svelte';
  import { fixed } from '../lib/words';

  interface Props {
    shot: NonNullable<MountView['room']['shot']>;
    onpick: (patch: Patch, says: string) => void;
  }
  let { shot, onpick }: Props = $props();

  const tan = (deg: number) => Math.tan((deg * Math.PI) / 360);
  const high = $derived((100 * tan(shot.viewYDeg)) / tan(shot.viewXDeg)); // half the picture's height, to a half width of 100
  const outline = (points: number[][]) => points.map(([x, y]) => `${100 * (x ?? 0)},${-high * (y ?? 0)}`).join(' ');
  const tilt = (by: number) => onpick({ tiltDeg: shot.tiltDeg + by }, `Tilted by ${fixed(shot.tiltDeg + by, 0)}°.`);
</script>

<section class="panel grid gap-2 px-4 py-3" aria-labelledby="shot">
  <h3 id="shot">What the camera sees of its quad</h3>
  <div class="grid gap-3 min-[620px]:grid-cols-[minmax(0,320px)_minmax(0,1fr)] items-start">
    <svg viewBox={`-102 ${-high - 2} 204 ${2 * high + 4}`} class="w-full" role="img" aria-label="The picture">
      <rect x="-100" y={-high} width="200" height={2 * high} class="sky" />
      <path d="M-6 0H6M0-6V6" class="cross" />
      {#each shot.seen as s, i (i)}
        <g
          >{#each s.outlines as piece, k (k)}<polygon points={outline(piece)} class:piece={s.outlines.length > 1}
              ><title>{s.label}</title></polygon
            >{/each}</g
        >
      {/each}
    </svg>
    <div class="grid gap-2">
      {#if shot.seen.length === 0}
        <p>{shot.says}</p>
      {:else}
        <ul aria-label={`In the shot, tilted by ${fixed(shot.tiltDeg, 0)}°`}>
          {#each shot.seen as s, i (i)}
            <li class="border-t border-t-line py-1">
              <b>{s.label}</b>
              {s.where}
            </li>
          {/each}
        </ul>
        <p>{shot.frees}</p>
      {/if}
      <p class="soft text-note">
        {fixed(shot.viewXDeg, 0)}° wide and {fixed(shot.viewYDeg, 0)}° high, drawn without the lens's distortion; what
        lies behind something else is counted too.
      </p>
      <p class="buttons">
        <button type="button" class="button" disabled={shot.tiltDeg >= 85} onclick={() => tilt(5)}>Tilt 5° more</button>
        <button type="button" class="button" disabled={shot.tiltDeg <= -85} onclick={() => tilt(-5)}
          >Tilt 5° less</button
        >
      </p>
    </div>
  </div>
</section>

<style>
  .sky {
    fill: var(--line);
    fill-opacity: 0.25;
    stroke: var(--soft);
  }
  .cross {
    stroke: var(--soft);
    fill: none;
  }
  polygon {
    fill: var(--soft);
    stroke: var(--ink);
    stroke-width: 0.8;
    stroke-linejoin: round;
  }
  g {
    opacity: 0.55;
  }
  .piece {
    stroke: var(--soft);
    stroke-width: 0.3;
  }
</style>
