import { applyPatches, enablePatches, setAutoFreeze, type Patch } from "immer";
import { AwayError, get, post, RefusedError } from "../api/http";
import { refusal, whyNot } from "../api/refusal";
import type {
  BarSpan,
  EditJSON,
  Key,
  LaneName,
  LaneSpec,
  Lists,
  Project,
  ProjectState,
  RollRequest,
  Snapshot,
} from "../api/types";
import { Bars } from "../bars";
import { Notes } from "../chart/notes";
import { EditRun } from "./editRun";
import { TempoTap } from "./tempoTap";
import { Notices } from "./notices.svelte";

enablePatches();
setAutoFreeze(false); // nothing writes to a state, and freezing takes time

/** The project that is open, as the page has it, and the one way to ask the server for changes of it. */
export abstract class OpenProject {
  readonly notices = new Notices();
  readonly run = new EditRun();
  readonly tempoTap = new TempoTap(this);

  /** Whether this page changes nothing of what is written, so that a slip of the hand cannot. What is performed is not held up. */
  locked = $state(false);

  #snapshot = $state.raw<Snapshot>();
  #lists = $state.raw<Lists>();
  /** Changes wait for each other, because each names the revision that the one before it made. */
  #lastChange: Promise<unknown> = Promise.resolve();

  /** False until the project and the lists have arrived for the first time. */
  get ready(): boolean {
    return this.#snapshot !== undefined && this.#lists !== undefined;
  }

