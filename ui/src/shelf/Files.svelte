<script lang="ts">
  // Taking files in and writing them out. A file is shown as a difference
  // first, and taken whole or not at all.
  import { Button } from 'flowbite-svelte';
  import { api, place, type Failure, type Import, type Shelf } from '../api/client.svelte';
  import Backup from './Backup.svelte';
  import Sessions from './Sessions.svelte';
  import Card from '../lib/Card.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import Scroll from '../lib/Scroll.svelte';

  interface Props {
    shelf: Shelf;
    onreload: () => Promise<void>;
  }
  let { shelf, onreload }: Props = $props();

  let file = $state.raw<File | null>(null);
  let preview = $state.raw<Import | null>(null);
  let failure = $state.raw<Failure | null>(null);
  let done = $state('');
  // Who wins where the file contradicts another gear pack, by the file's entry.
  let wins = $state.raw<Record<string, string>>({});
  const winsWords: Record<string, string> = {
    both: 'both stand: unknown',
    there: 'what is there holds',
    file: 'the file holds',
  };
  const choices = (a: Import['difference']['against'][number]) =>
    a.id === a.other ? ['there', 'file'] : ['both', 'there', 'file'];
  const won = (by: string) => Object.keys(wins).filter((id) => wins[id] === by);

  /** The input forgets the file at once, so that the same one, mended, can be chosen again. */
  function choose(input: HTMLInputElement) {
    const chosen = input.files?.[0];
    input.value = '';
    if (chosen) void look(chosen);
  }

  async function look(chosen: File | undefined) {
    file = chosen ?? null;
    preview = null;
    failure = null;
    done = '';
    wins = {};
    if (file) await again();
  }

  /** The difference as it is with what has been said. */
  async function again() {
    if (!file) return;
    const answer = await api.importFile(file, { file: won('file'), there: won('there') });
    if (answer.ok) preview = answer.data;
    else failure = answer.failure;
  }

  async function says(id: string, by: string) {
    wins = { ...wins, [id]: by };
    await again();
  }

  async function take() {
    if (!file || !preview) return;
    const answer = await api.importFile(file, {
      apply: true,
      replace: preview.difference.changed.length > 0,
      base: preview.base,
      file: won('file'),
      there: won('there'),
    });
    if (answer.ok) {
      const { difference: d, title } = answer.data;
      done = `Took in “${title}”: ${d.new.length} new, ${d.changed.length} replaced, ${d.same} alike.`;
      preview = null;
      failure = null;
      await onreload();
    } else {
      failure = answer.failure;
      if (answer.failure.conflict) preview = null;
    }
  }
</script>

