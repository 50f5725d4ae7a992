import type { InputPort } from "./port";

/** The browser's MIDI inputs. Throws where the browser has none, or may not use them. */
export async function midiPorts(changed: (ports: InputPort[]) => void): Promise<void> {
  if (!("requestMIDIAccess" in navigator)) throw new Error("this browser has no MIDI");
  const access = await navigator.requestMIDIAccess();
  const tell = () => changed([...access.inputs.values()].filter(isThere).map(portOf));
  access.onstatechange = tell;
  tell();
}

function isThere(input: MIDIInput): boolean {
  return input.state === "connected";
}

function portOf(input: MIDIInput): InputPort {
  return {
    id: input.id,
    name: input.name ?? "MIDI input",
    open(receive) {
      input.onmidimessage = ({ data, timeStamp }) => data && receive(data, timeStamp);
      return () => (input.onmidimessage = null);
    },
  };
}
