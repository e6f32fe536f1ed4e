<script lang="ts">
  // One finding: the sentence, the numbers it compared, where the rule comes
  // from, what is missing, and the fixes the engine has tried.
  import type { Finding, Fix } from '../api/client.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { levelOf } from '../lib/levels';
  import type { Known } from '../begin/known.svelte';

  interface Props {
    finding: Finding;
    open: boolean;
    fixedWith?: Finding | undefined; // a finding above that the same fixes resolve
    onfix?: (fix: Fix) => void; // absent: no changes are tried for it
    quad?: string; // whose plan it is: what is missing can be entered here
    onanswered?: (says: string) => void;
  }
  let { finding, open, fixedWith, onfix, quad, onanswered }: Props = $props();

  // Loaded when something is to be entered, and not before.
  let known = $state.raw<Known | null>(null);
  let Answer = $state.raw<typeof import('../begin/Answer.svelte').default | null>(null);
  let here = $state(-1);
  async function answer(at: number) {
    const [answers, knows] = await Promise.all([import('../begin/Answer.svelte'), import('../begin/known.svelte')]);
    Answer = answers.default;
    known = new knows.Known();
    const missing = finding.missing?.[at];
    if (missing) await known.about(missing);
    here = at;
  }
  const kind = $derived(levelOf(finding.level));
  const dangers: Record<string, string> = {
    inconvenient: 'it is a nuisance',
    'does-not-work': 'it does not work',
    'breaks-the-law': 'it breaks the law of the region',
    falls: 'it falls, or cannot be stopped',
    destroys: 'it destroys a part',
  };
  const danger = $derived(kind === 'fits' ? undefined : dangers[finding.danger ?? '']);
  const places: Record<string, string> = { gear: 'gear', kit: 'kit', quad: 'quad', testFlight: 'testFlight' };
</script>

<details class={kind} open={open || kind === 'unfit' || kind === 'change'}>
  <summary class="flex gap-2.5 cursor-pointer items-start px-3 py-2">
    <LevelMark level={finding.level} size={22} />
    <span class="says leading-normal wrap-anywhere">
      {#if kind === 'unknown'}<span class="font-bold">{finding.subject}:</span>{/if}
      {finding.says}
    </span>
  </summary>
  <div class="grid gap-2 pl-11 pr-3 pt-0 pb-2.5">
    {#if danger}<p class="soft">
        {kind === 'unknown' ? 'What this may hide at worst' : 'Flown all the same'}: {danger}.
      </p>{/if}
    {#each finding.supposing ?? [] as one (one)}<p class="soft">Said for the worst there can be: {one}.</p>{/each}
    {#if finding.compares && finding.compares.length > 0}
      <div class="scroll">
        <table>
          <thead
            ><tr
              ><th class="text-soft text-small" scope="col">compared</th><th class="text-soft text-small" scope="col"
                >needed</th
              ><th class="text-soft text-small" scope="col">there</th><th class="text-soft text-small" scope="col"
                >margin</th
              ></tr
            ></thead
          >
          <tbody>
            {#each finding.compares as c, i (i)}
              <tr><th scope="row">{c.what}</th><td>{c.needed}</td><td>{c.there}</td><td>{c.margin ?? ''}</td></tr>
            {/each}
          </tbody>
        </table>
      </div>
    {/if}
    {#each finding.missing ?? [] as m, i (i)}
      <p>
        Missing: <code class="mono">{m.field}</code>.
        {#if m.of === 'fleet'}
          Pick your region on the antenna gate.
        {:else}
          <a href={`#/shelf/edit/${places[m.of] ?? 'gear'}/${m.id}?field=${encodeURIComponent(m.field)}`}
            >Enter {m.label}</a
          >
        {/if}
        {#if quad && here !== i}<button
            type="button"
            class="button"
            onclick={() => answer(i)}
            aria-label={`Enter ${m.label} here`}>Enter it here</button
          >{/if}
      </p>
      {#if quad && here === i && known && Answer}
        <div class="panel grid gap-2 px-4 py-3">
          <Answer
            {quad}
            today={false}
            missing={m}
            {known}
            onanswered={(says) => {
              here = -1;
              onanswered?.(says);
            }}
          />
        </div>
      {/if}
    {/each}
    {#if fixedWith}
      <p class="soft">What resolves “{fixedWith.subject}” above resolves this too.</p>
    {:else if finding.fixes && finding.fixes.length > 0}
      <p class="soft tried">Tried, and would resolve this:</p>
      <ul class="grid gap-1.5">
        {#each finding.fixes as fix (fix.says)}
          <li>
            <button
              class="flex w-full justify-between items-center gap-y-1 gap-x-4 flex-wrap text-left bg-raised text-ink border border-accent rounded min-h-10.5 cursor-pointer font-semibold px-3 py-1.5"
              type="button"
              onclick={() => onfix?.(fix)}
            >
              <span>{fix.says}</span>
              {#each fix.warns ?? [] as warning, i (i)}<span class="block text-small text-soft">Then: {warning}</span
                >{/each}
              <span class="inline-flex items-center gap-2.5 text-note"
                ><LevelMark level={fix.gate} size={18} word />{#if fix.costs}<small class="text-soft font-normal"
                    >{fix.costs}</small
                  >{/if}</span
              >
            </button>
          </li>
        {/each}
      </ul>
    {:else if onfix && (kind === 'unfit' || kind === 'change' || kind === 'unknown')}
      <p class="soft">No single change that was tried resolves this.</p>
    {/if}
    <p class="soft text-small wrap-anywhere">Source: {finding.source}. <code class="mono">{finding.code}</code></p>
  </div>
</details>

<style>
  details {
    background: var(--sheet);
    border: 1px solid var(--line);
    border-left: 6px solid var(--edge);
  }
  .fits {
    --edge: var(--fits);
  }
  .caution {
    --edge: var(--caution);
  }
  .change {
    --edge: var(--change);
  }
  .unknown {
    --edge: var(--unknown);
  }
  .unfit {
    --edge: var(--unfit);
    background: var(--unfit-wash);
  }
  details:not(.fits) .says {
    font-weight: 650;
  }
  table {
    border-collapse: collapse;
    font-size: 0.92rem;
    font-variant-numeric: tabular-nums;
  }
  th,
  td {
    text-align: left;
    font-weight: 400;
    padding: 0.1rem 1.2rem 0.1rem 0;
  }
  td {
    font-weight: 600;
  }
  button:hover {
    background: var(--accent-wash);
  }
</style>
