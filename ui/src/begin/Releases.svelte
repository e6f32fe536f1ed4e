<script lang="ts">
  // On which releases of both a statement about a pair holds: dragged over those there are,
  // or typed.
  import ReleaseBar from '../lib/ReleaseBar.svelte';

  interface Props {
    unit: string;
    goggles: string;
    unitReleases?: string[];
    gogglesReleases?: string[];
  }
  let { unit = $bindable(), goggles = $bindable(), unitReleases = [], gogglesReleases = [] }: Props = $props();
</script>

<div class="grid gap-2 cols-fit-[17rem] items-end">
  <div class="grid gap-1">
    <ReleaseBar label="releases of the air unit" releases={unitReleases} bind:range={unit} />
    <label class="grid gap-0.5"
      >Air unit: on which releases, empty for any<input
        maxlength="200"
        placeholder="such as >=1.0.4"
        bind:value={unit}
      /></label
    >
  </div>
  <div class="grid gap-1">
    <ReleaseBar label="releases of the goggles" releases={gogglesReleases} bind:range={goggles} />
    <label class="grid gap-0.5"
      >Goggles: on which releases, empty for any<input
        maxlength="200"
        placeholder="such as 2.2"
        bind:value={goggles}
      /></label
    >
  </div>
</div>
