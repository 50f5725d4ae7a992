import type { Outputs } from "./outputs.svelte";
import type { Session } from "./session.svelte";

/** While the page plays something the screen is kept awake, and closing it asks. Must be called while a component is made. */
export function guardPlaying(session: Session, outputs: Outputs): void {
  let lock: WakeLockSentinel | undefined;
  const awake = async () => {
    // A browser may refuse, as when its battery is low; playing goes on all the same.
    lock = await navigator.wakeLock?.request("screen").catch(() => undefined);
  };
  const again = () => void (document.visibilityState === "visible" && awake());
  const ask = (event: BeforeUnloadEvent) => event.preventDefault();
  $effect(() => {
    if (!session.transport.playing || !(session.player.sounds || outputs.plays)) return;
    void awake();
    document.addEventListener("visibilitychange", again);
    window.addEventListener("beforeunload", ask);
    return () => {
      document.removeEventListener("visibilitychange", again);
      window.removeEventListener("beforeunload", ask);
      void lock?.release();
      lock = undefined;
    };
  });
}
