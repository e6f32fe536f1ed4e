<script lang="ts">
  // Who states something of a pair: a sheet, or somebody who has tried it.
  let { from = $bindable() }: { from: string } = $props();
</script>

<label class="grid gap-0.5"
  >Who says so<input maxlength="400" placeholder="a sheet, or you tried it" bind:value={from} /></label
>
