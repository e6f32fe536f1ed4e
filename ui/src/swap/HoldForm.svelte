<script lang="ts">
  // How one part is held otherwise than by its own screws: the fields of the form.
  import { tick } from 'svelte';
  import { type MountView, type Patch } from '../api/client.svelte';
  import { Known } from '../begin/known.svelte';
  import type { Entry } from '../shelf/entry';
  import FieldInput from '../shelf/FieldInput.svelte';

  interface Props {
    part: MountView['held'][number];
    onhold: (hold: Patch['hold']) => void;
    onleave: () => void;
  }
  let { part, onhold, onleave }: Props = $props();

  const known = new Known();
  // svelte-ignore state_referenced_locally
  let draft = $state.raw<Entry>({ ...(part.hold ?? { part: part.part }) });
  let form = $state<HTMLElement>();
  const all = $derived(
    known.forms
      .find((f) => f.kind === 'quad')
      ?.groups.flatMap((g) => g.fields)
      .find((f) => f.path === 'next.holdings')?.fields ?? [],
  );
  // The clear width inside is a camera's.
  const fields = $derived(all.filter((f) => f.path !== 'part' && (f.path !== 'insideMM' || part.part === 'camera')));

  void known.load().then(async () => {
    await tick();
    form?.querySelector<HTMLElement>('select, input')?.focus();
  });
  function hold(event: SubmitEvent) {
    event.preventDefault();
    onhold(draft as unknown as Patch['hold']);
  }
</script>

<form class="entry grid gap-2 mt-2" bind:this={form} onsubmit={hold} aria-label={`How ${part.label} is held`}>
  <div class="grid gap-2 min-[620px]:grid-cols-2">
    {#each fields as f (f.path)}
      <FieldInput
        field={f}
        entry={draft}
        root={draft}
        entries={known.entries}
        wrong={{}}
        onchange={(to) => (draft = to)}
      />
    {:else}<p class="soft" role="status">One moment…</p>{/each}
  </div>
  <p class="buttons">
    <button class="button main" disabled={!draft.way}>Hold it so</button>
    <button type="button" class="button" onclick={onleave}>Leave it</button>
  </p>
</form>
