<script lang="ts">
  // One step on the real device: what is read off it afterwards is recorded,
  // and the rest is planned again from there.
  import { Button, Input } from 'flowbite-svelte';
  import type { Read, RouteStep } from '../api/client.svelte';
  import Caution from '../lib/Caution.svelte';
  import { capital } from './words';

  interface Props {
    step: RouteStep;
    onread: (read: Omit<Read, 'revision'>) => void;
  }
  let { step, onread }: Props = $props();
  let version = $state('');
  let wrong = $state('');

  const update = $derived(step.do === 'update');
  const read = $derived({
    device: step.device,
    do: step.do as Read['do'],
    ...(step.do === 'update' ? { planned: step.to } : {}),
  });

  function record(event: SubmitEvent) {
    event.preventDefault();
    const says = version.trim();
    if (update && says === '') {
      wrong = `Read the release off ${step.label} and enter it, whatever it says.`;
      return;
    }
    wrong = '';
    if (update) onread({ ...read, firmware: says });
    else if (step.do === 'mode') onread({ ...read, mode: step.mode });
    else onread(read);
  }
</script>

<form class="panel grid gap-2 px-5 pt-4.5 pb-5" onsubmit={record} aria-labelledby="take">
  <h2 class="step" id="take">{capital(step.says)}</h2>
  {#if step.oneWay}<p class="warn text-unfit font-bold">One-way door: nothing known puts the old release back.</p>{/if}
  {#each step.warns as w, at (at)}<p class="warn text-unfit font-bold">{capital(w)}.</p>{/each}
  {#each step.cautions as c, at (at)}<Caution>{c}</Caution>{/each}
  <ul class="list-disc text-part leading-normal pl-5">
    {#if step.tools.length > 0}<li>open {step.tools.join(' or ')}</li>{/if}
    {#each step.needs as n, at (at)}<li>{n}</li>{/each}
    {#if step.menu}<li>in the menu: {step.menu}</li>{/if}
    {#if step.minutes !== undefined}<li>takes about {step.minutes} minutes</li>{/if}
    {#if update}<li>afterwards it must say {step.to}: read it off the device</li>{/if}
    {#if step.gains.length > 0}<li>gains {step.gains.join(', ')}</li>{/if}
    {#if step.loses.length > 0}<li>loses {step.loses.join(', ')}</li>{/if}
  </ul>
  {#if update}
    <label class="font-semibold" for="read">release now read off {step.label}</label>
    <Input
      id="read"
      size="lg"
      bind:value={version}
      autocomplete="off"
      class="read"
      aria-invalid={wrong !== ''}
      aria-describedby="read-wrong"
    />
  {/if}
  <p id="read-wrong" class="warn text-unfit font-bold" aria-live="assertive">{wrong}</p>
  <div class="buttons">
    <Button type="submit"
      >{update
        ? 'Record what it says'
        : step.do === 'mode'
          ? `It is in mode ${step.modeName}`
          : 'It is activated'}</Button
    >
    {#if update}
      <Button type="button" color="alternative" onclick={() => onread({ ...read, notOffered: true })}
        >The tool does not offer {step.to}</Button
      >
      <Button type="button" color="alternative" onclick={() => onread(read)}>It shows no release</Button>
    {/if}
  </div>
  <p class="soft">If something else happens than planned, record that: the rest is planned again from there.</p>
</form>

<style>
  .warn:empty {
    display: none;
  }
  .buttons :global(button) {
    min-height: 48px;
  }
  form :global(.read) {
    max-width: 14rem;
    background-color: var(--raised);
    color: var(--ink);
    font-size: 1.3rem;
  }
</style>
