<script lang="ts">
  // One step, large: what, with what, the caution, the reading, done.
  import { Button, Input } from 'flowbite-svelte';
  import type { StepState } from '../api/client.svelte';
  import { typing } from '../lib/keys';
  import { readNumber } from './reading';
  import Caution from '../lib/Caution.svelte';
  import RunTimer from './RunTimer.svelte';
  import { moment } from '../lib/words';

  interface Props {
    step: StepState;
    number: number;
    of: number;
    onconfirm: (done: boolean, value?: number, read?: string) => void;
    onback?: () => void;
    onnext?: () => void;
  }
  const minutes = (n: number) => (n === 1 ? 'one minute' : `${n} minutes`);

  let { step, number, of, onconfirm, onback, onnext }: Props = $props();

  // The card is made anew for each step.
  // svelte-ignore state_referenced_locally
  let text = $state(step.value === undefined ? '' : String(step.value));
  let wrong = $state('');

  // A meter's answer by its first letter, with the probes in the other hand.
  function onkeydown(event: KeyboardEvent) {
    const at = step.reading?.choices?.findIndex((c) => c.startsWith(event.key)) ?? -1;
    if (typing(event) || at < 0 || event.key.length !== 1 || step.state === 'held') return;
    event.preventDefault();
    onconfirm(true, at);
  }

  function confirm(event: SubmitEvent) {
    event.preventDefault();
    if (step.reads?.do === 'update') {
      const says = text.trim();
      if (says === '') wrong = `Read the release off ${step.reads.label} and enter it, whatever it says.`;
      else {
        wrong = '';
        onconfirm(true, undefined, says);
      }
      return;
    }
    if (!step.reading) {
      onconfirm(true);
      return;
    }
    const value = readNumber(text);
    if (value === null) {
      wrong = `Enter ${step.reading.label} as a number in ${step.reading.unit}.`;
      return;
    }
    wrong = '';
    onconfirm(true, value);
  }
</script>

<svelte:window {onkeydown} />

<article class="panel {step.state} grid gap-3 px-5 pt-4.5 pb-5" aria-labelledby="step-title">
  <p class="soft">
    Step {number} of {of}, {step.phase}{#if step.minutes !== undefined}, about {minutes(
        step.minutes,
      )}{:else if step.tookMinutes !== undefined}, took about {minutes(step.tookMinutes)} before{/if}{#if step.at}, {step.state ===
      'done'
        ? 'done'
        : 'recorded'}
      {moment(step.at)}{/if}
  </p>
  <h2 class="step" id="step-title">{step.title}</h2>
  {#each step.cautions ?? [] as c, i (i)}
    <Caution>{c}</Caution>
  {/each}
  <ul class="grid list-disc text-part leading-normal gap-1 pl-5">
    {#each step.do as line, i (i)}<li>{line}</li>{/each}
  </ul>
  {#if (step.tools ?? []).length > 0 || (step.materials ?? []).length > 0}
    <p class="with">
      {#if (step.tools ?? []).length > 0}<span class="soft">with</span> {(step.tools ?? []).join(', ')}{/if}
      {#if (step.materials ?? []).length > 0}<span class="soft">{(step.tools ?? []).length > 0 ? 'and' : 'with'}</span>
        {(step.materials ?? []).join(', ')}{/if}
    </p>
  {/if}
  {#if step.meanwhile}<details>
      <summary class="cursor-pointer min-h-11 content-center"
        >What can be done while it goes on by itself: {step.meanwhile.length}
        {step.meanwhile.length === 1 ? 'step' : 'steps'}</summary
      >
      <ul class="list-disc pl-5">
        {#each step.meanwhile as title, i (i)}<li>{title}</li>{/each}
      </ul>
    </details>{/if}
  {#if step.runSeconds}<RunTimer seconds={step.runSeconds} />{/if}
  {#if step.state === 'held'}
    <p class="bg-change-wash border-l-6 border-l-change font-semibold px-3 py-2" role="note">{step.says}</p>
  {/if}
  <form class="grid gap-1.5" onsubmit={confirm}>
    {#if step.reading?.choices}
      <div class="choices flex flex-wrap gap-3" role="group" aria-label={step.reading.label}>
        {#each step.reading.choices as choice, i (choice)}
          <Button
            type="button"
            size="lg"
            color={step.value === i ? 'primary' : 'alternative'}
            aria-pressed={step.value === i}
            disabled={step.state === 'held'}
            onclick={() => onconfirm(true, i)}
          >
            {choice}<kbd class="ml-3 font-mono opacity-75 text-[0.85em]" aria-hidden="true">{choice[0]}</kbd>
          </Button>
        {/each}
      </div>
      <p id="reading-says" class={step.state === 'stopped' ? 'stop' : 'ok'} aria-live="assertive">
        {step.state === 'held' ? '' : (step.says ?? '')}
      </p>
    {:else if step.reading}
      <label class="flex font-semibold flex-wrap gap-y-0 gap-x-3" for="reading"
        >{step.reading.label}, in {step.reading.unit}
        <span class="soft font-normal">expected: {step.reading.expected}</span></label
      >
      <div class="flex items-center gap-2.5 max-w-75 text-read">
        <Input
          id="reading"
          size="lg"
          inputmode="decimal"
          autocomplete="off"
          bind:value={text}
          disabled={step.state === 'held'}
          aria-describedby="reading-says"
          aria-invalid={step.state === 'stopped' || wrong !== ''}
        />
        <span class="mono">{step.reading.unit}</span>
      </div>
      <p id="reading-says" class={step.state === 'stopped' || wrong ? 'stop' : 'ok'} aria-live="assertive">
        {wrong || (step.state === 'held' ? '' : (step.says ?? ''))}
      </p>
    {/if}
    {#if step.reads?.do === 'update'}
      <label class="flex font-semibold flex-wrap gap-y-0 gap-x-3" for="release"
        >release now read off {step.reads.label}</label
      >
      <div class="flex items-center gap-2.5 max-w-75 text-read">
        <Input
          id="release"
          size="lg"
          autocomplete="off"
          bind:value={text}
          disabled={step.state === 'held'}
          aria-describedby="release-says"
          aria-invalid={wrong !== ''}
        />
      </div>
      <p id="release-says" class="stop" aria-live="assertive">{wrong}</p>
    {/if}
    <div class="buttons flex flex-wrap gap-2.5 mt-1.5">
      {#if onback}<Button type="button" color="alternative" onclick={onback}>Back</Button>{/if}
      {#if step.state === 'done'}
        <Button type="button" color="alternative" onclick={() => onconfirm(false)}>Take the tick back</Button>
        {#if onnext}<Button type="button" onclick={onnext}>Next step</Button>{/if}
      {:else}
        {#if onnext}<Button type="button" color="alternative" onclick={onnext}>Look ahead</Button>{/if}
        {#if !step.reading?.choices}<Button type="submit" disabled={step.state === 'held'} class="done"
            >{step.reading || step.reads?.do === 'update' ? 'Enter and done' : 'Done'}</Button
          >{/if}
      {/if}
    </div>
  </form>
</article>

<style>
  article.stopped {
    border: 3px solid var(--unfit);
  }
  .stop {
    color: var(--unfit);
    font-weight: 700;
  }
  .ok {
    color: var(--fits);
  }
  .choices :global(button) {
    min-width: 10rem;
    min-height: 64px;
    font-size: 1.2rem;
  }
  .buttons :global(button) {
    min-height: 48px;
  }
  .buttons :global(.done) {
    flex: 1 1 10rem;
    font-size: 1.1rem;
    font-weight: 700;
  }
</style>
