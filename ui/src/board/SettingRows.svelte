<script lang="ts">
  // Each setting as it is wanted and as it was found; what differs comes first.
  import type { Comparison } from '../api/client.svelte';

  interface Props {
    rows: Comparison['rows'];
    /** What the settings are held against: a board that was read, or the quad today. */
    against?: string;
  }
  let { rows, against = 'found' }: Props = $props();
  const sorted = $derived([...rows.filter((r) => !r.same), ...rows.filter((r) => r.same)]);
</script>

<table class="rows stacks">
  <thead
    ><tr
      ><th scope="col">setting</th><th scope="col">wanted</th><th scope="col">{against}</th><th scope="col">why</th></tr
    ></thead
  >
  <tbody>
    {#each sorted as r (r.label)}
      <tr class:differs={!r.same}>
        <th scope="row"
          ><span aria-hidden="true">{r.same ? '✓' : '≠'}</span>
          {r.label}{#if !r.same}<small class="block text-soft ml-5">differs</small>{:else}<span class="unseen"
              >the same</span
            >{/if}</th
        >
        <td data-label="wanted">{r.wanted}</td>
        <td data-label={against}>{r.found}</td>
        <td class="why text-soft">{r.why}</td>
      </tr>
    {/each}
  </tbody>
</table>

<style>
  @media (min-width: 761px) {
    th:first-child {
      width: 21%;
    }
    td:nth-child(2) {
      width: 23%;
    }
    td:last-child {
      width: 24%;
    }
  }
  .differs th,
  .differs td {
    background: var(--change-wash);
    font-weight: 650;
  }
  .differs .why,
  .differs small {
    font-weight: 500;
    color: var(--ink);
  }
</style>
