<script lang="ts">
  // What a board, kept settings or a text say of what is on the quad today, beside what is
  // noted: each row taken over or left. Nothing is written to the board.
  import type { BoardView } from '../api/client.svelte';

  interface Props {
    tells: BoardView['tells'];
    /** Whose words they are; absent: the board's, as it was read. */
    of?: string;
    busy: boolean;
    ontake: (keys: string[]) => void;
  }
  let { tells, of = '', busy, ontake }: Props = $props();
  const id = $props.id();

  const open = $derived(tells.filter((t) => !t.same));
  const takes = $derived(open.filter((t) => t.takes));
  let left = $state.raw<string[]>([]);
  let picked = $state.raw<Record<string, string>>({}); // what a row that does not say which is, by its key
  const taken = $derived([
    ...takes.filter((t) => !left.includes(t.key)).map((t) => t.key),
    ...open.map((t) => picked[t.key] ?? '').filter((key) => key !== ''),
  ]);
  const toggle = (key: string) => (left = left.includes(key) ? left.filter((k) => k !== key) : [...left, key]);
</script>

<section class="panel mb-3 px-4 py-3" aria-labelledby={id}>
  <h2 {id} tabindex="-1" {@attach of ? (heading) => (heading as HTMLElement).focus() : undefined}>
    {of ? `What ${of} say of today` : 'What it says of today'}
  </h2>
  {#if open.length === 0}
    <p>It is what is noted of the quad today{tells.length === 1 ? '; of ports and the rest nothing is said' : ''}.</p>
  {:else}
    <p class="soft">So that a plan starts from the truth. Nothing is written to the board.</p>
    <div class="scroll">
      <table class="rows">
        <thead
          ><tr
            ><th scope="col"><span class="unseen">take over</span></th><th scope="col">what</th><th scope="col"
              >noted</th
            ><th scope="col">{of ? 'there' : 'on the board'}</th></tr
          ></thead
        >
        <tbody>
          {#each open as t (t.key)}
            <tr>
              <td
                >{#if t.takes}<input
                    type="checkbox"
                    aria-label={`note ${t.label} as it is ${of ? 'there' : 'on the board'}`}
                    checked={!left.includes(t.key)}
                    onchange={() => toggle(t.key)}
                  />{/if}</td
              >
              <th scope="row">{t.label}</th>
              <td class="wrap-anywhere">{t.noted}</td>
              <td class="wrap-anywhere"
                >{t.is}{#if t.note}<small class="block soft">{t.note}</small>{/if}{#if t.picks}<select
                    class="max-w-60"
                    aria-label={`${t.label}: which it is`}
                    value={picked[t.key] ?? ''}
                    onchange={(e) => (picked = { ...picked, [t.key]: e.currentTarget.value })}
                  >
                    <option value="">leave it</option>
                    {#each t.picks as p (p.key)}<option value={p.key}>{p.label}</option>{/each}
                  </select>{/if}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    {#if takes.length > 0 || open.some((t) => t.picks)}<p class="buttons mt-2">
        <button type="button" class="button main" disabled={busy || taken.length === 0} onclick={() => ontake(taken)}
          >Note {taken.length === 1 ? 'it' : `these ${taken.length}`} as on it today</button
        >
      </p>{/if}
  {/if}
</section>
