<script lang="ts">
  // An antenna's pattern in polar form: its strongest direction up, rings at 3, 10
  // and 20 dB less, the rim at none.
  interface Props {
    pattern: number[] | undefined;
    label: string;
    size?: number;
  }
  let { pattern, label, size = 84 }: Props = $props();
  const lowest = -30;
  const middle = $derived(size / 2);
  const radius = (dB: number) => (middle - 3) * Math.max(0, 1 - dB / lowest);
  const points = $derived.by(() => {
    if (!pattern) return '';
    const half = pattern.map(
      (dB, i) => [Math.sin((i * Math.PI) / 18) * radius(dB), -Math.cos((i * Math.PI) / 18) * radius(dB)] as const,
    );
    const left = half
      .slice(1, -1)
      .reverse()
      .map(([x, y]) => [-x, y] as const);
    return [...half, ...left].map(([x, y]) => `${(middle + x).toFixed(1)},${(middle + y).toFixed(1)}`).join(' ');
  });
</script>

<svg width={size} height={size} viewBox={`0 0 ${size} ${size}`} role="img" aria-label={label}>
  {#each [0, -3, -10, -20] as ring (ring)}<circle
      cx={middle}
      cy={middle}
      r={radius(ring)}
      class:rim={ring === 0}
      class:half={ring === -3}
    />{/each}
  <path d={`M ${middle} 3 V ${size - 3} M 3 ${middle} H ${size - 3}`} />
  {#if pattern}<polygon {points} />{:else}<text x={middle} y={middle + 6} text-anchor="middle">?</text>{/if}
</svg>

<style>
  circle,
  path {
    fill: none;
    stroke: var(--line);
  }
  circle.rim {
    stroke: var(--soft);
  }
  circle.half {
    stroke-dasharray: 3 3;
    stroke: var(--soft);
  }
  polygon {
    fill: var(--accent-wash);
    fill-opacity: 0.7;
    stroke: var(--accent);
    stroke-width: 2;
    stroke-linejoin: round;
  }
  text {
    fill: var(--ink);
    font-size: 18px;
    font-weight: 700;
  }
</style>
