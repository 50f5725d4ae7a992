import { get, post, RefusedError } from "../api/http";
import { Socket } from "../api/socket";
import type {
  EditJSON,
  Lane,
  LaneName,
  LaneSpec,
  Lists,
  Message,
  Part,
  PartAddress,
  Project,
  Snapshot,
  Summary,
  Track,
} from "../api/types";
import { Player } from "../sound/player.svelte";
import { Notices } from "./notices.svelte";
import { Places } from "./places.svelte";
import { Transport } from "./transport.svelte";

/** Everything that the page knows of the server, and the one way to ask it for changes. */
export class Session {
  readonly notices = new Notices();
  readonly places: Places;
  readonly transport: Transport;
  readonly player: Player;

  #socket: Socket;
  #snapshot = $state.raw<Snapshot>();
  #lists = $state.raw<Lists>();
  #takes = $state.raw<Summary[]>([]);
  #connected = $state(false);
  #trackId = $state<number>();
  /** Changes wait for each other, because each names the revision that the one before it made. */
  #lastChange: Promise<unknown> = Promise.resolve();

  constructor() {
    this.#socket = new Socket(
      (message) => this.#receive(message),
      (is) => this.#connectedIs(is),
    );
    this.player = new Player(this.#socket.clock);
    this.places = new Places(this.#socket.clock);
    this.transport = new Transport(this.#socket.clock);
  }

  /** False until the project and the lists have arrived for the first time. */
  get ready(): boolean {
    return this.#snapshot !== undefined && this.#lists !== undefined;
  }

  get connected(): boolean {
    return this.#connected;
  }

  get snapshot(): Snapshot {
    if (!this.#snapshot) throw new Error("the project has not arrived yet");
    return this.#snapshot;
  }

  get project(): Project {
    return this.snapshot.project;
  }

  get lists(): Lists {
    if (!this.#lists) throw new Error("the lists have not arrived yet");
    return this.#lists;
  }

  get takes(): Summary[] {
    return this.#takes;
  }

  /** The track that is being written. */
  get track(): Track {
    const tracks = this.project.tracks;
    const track = tracks.find((t) => t.id === this.#trackId) ?? tracks[0];
    if (!track) throw new Error("a project always has a track");
    return track;
  }

  /** Names the part that is being written. */
  get address(): PartAddress {
    return { track: this.track.id, pattern: this.track.playing, part: 0 };
  }

  /** The part that is being written. */
  get part(): Part {
    const part = this.track.patterns[this.track.playing]?.parts[0];
    if (!part) throw new Error("a pattern always has a part");
    return part;
  }

  /** A lane of the part; one that was never edited holds the usual values. */
  lane(name: LaneName): Lane {
    const own = this.part.lanes[name];
    if (own) return own;
    const gate = this.part.lanes.gate;
    if (!gate) throw new Error("a part always has a gate lane");
    return { ...gate, linked: true, steps: gate.steps.map(() => this.spec(name).default) };
  }

  /** The lane whose loop decides where a lane stands. */
  loop(name: LaneName): Lane {
    const lane = this.lane(name);
    return lane.linked ? this.lane("gate") : lane;
  }

  spec(lane: LaneName): LaneSpec {
    const spec = this.lists.lanes.find((s) => s.name === lane);
    if (!spec) throw new Error(`there is no lane ${lane}`);
    return spec;
  }

  /** The lanes that the part has, in the order in which to show them. */
  get lanes(): LaneSpec[] {
    return this.lists.lanes.filter((s) => this.part.lanes[s.name as LaneName]);
  }

  chooseTrack(id: number): void {
    this.#trackId = id;
  }

  /** The length of a bar, in ticks. */
  get bar(): number {
    return this.beat * this.project.meter.beats;
  }

  /** The length of a beat, in ticks. */
  get beat(): number {
    return (this.lists.ticksPerQuarter * 4) / this.project.meter.unit;
  }

  edit(edit: EditJSON): Promise<void> {
    return this.#change(() =>
      post<Snapshot>("api/edits", { revision: this.snapshot.revision, edit }),
    );
  }

  undo(): Promise<void> {
    return this.#change(() => post<Snapshot>("api/undo", { revision: this.snapshot.revision }));
  }

  redo(): Promise<void> {
    return this.#change(() => post<Snapshot>("api/redo", { revision: this.snapshot.revision }));
  }

  startBlank(): Promise<void> {
    return this.#change(() => post<Snapshot>("api/blank", { revision: this.snapshot.revision }));
  }

  openFile(text: string): Promise<void> {
    return this.#change(() =>
      post<Snapshot>(`api/project.json?revision=${this.snapshot.revision}`, text),
    );
  }

  async togglePlaying(): Promise<void> {
    if (this.transport.playing) return this.#order("stop");
    await this.#startSound();
    return this.#order("play");
  }

  async toggleRecording(): Promise<void> {
    if (this.transport.recording) return this.#order("endRecording");
    await this.#startSound();
    return this.#order("record");
  }

  async #startSound(): Promise<void> {
    try {
      await this.player.start();
    } catch {
      this.notices.add("The built-in bell could not start; the sequence plays on without it.");
    }
  }

  #order(what: "play" | "stop" | "record" | "endRecording"): Promise<void> {
    return this.#try(() => post("api/transport", { do: what }));
  }

  #change(ask: () => Promise<Snapshot>): Promise<void> {
    const change = this.#lastChange.then(() => this.#try(async () => this.#adopt(await ask())));
    this.#lastChange = change;
    return change;
  }

  async #try(ask: () => Promise<unknown>): Promise<void> {
    try {
      await ask();
    } catch (error) {
      this.notices.add(
        error instanceof RefusedError
          ? `Nothing was changed: ${error.message}.`
          : "Nothing was changed: Jettyfog does not answer. Is it still running?",
      );
    }
  }

  #adopt(snapshot: Snapshot): void {
    if (this.#snapshot && snapshot.revision < this.#snapshot.revision) return;
    this.#snapshot = snapshot;
  }

  #receive(message: Message): void {
    if (message.project) this.#adopt(message.project);
    if (message.transport) {
      this.transport.adopt(message.transport);
      if (!message.transport.playing) {
        this.player.silence();
        this.places.clear();
      }
    }
    if (message.batch) {
      this.player.announce(message.batch.sounds);
      this.places.announce(message.batch.places);
    }
    if (message.takes) {
      this.#takes = message.takes.takes;
      if (message.takes.problem) this.notices.add(message.takes.problem);
    }
  }

  #connectedIs(is: boolean): void {
    this.#connected = is;
    if (is) {
      void this.#try(async () => (this.#lists = await get<Lists>("api/lists")));
      return;
    }
    this.player.silence();
    this.places.clear();
    this.transport.lose();
    // Another server may have started on other data, whose revisions begin anew.
    if (this.#snapshot) this.#snapshot = { ...this.#snapshot, revision: 0 };
  }
}
