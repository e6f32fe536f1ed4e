<script lang="ts">
  // The lines of a text beside what the board has: those to load, those held back, the rest
  // folded.
  import type { BoardTextView } from '../api/client.svelte';

  interface Props {
    rows: BoardTextView['rows'];
    left: number[];
    picks: boolean;
    ontoggle: (line: number) => void;
  }
  let { rows, left, picks, ontoggle }: Props = $props();

  const parts = $derived(
    [
      { title: 'Can be loaded', open: true, rows: rows.filter((r) => r.loads) },
      { title: 'Held back, and never loaded', open: true, rows: rows.filter((r) => r.held) },
      { title: 'The same on both sides', open: false, rows: rows.filter((r) => r.state === 'same') },
      { title: 'Not in the text: it stays as it is', open: false, rows: rows.filter((r) => r.state === 'left') },
    ].filter((p) => p.rows.length > 0),
  );
</script>

{#each parts as part (part.title)}
  <details class="mt-2" open={part.open}>
    <summary class="cursor-pointer min-h-7.5 font-bold">{part.title}: {part.rows.length}</summary>
    <div class="scroll">
      <table class="rows stacks">
        <thead
          ><tr
            ><th scope="col">setting</th><th scope="col">in the text</th><th scope="col">there</th><th scope="col"
              >{part.rows.some((r) => r.held) ? 'why' : 'moves'}</th
            ></tr
          ></thead
        >
        <tbody>
          {#each part.rows as r (`${r.line} ${r.key}`)}
            <tr>
              <th scope="row"
                >{#if picks && r.loads}<label class="flex gap-2 items-start"
                    ><input
                      class="mt-1"
                      type="checkbox"
                      checked={!left.includes(r.line)}
                      onchange={() => ontoggle(r.line)}
                    /><span
                      >{r.label}{#if r.says}<small class="block soft mono">{r.says}</small>{/if}</span
                    ></label
                  >{:else}{r.label}{#if r.says && r.says !== r.label}<small class="block soft mono">{r.says}</small
                    >{/if}{/if}</th
              >
              <td class="wrap-anywhere" data-label="in the text">{r.wanted || '–'}</td>
              <td class="wrap-anywhere" data-label="there">{r.found || 'not listed'}</td>
              <td class="wrap-anywhere" data-label={r.held ? 'why' : 'moves'}>{r.held || r.sets}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  </details>
{/each}
