<script lang="ts">
  // Below the picture of the mount gate: where everything lies, and what holds it.
  import { type MountView, type Patch } from '../api/client.svelte';
  import AntennaStands from './AntennaStands.svelte';
  import HoldPanel from './HoldPanel.svelte';
  import RoomPicture from './RoomPicture.svelte';
  import ShotPicture from './ShotPicture.svelte';

  interface Props {
    quad: string;
    view: MountView;
    onpick: (patch: Patch, says: string) => void;
  }
  let { quad, view, onpick }: Props = $props();
</script>

<div class="grid gap-2.5">
  <RoomPicture {quad} room={view.room} balance={view.balance} {onpick} />
  {#if view.room.shot}<ShotPicture shot={view.room.shot} {onpick} />{/if}
  <AntennaStands room={view.room} antennas={view.antennas} {onpick} />
  <HoldPanel {quad} held={view.held} {onpick} />
</div>
