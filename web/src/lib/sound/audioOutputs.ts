/** An audio output of this machine. */
export interface AudioOutput {
  id: string;
  name: string;
  /** Whether it is the one on which everything else is heard. */
  usual?: boolean;
}

/** The third and fourth channel of the audio output that plays everything else. */
export const otherChannels: AudioOutput = { id: "channels 3 and 4", name: "channels 3 and 4" };

/** An audio context as browsers have it that can play on a chosen output; TypeScript's library does not know that yet. */
export type Sinking = AudioContext & { setSinkId(id: string): Promise<void> };

/** How many channels an audio output has at least that has a third and a fourth. */
const four = 4;

/** The audio outputs of this machine besides the usual one. Browsers tell their names once the page may hear something. */
export async function audioOutputs(): Promise<AudioOutput[]> {
  const devices = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
  const outputs = devices.filter(
    ({ kind, deviceId }) => kind === "audiooutput" && !["", "default"].includes(deviceId),
  );
  const usual = devices.find(
    ({ kind, deviceId }) => kind === "audiooutput" && deviceId === "default",
  );
  return outputs.map(({ deviceId, label, groupId }, i) => ({
    id: deviceId,
    name: label || `audio output ${i + 1}`,
    usual: Boolean(groupId) && groupId === usual?.groupId,
  }));
}

/** Where previews can be heard alone. */
export async function cueOutputs(): Promise<AudioOutput[]> {
  const others = await audioOutputs();
  const usual = new AudioContext();
  const channels = usual.destination.maxChannelCount;
  await usual.close();
  return channels < four ? others : [otherChannels, ...others];
}

/** Asks the user whether the page may know the names of audio outputs, which browsers tie to hearing something. */
export async function askForNames(): Promise<void> {
  const heard = await navigator.mediaDevices.getUserMedia({ audio: true });
  for (const track of heard.getTracks()) track.stop();
}

/** Connects a mono sound with an audio output: both first channels of the usual one, or where the cue is. */
export async function connectTo(
  context: AudioContext,
  sound: AudioNode,
  cue: string,
): Promise<void> {
  if (cue !== otherChannels.id) {
    if (cue) await (context as Sinking).setSinkId(cue);
    sound.connect(context.destination);
    return;
  }
  context.destination.channelCount = four;
  context.destination.channelInterpretation = "discrete";
  const channels = context.createChannelMerger(four);
  sound.connect(channels, 0, 2);
  sound.connect(channels, 0, 3);
  channels.connect(context.destination);
}