  get snapshot(): Snapshot {
    if (!this.#snapshot) throw new Error("the project has not arrived yet");
    return this.#snapshot;
  }

  get project(): Project {
    return this.snapshot.project;
  }

  /** The id of the project in its folder. */
  readonly document = $derived.by(() => this.snapshot.document);

  get lists(): Lists {
    if (!this.#lists) throw new Error("the lists have not arrived yet");
    return this.#lists;
  }

  spec(lane: LaneName): LaneSpec {
    const spec = this.lists.lanes.find((s) => s.name === lane);
    if (!spec) throw new Error(`there is no lane ${lane}`);
    return spec;
  }

  /** The names of notes. */
  readonly notes = $derived.by(() => new Notes(this.lists.notes));

  readonly #spans = $derived.by(() => this.snapshot.bars);

  /** The bars of what plays where sections of the song have meters of their own; empty where they are the project's. */
  protected abstract get played(): BarSpan[];

  /** The bars of what plays, or would play. */
  readonly bars = $derived.by(() => new Bars(this.played.length > 0 ? this.played : this.#spans));

  /** Makes an edit; one that follows from what the edits before it make is a function, called in its turn. */
  edit(edit: EditJSON | (() => EditJSON)): Promise<void> {
    const run = this.run.name;
    return this.change((revision) => {
      const made = typeof edit === "function" ? edit() : edit;
      return post<ProjectState>("api/edits", { revision, edit: made, run });
    });
  }

  /** Makes several edits one step of undo; those that follow from what the edits before them make are a function, called in its turn. */
  editAll(name: string, edits: EditJSON[] | (() => EditJSON[])): Promise<void> {
    const one = (made: EditJSON[]): EditJSON =>
      made.length === 1 && made[0] ? made[0] : { all: { name, edits: made } };
    if (typeof edits === "function") return this.edit(() => one(edits()));
    return edits.length === 0 ? Promise.resolve() : this.edit(one(edits));
  }

  roll(request: Omit<RollRequest, "revision">): Promise<void> {
    return this.change((revision) => post<ProjectState>("api/roll", { revision, ...request }));
  }

  /** Undoes or redoes edits until just those up to a position of the history are in force. */
  goTo(position: number): Promise<void> {
    return this.change((revision) => post<ProjectState>("api/history", { revision, position }));
  }

  /** Takes a tuning from the texts of Scala files, empty ones being equal temperament; returns why it cannot. */
  async setTuning(scl: string, kbm: string): Promise<string | undefined> {
    if (this.locked) return "Nothing was changed: editing is locked in this page.";
    return this.changeByFile((revision) =>
      post<ProjectState>("api/tuning", { revision, scl, kbm }),
    );
  }

  /** Sets the tempo, in quarter notes a minute. */
  setTempo(tempo: number): Promise<void> {
    return this.edit({ setProject: { tempo: Math.round(tempo * 1000) } });
  }

  /** Makes another key of the one that there is when its turn comes. */
  setKey(made: (now: Key) => Key): Promise<void> {
    return this.edit(() => ({ setProject: { key: made(this.project.key) } }));
  }

  setLuck(number: number): Promise<void> {
    return this.edit({ changeLuck: { number } });
  }

  /** Goes back to the luck before, if there is one. */
  async luckBack(): Promise<void> {
    if (this.project.luck.former.length > 0) await this.edit({ backLuck: {} });
  }

  undo(): Promise<void> {
    return this.change((revision) => post<ProjectState>("api/undo", { revision }));
  }

  redo(): Promise<void> {
    return this.change((revision) => post<ProjectState>("api/redo", { revision }));
  }

  /** Asks the server for a change of the project, of the revision that the change before it made, unless editing is locked. */
  async change(ask: (revision: number) => Promise<ProjectState>): Promise<void> {
    if (this.locked) {
      this.notices.add(
        "Nothing was changed: editing is locked in this page. Press “unlock editing” first.",
      );
      return;
    }
    await this.turnTo(ask);
  }

  /** Asks the server for another project, or another state of this one. */
  turnTo(ask: (revision: number) => Promise<ProjectState>): Promise<void> {
    return this.inTurn(async () => this.adopt(await ask(this.snapshot.revision)));
  }

  /** Asks for a change by a file, and returns why it is refused, for its dialog to say. */
  async changeByFile(
    ask: (revision: number) => Promise<ProjectState>,
  ): Promise<string | undefined> {
    let refused: string | undefined;
    await this.inTurn(async () => {
      try {
        this.adopt(await ask(this.snapshot.revision));
      } catch (error) {
        if (!(error instanceof RefusedError)) throw error;
        refused = refusal(error);
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

  /** Asks the server for something, and says it if it does not answer or refuses, or the page itself fails. */
  async attempt(ask: () => Promise<unknown>): Promise<void> {
    try {
      await ask();
    } catch (error) {
      this.notices.add(whyNot(error));
      if (!(error instanceof RefusedError || error instanceof AwayError)) reportError(error);
    }
  }

  /** Takes a state of the project over; where what leads to it leads from elsewhere the whole is asked for. */
  adopt(state: ProjectState): void {
    const { document, revision, undo, redo, project, from, changes = [] } = state;
    const own = this.#snapshot;
    const { bars = own?.bars ?? [], ticksPerMilli = own?.ticksPerMilli ?? 1 } = state;
    const now = { document, revision, undo, redo, bars, ticksPerMilli };
    if (own && revision < own.revision) return;
    if (project) this.#show({ ...now, project });
    else if (own && own.revision === from)
      this.#show({ ...now, project: applyPatches(own.project, changes as Patch[]) });
    else if (own?.revision !== revision) void this.attempt(() => this.fetchWhole());
  }

  /** Fetches the whole project in place of the copy that the page has. */
  async fetchWhole(): Promise<void> {
    this.adopt(await get<ProjectState>("api/project"));
  }

  #show(snapshot: Snapshot): void {
    const before = this.#snapshot;
    this.#snapshot = snapshot;
    this.shown(snapshot, before);
  }

  /** Is told of each state that is shown, and of the one before. */
  protected abstract shown(snapshot: Snapshot, before: Snapshot | undefined): void;

  protected takeLists(lists: Lists): void {
    this.#lists = lists;
  }

  /** Another server may have started on other data, whose revisions begin anew. */
  protected forgetRevision(): void {
    if (this.#snapshot) this.#snapshot = { ...this.#snapshot, revision: 0 };
  }
}
