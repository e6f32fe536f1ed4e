<script lang="ts">
  // The next step on the real device: what is read off it afterwards is
  // recorded, and the rest is planned again from there.
  import { Button, Input } from 'flowbite-svelte';
  import type { RouteView } from '../api/client';

  interface Props {
    step: RouteView['plan']['steps'][number];
    onread: (firmware: string | undefined) => void;
  }
  let { step, onread }: Props = $props();
  let read = $state('');
  let wrong = $state('');

  function record(event: SubmitEvent) {
    event.preventDefault();
    const version = read.trim();
    if (step.to && version === '') {
      wrong = `Read the release off ${step.label} and enter it, whatever it says.`;
      return;
    }
    wrong = '';
    onread(step.to ? version : undefined);
  }
</script>

<form class="panel" onsubmit={record} aria-label="Take the next step">
  <h2>Next on the real thing: {step.to ? `put ${step.to} on ${step.label}` : `activate ${step.label}, or see that it is`}</h2>
  <p class="soft">
    {step.tools.length > 0 ? `In ${step.tools.join(' or ')}, over a data cable.` : 'Over a data cable.'}
    {step.power === 'pack' ? 'It shows only while it runs from a pack: props off, a fan on the unit, short runs.' : ''}
  </p>
  {#if step.oneWay}<p class="warn">One-way door: the old release cannot be put back afterwards.</p>{/if}
  {#if step.to}
    <label for="read">release now read off {step.label}</label>
    <div class="row"><Input id="read" size="sm" bind:value={read} autocomplete="off" class="read" aria-invalid={wrong !== ''} /><Button type="submit" size="sm">Record what it says</Button></div>
  {:else}
    <div class="row"><Button type="submit" size="sm">It is activated</Button></div>
  {/if}
  {#if wrong}<p class="warn" role="alert">{wrong}</p>{/if}
  <p class="soft">If it says something else than planned, record that: the rest is planned again from there.</p>
</form>

<style>
  form {
    padding: 0.8rem 1rem;
    display: grid;
    gap: 0.35rem;
    margin: 0 0 1rem;
    max-width: 640px;
  }
  h2 {
    font-weight: 700;
  }
  .row {
    display: flex;
    gap: 0.6rem;
    align-items: center;
    flex-wrap: wrap;
  }
  form :global(.read) {
    background-color: var(--raised);
    color: var(--ink);
    min-height: 42px;
    width: 10rem;
  }
  .warn {
    color: var(--unfit);
    font-weight: 700;
  }
  label {
    font-weight: 600;
  }
</style>
