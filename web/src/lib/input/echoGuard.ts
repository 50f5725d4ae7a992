import type { Stroke } from "./port";

/** How long before and after its time a sound can come back, in milliseconds: a busy machine is late. */
const early = 80;
const late = 500;

/** Tells what a person plays from what Jettyfog itself has sent, where both come in at one port. */
export class EchoGuard {
  #sent: { page: number; name: string }[] = [];

  /** Remembers sounds that go out, and when. */
  remember(sounds: (Stroke & { at: number })[], pageMillis: (at: number) => number): void {
    for (const sound of sounds)
      this.#sent.push({ page: pageMillis(sound.at), name: nameOf(sound) });
  }

  /** Whether a stroke that comes in now is one that went out. Each comes back once. */
  isEcho(stroke: Stroke, now: number): boolean {
    this.#sent = this.#sent.filter(({ page }) => page > now - late);
    const at = this.#sent.findIndex(
      ({ page, name }) => page < now + early && name === nameOf(stroke),
    );
    if (at >= 0) this.#sent.splice(at, 1);
    return at >= 0;
  }
}

function nameOf({ channel, key, velocity }: Stroke): string {
  return `${channel} ${key} ${velocity}`;
}
