import type { Component } from "svelte";
import type { Screen } from "../lib/components/top-bar/screen";
import Connect from "./Connect.svelte";
import Library from "./Library.svelte";
import Perform from "./Perform.svelte";
import Takes from "./Takes.svelte";
import Write from "./Write.svelte";

/** The screens in the order in which they are offered; the first is shown where the address names none. */
export const screens = [
  { name: "Write", address: "write", help: "Write: build the sequence.", component: Write },
  {
    name: "Perform",
    address: "perform",
    help: "Perform: play the song, scenes, patterns and fills, and take mistakes back.",
    component: Perform,
  },
  {
    name: "Takes",
    address: "takes",
    help: "Takes: what you have recorded; edit it and export it as MIDI.",
    component: Takes,
  },
  {
    name: "Connect",
    address: "connect",
    help: "Connect: send tracks to outputs, and outputs to the MIDI ports of this machine.",
    component: Connect,
  },
  {
    name: "Library",
    address: "library",
    help: "Library: all your projects; begin, open, copy and export them.",
    component: Library,
  },
] as const satisfies readonly (Screen & { component: Component })[];

/** The screen that an address names. */
export function screenAt(hash: string): (typeof screens)[number] {
  return screens.find(({ address }) => hash === `#${address}`) ?? screens[0];
}
