import type { Player } from "../sound/player.svelte";
import type { Notices } from "./notices.svelte";

/** Where the page keeps whether it sounds, until its tab is closed. */
const soundsKey = "sounds";

/** How long playing waits for the built-in sounds, in milliseconds. */
const soundWithin = 3_000;

/** Whether what is played sounds in this page. */
export class PageSound {
  constructor(
    private readonly player: Player,
    private readonly notices: Notices,
    private readonly connected: () => boolean,
  ) {}

  /** Has what is played sound in this page, or in other pages only, and keeps to that over a reload. */
  async here(sounds: boolean): Promise<void> {
    this.player.sounds = sounds;
    sessionStorage.setItem(soundsKey, String(sounds));
    if (sounds) await this.start();
  }

  /** Whether the page sounded before it was loaded anew and has not started to again. */
  get again(): boolean {
    return !this.player.ready && sessionStorage.getItem(soundsKey) === "true";
  }

  /** Starts the built-in sounds, if they have not started yet. A sound card that does not answer is not waited for. */
  async start(): Promise<void> {
    if (!this.connected()) return; // what is asked for next says so
    const late = new Promise<boolean>((resolve) => setTimeout(() => resolve(true), soundWithin));
    try {
      const started = this.player.start().then(() => false);
      if (await Promise.race([started, late])) {
        this.notices.add("The built-in sound has not started yet; the sequence plays without it.");
      } else sessionStorage.setItem(soundsKey, String(this.player.sounds));
    } catch {
      this.notices.add("The built-in sound could not start; the sequence plays on without it.");
    }
  }
}
