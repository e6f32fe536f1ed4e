<script lang="ts">
  // An address that leads nowhere.
</script>

<section class="grid gap-2 px-0 py-8">
  <h1>There is nothing at this address</h1>
  <p>Go to the <a href="#/">Fleet</a>.</p>
</section>
