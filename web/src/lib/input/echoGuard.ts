/** How long before and after its time a message can come back, in milliseconds: a busy machine is late. */
const early = 80;
const late = 500;

/** What machines in time tell each other begins here; those come as often as ours, so nothing tells them from an echo. */
const realTime = 0xf8;

/** Tells what comes in from what Jettyfog itself has sent, where both come in at one port. */
export class EchoGuard {
  #sent: { page: number; name: string }[] = [];

  /** Remembers messages that go out, and when. */
  remember(
    messages: readonly { at: number; data: readonly number[] }[],
    pageMillis: (at: number) => number,
  ): void {
    for (const { at, data } of messages)
      if ((data[0] ?? 0) < realTime) this.#sent.push({ page: pageMillis(at), name: nameOf(data) });
  }

  /** Whether a message that comes in now is one that went out. Each comes back once. */
  isEcho(data: ArrayLike<number>, now: number): boolean {
    this.#sent = this.#sent.filter(({ page }) => page > now - late);
    const name = nameOf(Array.from(data));
    const at = this.#sent.findIndex((sent) => sent.page < now + early && sent.name === name);
    if (at >= 0) this.#sent.splice(at, 1);
    return at >= 0;
  }
}

/** A message by its bytes; the end of a note is the same however it is written. */
function nameOf(data: readonly number[]): string {
  const [status = 0, key = 0, velocity = 0] = data;
  const ends = (status & 0xf0) === 0x80 || ((status & 0xf0) === 0x90 && velocity === 0);
  return ends ? `off ${status & 0xf} ${key}` : data.join(" ");
}
