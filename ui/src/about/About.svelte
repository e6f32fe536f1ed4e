<script lang="ts">
  // What runs here, where it keeps things, and whose work it stands on.
  import { onMount } from 'svelte';
  import { api, type About, type Failure } from '../api/client.svelte';
  import Card from '../lib/Card.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { Loaded } from '../lib/loaded.svelte';

  const about = new Loaded<About>();
  let refused = $state.raw<Failure | null>(null);
  let notices = $state<string | null>(null);
  let open = $state(false);

  onMount(() => void about.take(api.about()));

  const named = new Intl.DisplayNames(['en'], { type: 'language' });

  async function choose(was: string, language: string) {
    const answer = await api.setLanguage(was, language);
    refused = answer.ok ? null : answer.failure;
    await about.take(api.about());
  }

  $effect(() => {
    if (!open || notices !== null) return;
    fetch('/notices.txt')
      .then((answer) => (answer.ok ? answer.text() : Promise.reject(new Error(answer.statusText))))
      .then((text) => (notices = text))
      .catch(() => (notices = 'The notices are not here: they are written when the program is built.'));
  });
</script>

<div class="title"><h1>About Yoke Swap</h1></div>
{#if about.failure}<FailureNote failure={about.failure} again={() => about.take(api.about())} />{/if}
<div class="cards">
  {#if about.data}
    {@const a = about.data}
    <Card title="This program">
      <dl class="grid grid-cols-[max-content_minmax(0,1fr)] gap-y-1 gap-x-4">
        <dt class="text-soft">version</dt>
        <dd class="mono wrap-anywhere">{a.version}</dd>
        <dt class="text-soft">data folder</dt>
        <dd class="mono wrap-anywhere">{a.folder}</dd>
        <dt class="text-soft">kept in it</dt>
        <dd class="wrap-anywhere">
          {a.gear} pieces of gear, {a.kit} pieces of kit, {a.quads}
          {a.quads === 1 ? 'quad' : 'quads'}, {a.revision}
          {a.revision === 1 ? 'change' : 'changes'}
        </dd>
      </dl>
      {#if a.languages.length > 1}
        <label
          >How devices are handled is read in
          <select value={a.language} onchange={(e) => choose(a.language, e.currentTarget.value)}>
            {#each a.languages as l (l)}<option value={l}>{named.of(l) ?? l}</option>{/each}
          </select>
        </label>
      {/if}
      {#if refused}<FailureNote failure={refused} />{/if}
      <p>Everything stays on this machine; nothing is sent anywhere. <a href="#/shelf/files">Take a backup</a></p>
    </Card>
  {/if}
  <Card title="Before you solder">
    <p>
      A verdict is as good as the values it rests on; each says where they are from. It is no licence: packs burn, props
      cut, transmitters are bound by law. Your local rules, your maker's sheet and a meter come first.
    </p>
  </Card>
</div>
<details class="panel px-5 py-3" bind:open>
  <summary class="font-bold min-h-8">Licences: Yoke Swap is free software (MIT), made with the work of others</summary>
  {#if notices === null}<p class="soft" role="status">Fetching them…</p>{:else}
    <!-- What scrolls must be reached by keyboard. -->
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <pre
      class="max-h-[60vh] overflow-auto whitespace-pre-wrap text-small"
      role="region"
      aria-label="Licences"
      tabindex="0">{notices}</pre>
  {/if}
</details>

<style>
  .cards {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(22rem, 100%), 1fr));
    gap: 1rem;
    margin-bottom: 1rem;
  }
</style>
