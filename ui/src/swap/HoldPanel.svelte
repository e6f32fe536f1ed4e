<script lang="ts">
  // What holds each part of the plan; the form for another way comes when it is asked for.
  import { type MountView, type Patch } from '../api/client.svelte';

  interface Props {
    quad: string;
    held: MountView['held'];
    onpick: (patch: Patch, says: string) => void;
  }
  let { quad, held, onpick }: Props = $props();

  let open = $state(''); // the part that is asked about
  let HoldForm = $state.raw<typeof import('./HoldForm.svelte').default | null>(null);

  async function ask(part: string) {
    HoldForm ??= (await import('./HoldForm.svelte')).default;
    open = part;
  }
  function hold(hold: Patch['hold'], says: string) {
    onpick({ hold }, says);
    open = '';
  }
</script>

<section class="panel px-4 py-3" aria-labelledby="held">
  <div class="flex flex-wrap justify-between items-baseline gap-3">
    <h3 id="held">What holds it</h3>
    <a href={`#/make/${quad}`}>Make a part</a>
  </div>
  <ul>
    {#each held as part (part.part)}
      <li class="border-t border-t-line py-1.5">
        <div class="flex flex-wrap justify-between items-center gap-x-4 gap-y-1">
          <span class="first-letter:uppercase"
            ><b>{part.label}</b>: {part.words}{#if part.hold?.awaits}<span class="warn"
                >, a stop-gap until this comes: {part.hold.awaits}{part.hold.due ? ` (${part.hold.due})` : ''}</span
              >{/if}</span
          >
          <span class="buttons">
            {#if part.hold}<button
                type="button"
                class="button"
                onclick={() => hold({ part: part.part, way: '' }, `Taken out: how ${part.label} was held otherwise.`)}
                aria-label={`Take out how ${part.label} is held`}>Take it out</button
              >{/if}
            {#if open !== part.part}<button
                type="button"
                class="button"
                onclick={() => ask(part.part)}
                aria-label={`Hold ${part.label} otherwise`}>{part.hold ? 'Change' : 'Hold it otherwise'}</button
              >{/if}
          </span>
        </div>
        {#if open === part.part && HoldForm}
          <HoldForm {part} onhold={(h) => hold(h, `Noted: how ${part.label} is held.`)} onleave={() => (open = '')} />
        {/if}
      </li>
    {:else}
      <li class="soft">Nothing of the plan is there to be held yet.</li>
    {/each}
  </ul>
</section>
