<script lang="ts">
  // On which releases of both a statement about a pair holds.
  let { unit = $bindable(), goggles = $bindable() }: { unit: string; goggles: string } = $props();
</script>

<div class="grid gap-2 cols-fit-[13rem]">
  <label class="grid gap-0.5"
    >Air unit: on which releases, empty for any<input
      maxlength="200"
      placeholder="such as >=1.0.4"
      bind:value={unit}
    /></label
  >
  <label class="grid gap-0.5"
    >Goggles: on which releases, empty for any<input
      maxlength="200"
      placeholder="such as 2.2"
      bind:value={goggles}
    /></label
  >
</div>
