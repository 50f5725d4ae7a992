import { applyPatches, enablePatches, setAutoFreeze, type Patch } from "immer";
import { get, post, RefusedError } from "../api/http";
import { Socket } from "../api/socket";
import type {
  EditJSON,
  Lane,
  LaneChange,
  LaneName,
  LaneSpec,
  Lists,
  Message,
  Part,
  PartAddress,
  Pattern,
  Project,
  RollRequest,
  SetPart,
  SetTrack,
  ProjectState,
  Snapshot,
  StepDetail,
  Track,
  TransportRequest,
  WireSound,
} from "../api/types";
import { barsOf } from "../bars";
import { gateLane } from "../chart/gate";
import { Notes } from "../chart/notes";
import { Player } from "../sound/player.svelte";
import { EditRun } from "./editRun";
import { Notices } from "./notices.svelte";
import { PageSound } from "./pageSound.svelte";
import { Places } from "./places.svelte";
import { Shelf } from "./shelf.svelte";
import { SongStart } from "./songStart.svelte";
import { Stage } from "./stage.svelte";
import { Transport } from "./transport.svelte";

enablePatches();
setAutoFreeze(false); // nothing writes to a state, and freezing takes time

/** Everything that the page knows of the server, and the one way to ask it for changes. */
export class Session {
  readonly notices = new Notices();
  readonly places: Places;
  readonly transport: Transport;
  readonly player: Player;
  readonly shelf: Shelf;
  readonly sound: PageSound;
  readonly run = new EditRun();

