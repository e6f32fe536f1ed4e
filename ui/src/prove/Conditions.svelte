<script lang="ts">
  // What a test flight was flown under, noted before take-off.
  import { api, type Failure, type FlightView } from '../api/client.svelte';
  import ConflictNote from '../lib/ConflictNote.svelte';
  import FailureNote from '../lib/FailureNote.svelte';
  import { parseNumber, parseWords, withValue, type Entry } from '../shelf/entry';

  interface Props {
    flight: FlightView['flight'];
    revision: number;
    onsaved: () => Promise<unknown>;
  }
  let { flight, revision, onsaved }: Props = $props();
  let refused = $state.raw<Failure | null>(null);
  let last = $state.raw<Entry | null>(null);
  let wrong = $state.raw<Record<string, string>>({});

  async function save(entry: Entry, at = revision) {
    last = entry;
    const answer = await api.save('testFlight', flight.id, at, entry);
    refused = answer.ok ? null : answer.failure;
    if (answer.ok) await onsaved();
  }
  // One after another, each on top of what the one before has left.
  let writing = Promise.resolve();
  function set(field: string, to: unknown) {
    writing = writing.then(() => save(withValue(flight as unknown as Entry, field, to)));
  }
  function number(field: string, typed: string) {
    const parsed = parseNumber(typed);
    wrong = { ...wrong, [field]: parsed.wrong ?? '' };
    if (!parsed.wrong) set(field, parsed.value);
  }
  const numbers = [
    { field: 'packV', label: 'Pack at take-off, V', value: () => flight.packV },
    { field: 'powerMW', label: 'Transmit power, mW', value: () => flight.powerMW },
  ];
  const texts = [
    { field: 'channel', label: 'Channel', value: () => flight.channel },
    { field: 'weather', label: 'Weather', value: () => flight.weather },
  ];
</script>

<details class="panel px-3.5 py-2.5" open={flight.packV === undefined || flight.reader === undefined}>
  <summary class="font-bold min-h-8 cursor-pointer">Before take-off</summary>
  {#if refused?.conflict}
    <ConflictNote
      conflict={refused.conflict}
      keepTheirs={async () => {
        refused = null;
        await onsaved();
      }}
      applyMine={(at) => void (last && save(last, at))}
    />
  {:else if refused}
    <FailureNote failure={refused} />
  {/if}
  <div class="grid cols-fill-[190px] gap-3">
    {#each numbers as n (n.field)}
      <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
        >{n.label}
        <input
          inputmode="decimal"
          autocomplete="off"
          value={n.value() ?? ''}
          aria-invalid={!!wrong[n.field]}
          onchange={(e) => number(n.field, e.currentTarget.value)}
        />
        {#if wrong[n.field]}<span class="bad" role="alert">{wrong[n.field]}</span>{/if}</label
      >
    {/each}
    {#each texts as t (t.field)}
      <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
        >{t.label}
        <input
          autocomplete="off"
          value={t.value() ?? ''}
          onchange={(e) => set(t.field, e.currentTarget.value.trim() || undefined)}
        /></label
      >
    {/each}
    <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
      >What was set, by commas
      <input
        autocomplete="off"
        placeholder="50 Mb/s, low latency"
        value={(flight.settings ?? []).join(', ')}
        onchange={(e) => set('settings', parseWords(e.currentTarget.value))}
      /></label
    >
    <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
      >Who reads
      <select value={flight.reader ?? ''} onchange={(e) => set('reader', e.currentTarget.value || undefined)}>
        <option value="">not stated</option>
        <option value="spotter">a spotter</option>
        <option value="after-landing">read after landing</option>
      </select></label
    >
    <label class="grid grid-cols-[minmax(0,1fr)] text-note font-semibold min-w-0 max-w-full"
      >Failsafe and range tried on the ground
      <select
        value={flight.checked === undefined ? '' : String(flight.checked)}
        onchange={(e) => set('checked', e.currentTarget.value === '' ? undefined : e.currentTarget.value === 'true')}
      >
        <option value="">not stated</option>
        <option value="true">yes</option>
        <option value="false">no</option>
      </select></label
    >
  </div>
</details>
