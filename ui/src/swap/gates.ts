// What the interface adds to each gate of the register: its picture above the findings
// and what can be done below them. A gate without a row shows its findings alone.
import type { Component } from 'svelte';
import type { Answer, Patch, QuadView } from '../api/client.svelte';
import AntennaBeside from './AntennaBeside.svelte';
import AntennaPicture from './AntennaPicture.svelte';
import ControlPicture from './ControlPicture.svelte';
import LinkPicture from './LinkPicture.svelte';
import MountBelow from './MountBelow.svelte';
import MountPicture from './MountPicture.svelte';
import OsdPicture from './OsdPicture.svelte';
import PinsDetail from './PinsDetail.svelte';
import PinsPicture from './PinsPicture.svelte';
import PowerDetail from './PowerDetail.svelte';
import PowerPicture from './PowerPicture.svelte';
import ToSet from './ToSet.svelte';

/** What a part of a gate can do to the quad. */
/** A change of a quad, on the revision it was read at. */
export type Change = (quad: string, revision: number) => Promise<Answer<QuadView>>;

export interface Acts {
  change: (how: Change, says: string) => void;
  apply: (patch: Patch, says: string) => void;
  setRegion: (region: string) => void;
  screwOn: (kit: string, port: number, was: string, model: string, from: string) => void;
}

/** A component with the props it takes from a quad. */
export interface Part {
  component: Component<Record<string, unknown>>;
  props: (quad: QuadView, acts: Acts) => Record<string, unknown>;
}

function part<P extends object>(component: Component<P>, props: (quad: QuadView, acts: Acts) => P): Part {
  return { component: component as unknown as Part['component'], props: props as unknown as Part['props'] };
}

const toSet = part(ToSet, (q) => ({ quad: q.id, goggles: q.next.gogglesKit, plan: q.settings }));

export const gateParts: Record<string, { picture: Part; below?: Part }> = {
  link: { picture: part(LinkPicture, (q) => ({ picture: q.link })) },
  power: {
    picture: part(PowerPicture, (q) => ({ path: q.power })),
    below: part(PowerDetail, (q, acts) => ({ power: q.power, onpick: acts.apply })),
  },
  pins: {
    picture: part(PinsPicture, (q) => ({ picture: q.pins.picture })),
    below: part(PinsDetail, (q, acts) => ({ quad: q.id, pins: q.pins, onpick: acts.apply, onchange: acts.change })),
  },
  mount: {
    picture: part(MountPicture, (q) => ({ view: q.mount })),
    below: part(MountBelow, (q, acts) => ({ quad: q.id, view: q.mount, onpick: acts.apply })),
  },
  antenna: {
    picture: part(AntennaPicture, (q, acts) => ({ view: q.antenna, onregion: acts.setRegion, onscrew: acts.screwOn })),
    below: part(AntennaBeside, (q, acts) => ({ beside: q.antenna.beside, onpick: acts.apply })),
  },
  osd: { picture: part(OsdPicture, (q, acts) => ({ view: q.osd, onpick: acts.apply })), below: toSet },
  control: { picture: part(ControlPicture, (q) => ({ view: q.control })), below: toSet },
};
