<script lang="ts">
  // A stand-in for this quad's board, to try it out on, faults included.
  import { api, type Faults } from '../api/client.svelte';

  interface Props {
    quad: string;
    running: string;
    onchange: () => Promise<void>;
  }
  let { quad, running, onchange }: Props = $props();
  let says = $state('');

  const faults: { name: string; faults: Faults; osdOff?: boolean }[] = [
    { name: 'as it should be', faults: {} },
    { name: 'the cable comes out while it is written', faults: { cutAfter: 3 } },
    { name: 'it refuses to save', faults: { refuseSave: true } },
    { name: 'it saves and does not say so', faults: { silentSave: true } },
    { name: 'it says that it saved, and has not', faults: { lostSave: true } },
    { name: 'its firmware has no OSD to set', faults: { noOSD: true, noCanvas: true } },
    { name: 'its firmware has the older list of ports', faults: { oldPorts: true, v1Errors: true } },
    { name: 'it is slow to come back', faults: { saveMS: 2000, rebootMS: 9000 } },
    { name: 'its OSD feature has been switched off', faults: {}, osdOff: true },
    { name: 'on USB alone, AUX 3 being flipped', faults: { flips: 3 } },
    { name: 'it does not hold its arming off', faults: { noHold: true, flips: 3 } },
    { name: 'it speaks no settings text', faults: { noText: true } },
    { name: 'what it tells in its text breaks off', faults: { cutText: true } },
    { name: 'it does not take its failsafe from a text', faults: { ignores: 'failsafe-does' } },
    { name: 'a setting changes beside those sent', faults: { moves: 'arm-angle' } },
    { name: 'it is armed', faults: { armed: true } },
    { name: 'it runs other firmware', faults: { variant: 'OTHR' } },
    { name: 'wrong checksums', faults: { wrongChecksum: true } },
    { name: 'it answers slowly', faults: { slowMS: 150 } },
    { name: 'it does not answer', faults: { silent: true } },
  ];
  async function change(f: Faults, more: { stop?: boolean; osdOff?: boolean } = {}) {
    const answer = await api.standIn(quad, f, more);
    says = answer.ok ? '' : answer.failure.detail;
    if (answer.ok) await onchange();
  }
</script>

<details class="mt-2" open={running !== ''}>
  <summary class="cursor-pointer min-h-7.5">No board at hand? Try it on a stand-in</summary>
  <div class="flex flex-wrap gap-y-1.5 gap-x-3.5 items-end">
    {#if running}
      <label class="grid text-soft"
        >it behaves
        <select
          onchange={(e) => {
            const f = faults[Number(e.currentTarget.value)];
            void change(f?.faults ?? {}, { osdOff: f?.osdOff ?? false });
          }}
          >{#each faults as f, i (f.name)}<option value={i}>{f.name}</option>{/each}</select
        >
      </label>
      <button type="button" class="button" onclick={() => change({}, { stop: true })}>End the stand-in</button>
    {:else}
      <p class="soft">It is set up as this quad flies today, and speaks as a board does.</p>
      <button type="button" class="button" onclick={() => change({})}>Start the stand-in</button>
    {/if}
    {#if says}<p role="alert">{says}</p>{/if}
  </div>
</details>
