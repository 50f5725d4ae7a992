import { tools } from "../chart/tools";
import { stepArea } from "./areas";
import type { ChartView } from "./chartView.svelte";
import type { Clipboard } from "./clipboard.svelte";
import { randomLuck } from "./luck";
import { isTyping } from "./focus";
import type { Playing } from "./playing.svelte";
import type { Session } from "./session.svelte";
import type { TakeDesk } from "./takeDesk.svelte";

/** What the keys that hold everywhere act on. */
export interface Desk {
  session: Session;
  view: ChartView;
  clipboard: Clipboard;
  /** The open take, while the Takes screen is shown: then undo and Space are about it. */
  takes: TakeDesk | undefined;
  playing: Playing;
  openHelp: () => void;
  openGoTo: () => void;
}

/**
 * Handles the keys that hold everywhere. Fields and dialogs keep their keys to themselves, but no number has a space,
 * and no field an F6, by which windows of several areas are walked (common practice).
 */
export function handleShortcut(event: KeyboardEvent, desk: Desk): void {
  if (document.querySelector("dialog[open]")) return;
  if (event.key === "F6") {
    event.preventDefault();
    stepArea(event.shiftKey ? -1 : 1);
    return;
  }
  if (keepsKey(event)) return;
  const command = event.ctrlKey || event.metaKey;
  const key = event.key.toLowerCase();
  const action = event.altKey ? undefined : (command ? commands : plain)(event, desk)[key];
  if (!action) return;
  event.preventDefault();
  if (!event.repeat || command) action();
}

type Actions = Record<string, () => void>;

function commands(event: KeyboardEvent, { session, view, clipboard, takes }: Desk): Actions {
  if (takes?.summary) {
    return {
      z: () => void (event.shiftKey ? takes.redo() : takes.undo()),
      y: () => void takes.redo(),
      a: () => takes.select(takes.roll?.notes.map((note) => note.place) ?? []),
    };
  }
  return {
    z: () => void (event.shiftKey ? session.redo() : session.undo()),
    y: () => void session.redo(),
    c: () => clipboard.copy(),
    v: () => void clipboard.paste(),
    a: () => view.selectLoop(),
  };
}

function plain(
  event: KeyboardEvent,
  { session, view, takes, playing, openHelp, openGoTo }: Desk,
): Actions {
  if (takes?.summary) {
    return {
      // What is heard stops first, whichever it is.
      " ": () => void (session.transport.playing ? session.song.togglePlaying() : takes.hear()),
      r: () => void session.song.toggleRecording(),
      n: () => playing.toggle(),
      delete: () => void takes.delete(),
      escape: () => takes.select([]),
      pageup: () => takes.scrollKeys(6),
      pagedown: () => takes.scrollKeys(-6),
      "?": openHelp,
    };
  }
  const { track } = session;
  return {
    " ": () => void (event.shiftKey ? session.song.goOn() : session.song.togglePlaying()),
    r: () => void session.song.toggleRecording(),
    l: () => void (event.shiftKey ? session.luckBack() : session.setLuck(randomLuck())),
    f: () => (view.following = !view.following),
    n: () => playing.toggle(),
    m: () => void session.stage.toggleTrack("mute", track),
    s: () => void session.stage.toggleTrack("solo", track),
    b: () => session.tempoTap.tap(),
    j: openGoTo,
    escape: () => view.select({}),
    pageup: () => stepTrack(session, -1),
    pagedown: () => stepTrack(session, 1),
    "?": openHelp,
    ...Object.fromEntries(tools.map(({ tool, key }) => [key, () => (view.tool = tool)])),
  };
}

/** Turns to the next track, or the one before. */
function stepTrack(session: Session, by: number): void {
  const { tracks } = session.project;
  const next = tracks[tracks.findIndex((t) => t.id === session.track.id) + by];
  if (next) session.selectTrack(next.id);
}

function keepsKey({ target, key }: KeyboardEvent): boolean {
  return isTyping(target) && !(key === " " && (target as HTMLElement).dataset.number !== undefined);
}
