/** A MIDI output of the browser. */
export interface OutputPort {
  readonly id: string;
  readonly name: string;
  /** Sends the bytes of a message at a time of the page (performance.now, ms). */
  send(data: readonly number[], pageMillis: number): void;
}

/**
 * The browser's MIDI outputs, which may be sent system exclusive messages if the user allows that too. Throws where the browser has
 * none, or may not use them.
 */
export async function midiOutputs(
  sysex: boolean,
  changed: (ports: OutputPort[]) => void,
): Promise<void> {
  if (!("requestMIDIAccess" in navigator)) throw new Error("this browser has no MIDI");
  const access = await navigator.requestMIDIAccess({ sysex });
  const tell = () => changed([...access.outputs.values()].filter(isThere).map(portOf));
  access.addEventListener("statechange", tell);
  tell();
}

function isThere(output: MIDIOutput): boolean {
  return output.state === "connected";
}

function portOf(output: MIDIOutput): OutputPort {
  return {
    id: output.id,
    name: output.name ?? "MIDI output",
    send: (data, pageMillis) => output.send([...data], pageMillis),
  };
}
