<script lang="ts">
  // Releases in a row, over which a range is dragged; by keys, from the one pressed first to
  // the one pressed next. What lies before and after the row counts as a place of its own.
  import { rangeOf, spanOf } from './range';

  interface Props {
    label: string;
    releases: string[]; // the oldest first
    range: string; // as it is stated; empty: any
  }
  let { label, releases, range = $bindable() }: Props = $props();

  const places = $derived(['earlier', ...releases, 'later']);
  const span = $derived(spanOf(releases, range));
  let first = $state<number | null>(null);
  let dragging = false;

  function to(i: number) {
    if (first === null) return;
    range = rangeOf(releases, Math.min(first, i), Math.max(first, i));
  }
  function down(i: number, event: PointerEvent) {
    (event.currentTarget as Element).releasePointerCapture?.(event.pointerId);
    dragging = true;
    first = i;
    to(i);
  }
  function up() {
    if (dragging) first = null;
    dragging = false;
  }
  function press(i: number, event: MouseEvent) {
    if (event.detail > 0) return; // a pointer: it was dragged
    if (first === null) {
      first = i;
      to(i);
    } else {
      to(i);
      first = null;
    }
  }
</script>

<svelte:window onpointerup={up} onpointercancel={up} />
{#if releases.length > 0}
  <div class="flex flex-wrap gap-0.5 touch-none select-none" role="group" aria-label={label}>
    {#each places as place, i (place)}
      <button
        type="button"
        class={[
          'min-h-9 max-sm:min-h-11 px-2 border text-note',
          span && i >= span[0] && i <= span[1]
            ? 'bg-accent text-accent-ink border-accent font-semibold'
            : 'bg-raised text-ink border-soft',
          (i === 0 || i === places.length - 1) && 'italic',
        ]}
        aria-pressed={span !== null && i >= span[0] && i <= span[1]}
        onpointerdown={(e) => down(i, e)}
        onpointerenter={(e) => e.buttons === 1 && dragging && to(i)}
        onclick={(e) => press(i, e)}>{place}</button
      >
    {/each}
  </div>
{/if}
