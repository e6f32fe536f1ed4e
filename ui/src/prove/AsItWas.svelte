<script lang="ts">
  // The fleet as it was at the end of a day, and what has become of it since.
  import type { AsOf } from '../api/client.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import Scroll from '../lib/Scroll.svelte';

  let { was }: { was: AsOf } = $props();
  const on = (model: string | undefined, release: string | undefined) =>
    model ? `${model}${release ? ` on ${release}` : ', release not known'}` : 'none';
  const words: Record<string, string> = { new: 'came', gone: 'went', changed: 'is otherwise' };
</script>

<section class="panel grid grid-cols-[minmax(0,1fr)] gap-2 px-3.5 py-2.5 mt-3" aria-labelledby="was">
  <h2 id="was">As it was on {was.day}{was.than ? `, and on ${was.than}` : ''}</h2>
  {#if was.quads.length === 0}
    <p class="soft">There was no quad yet.</p>
  {:else}
    <Scroll label="Quads that day">
      <table class="rows">
        <thead
          ><tr
            ><th scope="col">quad</th><th scope="col">carried</th><th scope="col">goggles</th><th scope="col"
              >antennas</th
            ><th scope="col">board</th><th scope="col">judged</th><th scope="col">{was.than || 'today'}</th></tr
          ></thead
        >
        <tbody>
          {#each was.quads as q (q.id)}
            <tr>
              <th scope="row">{q.name}</th>
              <td>{on(q.carries.airUnit, q.carries.airFirmware)}</td>
              <td>{on(q.carries.goggles, q.carries.gogglesFirmware)}</td>
              <td>{q.carries.antennas || 'not stated'}</td>
              <td
                >{q.carries.board || 'not stated'}{#if q.carries.wires > 0}<small class="soft block"
                    >{q.carries.wires} wires soldered</small
                  >{/if}</td
              >
              <td><LevelMark level={q.level} word /></td>
              <td
                >{#if q.nowThere && q.now}<LevelMark level={q.now} word />{:else}no longer there{/if}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </Scroll>
  {/if}
  <h3>What has changed since</h3>
  {#if was.changed.length === 0}<p class="soft">Nothing.</p>{/if}
  <ul class="grid gap-1 max-h-100 overflow-y-auto">
    {#each was.changed as c (c.kind + c.id)}
      <li>
        {#if c.fields.length > 0}
          <details>
            <summary class="cursor-pointer min-h-8"
              ><b>{c.name}</b>
              {words[c.became]}, {c.fields.length === 1 ? 'one value' : `${c.fields.length} values`}</summary
            >
            <ul class="mono text-small wrap-anywhere">
              {#each c.fields as f (f.path)}<li>
                  {f.path}: {f.before || 'not stated'} → {f.after || 'not stated'}
                </li>{/each}
            </ul>
          </details>
        {:else}<b>{c.name}</b> {words[c.became]}{/if}
      </li>
    {/each}
  </ul>
</section>