  #socket: Socket;
  #listeners: ((sounds: WireSound[]) => void)[] = [];
  #snapshot = $state.raw<Snapshot>();
  #lists = $state.raw<Lists>();
  #connected = $state(false);
  #trackId = $state<number>();
  readonly stage = new Stage(this);
  readonly song = new SongStart(this, (request) => this.#order(request));
  #partIndex = $state(0);
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
    this.shelf = new Shelf(this);
    this.sound = new PageSound(this.player, this.notices, () => this.connected);
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

  /** The id of the project in its folder. */
  get document(): number {
    return this.snapshot.document;
  }

  get lists(): Lists {
    if (!this.#lists) throw new Error("the lists have not arrived yet");
    return this.#lists;
  }

  /** The track that is being written. */
  get track(): Track {
    const track = this.project.tracks.find((t) => t.id === this.#trackId);
    if (!track) throw new Error("a project always has a track that is written");
    return track;
  }

  /** Names the part that is being written. */
  get address(): PartAddress {
    return this.addressOf(this.part);
  }

  /** Names a part of the pattern that is being written. */
  addressOf(part: Part): PartAddress {
    return { track: this.track.id, pattern: this.pattern.id, part: part.id };
  }

  /** The pattern that is being written: the one that was chosen, else the one that plays. */
  get pattern(): Pattern {
    return this.stage.written(this.track);
  }

  /** The parts of the pattern that is being written. */
  get parts(): Part[] {
    return this.pattern.parts;
  }

  /** The place of the part that is being written. */
  get partIndex(): number {
    return Math.min(this.#partIndex, this.parts.length - 1);
  }

  /** The part that is being written. */
  get part(): Part {
    const part = this.parts[this.partIndex];
    if (!part) throw new Error("a pattern always has a part");
    return part;
  }

  choosePart(index: number): void {
    this.#partIndex = index;
  }

  /** A lane of a part, usually the one that is being written; one that was never edited holds the usual values. */
  lane(name: LaneName, part = this.part): Lane {
    const own = part.lanes[name];
    if (own) return own;
    const gate = part.lanes[gateLane];
    if (!gate) throw new Error("a part always has a gate lane");
    return { ...gate, linked: true, steps: gate.steps.map(() => this.spec(name).default) };
  }

  /** The lane whose loop decides where a lane stands. */
  loop(name: LaneName, part = this.part): Lane {
    const lane = this.lane(name, part);
    return lane.linked ? this.lane(gateLane, part) : lane;
  }

  spec(lane: LaneName): LaneSpec {
    const spec = this.lists.lanes.find((s) => s.name === lane);
    if (!spec) throw new Error(`there is no lane ${lane}`);
    return spec;
  }

  /** The lanes that mean something to the track, in the order in which to show them. */
  get fittingLanes(): LaneSpec[] {
    const kit = this.track.kind === "kit";
    return this.lists.lanes.filter((spec) => !kit || !spec.pitched);
  }

  /** Those that the part has. */
  get lanes(): LaneSpec[] {
    return this.fittingLanes.filter((s) => this.part.lanes[s.name]);
  }

  chooseTrack(id: number): void {
    if (id === this.track.id) return;
    this.#trackId = id;
    this.#partIndex = 0;
  }

  /** Adds a track, new or a copy, behind all others, and turns to it. */
  async addTrack(what: { kind: "melodic" | "kit" } | { copy: number }): Promise<void> {
    const at = this.project.tracks.length;
    await this.edit({ addTrack: { at, ...what } });
    const added = this.project.tracks[at];
    if (added) this.chooseTrack(added.id);
  }

  setTrack(change: Omit<SetTrack, "track">, track = this.track): Promise<void> {
    return this.edit({ setTrack: { track: track.id, ...change } });
  }

  setPart(change: Omit<SetPart, keyof PartAddress>): Promise<void> {
    return this.edit({ setPart: { ...this.address, ...change } });
  }

  setLane(lane: LaneName, change: LaneChange): Promise<void> {
    return this.edit({ setLane: { ...this.address, lane, ...change } });
  }

  setDetail(step: number, change: Partial<StepDetail>): Promise<void> {
    const detail = { ...this.part.details?.[step], ...change };
    return this.edit({ setDetail: { ...this.address, step, detail } });
  }

  /** The names of notes. */
  readonly notes = $derived.by(() => new Notes(this.lists.notes));

  /** The project's bars. */
  readonly bars = $derived.by(() => barsOf(this.project, this.lists.ticksPerQuarter));

  edit(edit: EditJSON): Promise<void> {
    const run = this.run.name;
    return this.change((revision) => post<ProjectState>("api/edits", { revision, edit, run }));
  }

  /** Makes several edits one step of undo. */
  editAll(name: string, edits: EditJSON[]): Promise<void> {
    const [only] = edits;
    if (!only) return Promise.resolve();
    return this.edit(edits.length === 1 ? only : { all: { name, edits } });
  }

  roll(request: Omit<RollRequest, "revision">): Promise<void> {
    return this.change((revision) => post<ProjectState>("api/roll", { revision, ...request }));
  }

  /** Undoes or redoes edits until just those up to a position of the history are in force. */
  goTo(position: number): Promise<void> {
    return this.change((revision) => post<ProjectState>("api/history", { revision, position }));
  }

  /** Takes a tuning from the texts of Scala files, empty ones being equal temperament; returns why it cannot. */
  setTuning(scl: string, kbm: string): Promise<string | undefined> {
    return this.changeByFile((revision) =>
      post<ProjectState>("api/tuning", { revision, scl, kbm }),
    );
  }

  /** Lets a note be heard at once, for placing it by ear. */
  async hear(key: number, detune = 0, velocity = 90): Promise<void> {
    await this.sound.start();
    this.player.strike({ of: "tried", key, detune }, velocity);
  }

  undo(): Promise<void> {
    return this.change((revision) => post<ProjectState>("api/undo", { revision }));
  }

  redo(): Promise<void> {
    return this.change((revision) => post<ProjectState>("api/redo", { revision }));
  }

  /** Converts a time of the page (performance.now, ms) to nanoseconds of the server's clock. */
  serverNanos(pageMillis: number): number {
    return this.#socket.clock.serverNanos(pageMillis);
  }

  /** Converts nanoseconds of the server's clock to a time of the page (performance.now, ms). */
  pageMillis(serverNanos: number): number {
    return this.#socket.clock.pageMillis(serverNanos);
  }

  /** Has a function told of all sounds that are announced, for as long as the page is there. */
  listen(listener: (sounds: WireSound[]) => void): void {
    this.#listeners.push(listener);
  }

  /** Lets tracks hear a channel message that has come in, if one of them goes on by it. */
  async passOn(message: number[]): Promise<void> {
    const waits = this.project.tracks.some((track) => track.source.kind.startsWith("input"));
    if (waits && this.transport.playing) {
      await this.attempt(() => post("api/transport/input", { message }));
    }
  }

  async #order(request: TransportRequest): Promise<boolean> {
    let done = false;
    await this.attempt(async () => {
      await post("api/transport", request);
      done = true;
    });
    return done;
  }

  /** Asks the server for a change of the project, of the revision that the change before it made. */
  change(ask: (revision: number) => Promise<ProjectState>): Promise<void> {
    return this.inTurn(async () => this.#adopt(await ask(this.snapshot.revision)));
  }

  /** Asks for a change by a file, and returns why it is refused, for its dialog to say. */
  async changeByFile(
    ask: (revision: number) => Promise<ProjectState>,
  ): Promise<string | undefined> {
    let refused: string | undefined;
    await this.inTurn(async () => {
      try {
        this.#adopt(await ask(this.snapshot.revision));
      } catch (error) {
        if (!(error instanceof RefusedError)) throw error;
        refused = `Nothing was changed: ${error.message}.`;
      }
    });
    return refused;
  }

  /** Asks the server for something once all that was asked before is answered. */
  inTurn(ask: () => Promise<unknown>): Promise<void> {
    const change = this.#lastChange.then(() => this.attempt(ask));
    this.#lastChange = change;
    return change;
  }

  /** Asks the server for something, and says it if it does not answer or refuses. */
  async attempt(ask: () => Promise<unknown>): Promise<void> {
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

  /** Takes a state of the project over; where what leads to it leads from elsewhere the whole is asked for. */
  #adopt(state: ProjectState): void {
    const { document, revision, undo, redo, project, from, changes = [] } = state;
    const own = this.#snapshot;
    if (own && revision < own.revision) return;
    if (project) this.#show({ document, revision, undo, redo, project });
    else if (own && own.revision === from)
      this.#show({
        ...{ document, revision, undo, redo },
        project: applyPatches(own.project, changes as Patch[]),
      });
    else if (own?.revision !== revision) void this.attempt(() => this.fetchWhole());
  }

  /** Fetches the whole project in place of the copy that the page has. */
  async fetchWhole(): Promise<void> {
    this.#adopt(await get<ProjectState>("api/project"));
  }

  #show(snapshot: Snapshot): void {
    const before = this.#snapshot?.project.tracks ?? [];
    if (this.#snapshot?.document !== snapshot.document) this.#forget();
    this.#snapshot = snapshot;
    const { tracks } = snapshot.project;
    if (tracks.some((track) => track.id === this.#trackId)) return;
    // The track that is written is gone, so the one that has come to its place is written.
    const place = Math.max(
      0,
      before.findIndex((track) => track.id === this.#trackId),
    );
    this.#trackId = tracks[Math.min(place, tracks.length - 1)]?.id;
    this.#partIndex = 0;
  }

  /** Forgets what was chosen in the project before. */
  #forget(): void {
    this.#trackId = undefined;
    this.#partIndex = 0;
    this.stage.forget();
  }

  #receive(message: Message): void {
    if (message.project) this.#adopt(message.project);
    if (message.transport) {
      this.transport.adopt(message.transport);
      if (!message.transport.playing) this.places.clear();
    }
    if (message.stage) this.stage.adopt(message.stage);
    if (message.batch) {
      const { sounds = [], places = [], clicks = [], withdrawn = [], release } = message.batch;
      if (release) this.player.silence();
      this.player.withdraw(withdrawn);
      this.player.announce(sounds);
      this.player.click(clicks);
      for (const listener of this.#listeners) listener(sounds);
      this.places.announce(places);
    }
    if (message.takes) this.shelf.adopt(message.takes.takes);
    if (message.problems) this.notices.setProblems(message.problems.problems);
    if (message.notice) this.notices.add(message.notice.text);
  }

  #connectedIs(is: boolean): void {
    this.#connected = is;
    if (is) {
      void this.attempt(async () => (this.#lists = await get<Lists>("api/lists")));
      return;
    }
    this.player.silence();
    this.places.clear();
    this.transport.lose();
    this.notices.setProblems([]);
    // Another server may have started on other data, whose revisions begin anew.
    if (this.#snapshot) this.#snapshot = { ...this.#snapshot, revision: 0 };
  }
}
