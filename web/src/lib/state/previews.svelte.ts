import type { ServerClock } from "../api/serverClock";
import { askForNames, cueOutputs, type AudioOutput } from "../sound/audioOutputs";
import { Player } from "../sound/player.svelte";
import type { Session } from "./session.svelte";

/** Where the browser keeps which audio output is the cue. */
const cueKey = "jettyfog cue";

/** What is heard beside the music: notes that are tried, and takes. It goes to the cue alone, if there is one. */
export class Previews {
  /** Whether previews are heard while it plays although there is no cue. */
  allowed = $state(false);
  #outputs = $state.raw<AudioOutput[]>([]);
  #cue = $state.raw<AudioOutput | undefined>(stored());
  #player: Player | undefined;

  constructor(
    private readonly session: Session,
    private readonly clock: ServerClock,
  ) {}

  /** The audio outputs that can be the cue, those of which the page knows. */
  get outputs(): AudioOutput[] {
    const kept = this.#cue && !this.#outputs.some(({ id }) => id === this.#cue?.id);
    return kept && this.#cue ? [this.#cue, ...this.#outputs] : this.#outputs;
  }

  get cue(): AudioOutput | undefined {
    return this.#cue;
  }

  /** Looks which audio outputs there are. */
  async find(): Promise<void> {
    try {
      await askForNames();
    } catch {
      this.session.notices.add("The browser does not tell the names of audio outputs.");
    }
    this.#outputs = await cueOutputs();
    if (this.#outputs.length === 0)
      this.session.notices.add("There is no audio output besides the usual one.");
  }

  /** Has an audio output be the cue on this machine; an id that is not known is none. */
  select(id: string): void {
    this.#player?.close();
    this.#player = undefined;
    this.#cue = this.outputs.find((output) => output.id === id);
    if (this.#cue) localStorage.setItem(cueKey, JSON.stringify(this.#cue));
    else localStorage.removeItem(cueKey);
  }

  /** Whether a preview may be heard now. */
  get may(): boolean {
    return this.#cue !== undefined || this.allowed || !this.session.transport.playing;
  }

  /** Starts what previews are heard by, and returns it; nothing if none may be heard now, which is said. */
  async start(): Promise<Player | undefined> {
    if (!this.may) {
      this.session.notices.add(
        "Nothing is heard beside what plays, as no audio output is the cue. Connect has that, under the built-in sound.",
      );
      return undefined;
    }
    if (!this.#cue) {
      await this.session.sound.start();
      return this.session.player;
    }
    this.#player ??= new Player(this.clock, (track) => this.session.patchOf(track), this.#cue.id);
    try {
      await this.#player.start();
      return this.#player;
    } catch {
      this.#player = undefined;
      this.session.notices.add(
        `${this.#cue.name} cannot be used as the cue, so nothing is heard. Connect has others, under the built-in sound.`,
      );
      return undefined;
    }
  }
}

function stored(): AudioOutput | undefined {
  try {
    return (JSON.parse(localStorage.getItem(cueKey) ?? "null") as AudioOutput | null) ?? undefined;
  } catch {
    return undefined;
  }
}
