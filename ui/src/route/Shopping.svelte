<script lang="ts">
  // What to have before the bench day: what stops it first.
  import { onMount } from 'svelte';
  import { api, place, type Shopping } from '../api/client.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';
  import { money, sums } from '../lib/words';
  import Scroll from '../lib/Scroll.svelte';

  const list = new Loaded<Shopping>();
  onMount(() => void list.take(api.shopping()));
  const buy = $derived(list.data?.items.filter((i) => i.buy > 0) ?? []);
  const stops = $derived(buy.filter((i) => i.stops).length);
  const bill = $derived(list.data?.bill);
  const total = $derived(sums(bill?.totals ?? []));
</script>

{#snippet stated(value: number | undefined, words: (value: number) => string)}
  {#if value === undefined}<td class="soft whitespace-nowrap">not stated</td>{:else}<td class="mono whitespace-nowrap"
      >{words(value)}</td
    >{/if}
{/snippet}

{#if list.failure}
  <FailureNote failure={list.failure} again={() => list.take(api.shopping())} />
{:else if list.data}
  <div class="title">
    <h1>
      {buy.length === 0
        ? 'Nothing to buy before the bench day'
        : `${buy.length} to buy before the bench day, ${stops} of which would stop it`}
    </h1>
    <span class="screen-only flex gap-3 items-center ml-auto"
      ><a href={`${place}/api/shopping.csv`} download>CSV</a>
      <button type="button" class="button" onclick={() => print()}>Print</button></span
    >
  </div>
  <p class="soft">From every plan of the fleet, beyond what each quad carries today and what lies in the drawer.</p>
  {#if bill && buy.length > 0}
    <p>
      {#if total}<b>{total}</b>{bill.together
          ? `, together ${money(bill.together.amount, bill.together.currency)} (${bill.at?.join(', ')})`
          : ''}{bill.unpriced > 0 ? `, and ${bill.unpriced} without a price` : ' in all'}.{:else}No prices are stated.{/if}
      {#if bill.days !== undefined}
        Order <b>{bill.days} days</b> before the bench day: the slowest part that would stop it takes that long{bill.undated >
        0
          ? `, and ${bill.undated} do not say`
          : ''}.
      {:else if bill.undated > 0}How long the parts take to come is not stated.{/if}
    </p>
  {/if}
  {#if list.data.items.length > 0}
    <Scroll label="Parts" of="panel mt-3">
      <table class="rows">
        <thead
          ><tr
            ><th scope="col">part</th><th scope="col">need</th><th scope="col">have</th><th scope="col">buy</th><th
              scope="col">one costs</th
            ><th scope="col">comes in</th><th scope="col">one weighs</th><th scope="col">for</th><th scope="col"
              >note</th
            ></tr
          ></thead
        >
        <tbody>
          {#each list.data.items as i, n (n)}
            <tr class:buy={i.buy > 0}>
              <th class="font-semibold" scope="row"
                >{i.label}{#if i.buy > 0 && i.stops}<small class="block text-unfit font-semibold">stops the day</small
                  >{/if}</th
              >
              <td class="mono whitespace-nowrap">{i.need}</td><td class="mono whitespace-nowrap">{i.have}</td><td
                class="mono whitespace-nowrap"
                ><b>{i.buy > 0 ? i.buy : '✓ none'}</b>{#if i.boxed}<small class="block whitespace-normal"
                    >{i.boxed} {i.boxed === 1 ? 'comes' : 'come'} in a box</small
                  >{/if}{#if i.buy > 0 && i.with}<small class="block whitespace-normal">with {i.with.join(', ')}</small
                  >{/if}</td
              >
              {@render stated(
                i.offer?.price,
                (price) =>
                  money(price, i.offer?.currency ?? '') +
                  (i.used?.price === undefined || i.buy === 0
                    ? ''
                    : `, used ${money(i.used.price, i.used.currency ?? '')}`),
              )}
              {@render stated(i.offer?.days, (days) => `${days} days`)}
              {@render stated(i.massG, (grams) => `${grams} g`)}
              <td>{i.for.join(', ')}</td><td>{i.note ?? ''}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </Scroll>
  {/if}
{:else}
  <p class="soft" role="status">Adding up…</p>
{/if}

<style>
  .buy th {
    border-left: 5px solid var(--change);
  }
</style>
