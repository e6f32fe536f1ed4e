<script lang="ts">
  // One finding: the sentence, the numbers it compared, where the rule comes
  // from, what is missing, and the fixes the engine has tried.
  import type { Finding, Fix } from '../api/client.svelte';
  import LevelMark from '../lib/LevelMark.svelte';
  import { levelOf } from '../lib/levels';

  interface Props {
    finding: Finding;
    open: boolean;
    fixedWith?: Finding | undefined; // a finding above that the same fixes resolve
    onfix: (fix: Fix) => void;
  }
  let { finding, open, fixedWith, onfix }: Props = $props();
  const kind = $derived(levelOf(finding.level));
  const dangers: Record<string, string> = {
    inconvenient: 'it is a nuisance',
    'does-not-work': 'it does not work',
    'breaks-the-law': 'it breaks the law of the region',
    falls: 'it falls, or cannot be stopped',
    destroys: 'it destroys a part',
  };
  const danger = $derived(kind === 'fits' ? undefined : dangers[finding.danger ?? '']);
  const places: Record<string, string> = { gear: 'gear', kit: 'kit', quad: 'quad' };
</script>

<details class={kind} open={open || kind === 'unfit' || kind === 'change'}>
  <summary>
    <LevelMark level={finding.level} size={22} />
    <span class="says">
      {#if kind === 'unknown'}<span class="subject">{finding.subject}:</span>{/if}
      {finding.says}
    </span>
  </summary>
  <div class="more">
    {#if danger}<p class="soft">{kind === 'unknown' ? 'What this may hide at worst' : 'Flown all the same'}: {danger}.</p>{/if}
    {#if finding.compares && finding.compares.length > 0}
      <div class="scroll">
        <table>
          <thead><tr><th scope="col">compared</th><th scope="col">needed</th><th scope="col">there</th><th scope="col">margin</th></tr></thead>
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
          <a href={`#/shelf/edit/${places[m.of] ?? 'gear'}/${m.id}?field=${encodeURIComponent(m.field)}`}>Enter {m.label}</a>
        {/if}
      </p>
    {/each}
    {#if fixedWith}
      <p class="soft">What resolves “{fixedWith.subject}” above resolves this too.</p>
    {:else if finding.fixes && finding.fixes.length > 0}
      <p class="soft tried">Tried, and would resolve this:</p>
      <ul>
        {#each finding.fixes as fix (fix.says)}
          <li>
            <button type="button" onclick={() => onfix(fix)}>
              <span>{fix.says}</span>
              {#each fix.warns ?? [] as warning, i (i)}<span class="warns">Then: {warning}</span>{/each}
              <span class="then"><LevelMark level={fix.gate} size={18} word />{#if fix.costs}<small>{fix.costs}</small>{/if}</span>
            </button>
          </li>
        {/each}
      </ul>
    {:else if kind === 'unfit' || kind === 'change' || kind === 'unknown'}
      <p class="soft">No single change that was tried resolves this.</p>
    {/if}
    <p class="soft source">Source: {finding.source}. <code class="mono">{finding.code}</code></p>
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
  .warns {
    display: block;
    font-size: 0.85rem;
    color: var(--soft);
  }
  summary {
    display: flex;
    gap: 0.6rem;
    padding: 0.5rem 0.75rem;
    cursor: pointer;
    align-items: flex-start;
  }
  .says {
    line-height: 1.35;
    overflow-wrap: anywhere;
  }
  details:not(.fits) .says {
    font-weight: 650;
  }
  .subject {
    font-weight: 750;
  }
  .more {
    padding: 0 0.75rem 0.6rem 2.75rem;
    display: grid;
    gap: 0.45rem;
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
  thead th {
    color: var(--soft);
    font-size: 0.85rem;
  }
  td {
    font-weight: 600;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    gap: 0.35rem;
  }
  button {
    width: 100%;
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 0.2rem 1rem;
    flex-wrap: wrap;
    text-align: left;
    background: var(--raised);
    color: var(--ink);
    border: 1px solid var(--accent);
    border-radius: 4px;
    padding: 0.35rem 0.7rem;
    min-height: 42px;
    cursor: pointer;
    font-weight: 600;
  }
  button:hover {
    background: var(--accent-wash);
  }
  .then {
    display: inline-flex;
    align-items: center;
    gap: 0.6rem;
    font-size: 0.9rem;
  }
  small {
    color: var(--soft);
    font-weight: 400;
  }
  .source {
    font-size: 0.85rem;
    overflow-wrap: anywhere;
  }
</style>
