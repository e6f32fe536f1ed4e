<script lang="ts">
  // An address that leads nowhere.
</script>

<section>
  <h1>There is nothing at this address</h1>
  <p>Go to the <a href="#/">Fleet</a>.</p>
</section>

<style>
  section {
    padding: 2rem 0;
    display: grid;
    gap: 0.5rem;
  }
</style>