<section class="grid cols-fit-[380px] gap-4 items-start">
  <Card title="Take a file in">
    <p class="soft">A gear pack or a fleet file (JSON). You see what it changes before anything is changed.</p>
    <label class="font-semibold" for="file">File</label>
    <input id="file" type="file" accept=".json,application/json" onchange={(e) => choose(e.currentTarget)} />
    {#if file}<p>Looking at <strong>{file.name}</strong></p>{/if}
    {#if failure}<FailureNote {failure} />{/if}
    {#if preview}
      {@const d = preview.difference}
      <div class="preview" role="status">
        <p>
          <strong>{preview.title}</strong> ({preview.format === 'fleet' ? 'fleet file' : 'gear pack'}): {d.new.length} new,
          {d.same} alike, {d.changed.length} otherwise. <span class="soft mono text-small">{preview.hash}</span>
        </p>
        {#if preview.turns.length > 0}
          <p class="font-semibold">What it does to your quads:</p>
          <ul class="grid gap-0.5">
            {#each preview.turns.slice(0, 40) as t (t.quad + t.gate)}
              <li class="flex flex-wrap gap-x-2 items-center">
                <a href={`#/swap/${t.quad}/${t.gate}`}>{t.name}, {t.gate}</a>
                <LevelMark level={t.was} size={16} word /> → <LevelMark level={t.is} size={16} word />
              </li>
            {/each}
          </ul>
          {#if preview.turns.length > 40}<p class="soft">and {preview.turns.length - 40} more</p>{/if}
        {/if}
        {#if d.against.length > 0}
          <p class="font-semibold">Another gear pack says it otherwise:</p>
          <ul class="grid gap-2.5">
            {#each d.against as a (a.id + a.other)}
              <li class="border-t border-t-line pt-1.5">
                <fieldset class="border-0 p-0 m-0 grid gap-1">
                  <legend class="font-semibold wrap-anywhere"
                    >{a.kind}
                    {a.id} <span class="soft font-normal">in “{a.packTitle}”{a.says ? `: ${a.says}` : ''}</span></legend
                  >
                  {#each a.claims.slice(0, 12) as c (c.path)}
                    <p class="text-note wrap-anywhere">
                      <span class="mono">{c.path}</span>: there <strong>{c.there || '–'}</strong>
                      <span class="soft">({c.thereSource})</span>, in the file <strong>{c.file || '–'}</strong>
                      <span class="soft">({c.fileSource})</span>
                    </p>
                  {/each}
                  {#if a.claims.length > 12}<p class="soft text-note">and {a.claims.length - 12} more</p>{/if}
                  <div class="flex flex-wrap gap-x-4">
                    {#each choices(a) as by (by)}
                      <label class="inline-flex items-center gap-2 min-h-9 max-sm:min-h-11"
                        ><input
                          type="radio"
                          name={`wins-${a.id}-${a.other}`}
                          checked={a.wins === by}
                          onchange={() => says(a.id, by)}
                        />
                        {winsWords[by]}</label
                      >
                    {/each}
                  </div>
                </fieldset>
              </li>
            {/each}
          </ul>
        {/if}
        {#if d.changed.length > 0}
          <Scroll label="What is there already" of="overflow-x-auto max-h-80">
            <table class="rows">
              <caption class="text-left text-soft">These are there already, otherwise:</caption>
              <thead
                ><tr
                  ><th scope="col">entry</th><th scope="col">value</th><th scope="col">there now</th><th scope="col"
                    >in the file</th
                  ></tr
                ></thead
              >
              <tbody>
                {#each d.changed as c (c.kind + c.id)}
                  {#each c.fields as f (f.path)}
                    <tr
                      ><td>{c.kind === c.id ? `the ${c.kind}` : `${c.kind} ${c.id}`}</td><td class="mono">{f.path}</td
                      ><td class="mono">{f.before || '–'}</td><td class="mono">{f.after || '–'}</td></tr
                    >
                  {/each}
                {/each}
              </tbody>
            </table>
          </Scroll>
        {/if}
        <div class="buttons flex gap-2.5 flex-wrap mt-2.5">
          <Button onclick={take}>{d.changed.length > 0 ? `Take in, replacing ${d.changed.length}` : 'Take in'}</Button>
          <Button color="alternative" onclick={() => look(undefined)}>Leave it</Button>
        </div>
      </div>
    {/if}
    {#if done}<p class="done good" role="status">{done}</p>{/if}
  </Card>
  <Card title="Write files out">
    <ul class="list-disc pl-4.5">
      <li><a href={`${place}/api/export/fleet`} download="fleet.json">The fleet “{shelf.title}”</a></li>
      {#each shelf.sets as s (s.id)}
        <li>
          <a href={`${place}/api/export/gear/${s.id}`} download={`${s.id}.gear.json`}>{s.title}</a>
          <span class="soft"
            >{s.count} entries{s.license ? `, ${s.license}` : ''}, <span class="mono">{s.hash}</span></span
          >
        </li>
      {/each}
    </ul>
  </Card>
  <Backup {onreload} />
  <Sessions />
</section>

<style>
  input[type='file'] {
    border: 1px solid var(--soft);
    border-radius: 4px;
    background: var(--raised);
    color: var(--ink);
    min-height: 44px;
    max-width: 100%;
  }
</style>
