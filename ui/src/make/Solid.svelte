<script lang="ts">
  // A mesh to turn and look at from all sides. The script for it is fetched here and nowhere
  // else; where a browser shows no 3D, that is said and the flat drawing stands beside.
  import { onMount } from 'svelte';
  import type { Shown } from './solid';

  let { src, label }: { src: string; label: string } = $props();
  let box: HTMLDivElement;
  let shown: Shown | null = null;
  let failed = $state('');

  async function show(url: string) {
    if (!shown) return;
    failed = await shown.load(url);
  }
  onMount(() => {
    let gone = false;
    void import('./solid')
      .then(({ view }) => {
        if (gone) return;
        shown = view(box);
        if (shown) void show(src);
        else failed = 'This browser shows no 3D here.';
      })
      .catch(() => (failed = 'The 3D view could not be fetched.'));
    return () => {
      gone = true;
      shown?.close();
    };
  });
  $effect(() => {
    void show(src);
  });
  function onkeydown(event: KeyboardEvent) {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (!by || !shown) return;
    event.preventDefault();
    shown.turn(by[0]! * 0.15, by[1]! * 0.15);
  }
</script>

<div>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <div
    bind:this={box}
    class="h-64 w-full rounded border border-line"
    role="img"
    aria-label={label}
    tabindex="0"
    {onkeydown}
  ></div>
  <p class="soft text-note">{failed || 'Drag it, or turn it with the arrow keys.'}</p>
</div>
