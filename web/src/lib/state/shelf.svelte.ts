import { counted } from "../counted";
import { post, postForLines, send } from "../api/http";
import type {
  Mend,
  Choice,
  Imported,
  KeepRequest,
  LoopRequest,
  PatternAnswer,
  PatternRequest,
  RenderProgress,
  ProjectState,
  Summary,
  TakeEditJSON,
} from "../api/types";
import type { Session } from "./session.svelte";

/** The kept takes, and the one way to ask the server for changes of them and by them. */
export class Shelf {
  #takes = $state.raw<Summary[]>([]);

  constructor(private readonly session: Session) {}

  /** All takes, deleted ones too, the latest first. */
  get takes(): Summary[] {
    return this.#takes;
  }

  /** Takes over a list of takes, but for edits that were answered while it was on its way. */
  adopt(takes: Summary[]): void {
    const known = new Map(this.#takes.map((take) => [take.id, take]));
    this.#takes = takes.map((take) => {
      const now = known.get(take.id);
      return now && now.version > take.version ? now : take;
    });
  }

  /** Makes a take of a Standard MIDI File, and says what was wrong with it. */
  importMidi(file: File): Promise<void> {
    return this.session.attempt(async () => {
      const name = file.name.replace(/\.midi?$/i, "");
      const path = `api/takes?name=${encodeURIComponent(name)}`;
      const { notes, remarks } = await send<Imported>(path, "audio/midi", file);
      this.#say([`“${name}” is a take of ${counted(notes, "note")} now.`, ...remarks]);
    });
  }

  /** Makes a take of the last whole bars that sounded, or of a piece of a stretch. */
  keepWake(what: KeepRequest): Promise<void> {
    return this.session.attempt(async () => {
      const { notes } = await post<Imported>("api/wake", what);
      const which = what.bars ? "The last bars are" : "What you selected is";
      this.#say([`${which} a take of ${counted(notes, "note")} now, under Takes.`]);
    });
  }

  /** Makes a take of bars without playing them, and tells how far it is. */
  render(
    what: { from: number; bars: number },
    signal: AbortSignal,
    tell: (progress: RenderProgress) => void,
  ): Promise<void> {
    return this.session.attempt(async () => {
      try {
        await postForLines<RenderProgress>("api/takes/render", what, signal, tell);
      } catch (error) {
        if (!signal.aborted) throw error;
        this.#say(["The rendering was given up; nothing was kept of it."]);
      }
    });
  }

  /** Edits a take, after all other changes; a run is that of presses that are one step of undo. */
  edit({ id }: Summary, edit: TakeEditJSON, run: string | undefined): Promise<void> {
    return this.#change(id, "edits", { edit, run });
  }

  move({ id }: Summary, direction: "undo" | "redo"): Promise<void> {
    return this.#change(id, direction, {});
  }

  /** Puts a take out of the way, or brings it back. */
  setDeleted({ id }: Summary, deleted: boolean): Promise<void> {
    return this.#change(id, "deleted", { deleted });
  }

  #change(id: number, what: string, body: object): Promise<void> {
    return this.session.inTurn(async () => {
      const version = this.#takes.find((take) => take.id === id)?.version ?? 0;
      const next = await post<Summary>(`api/takes/${id}/${what}`, { version, ...body });
      this.#takes = this.#takes.map((take) => (take.id === id ? next : take));
    });
  }

  /** Makes two takes of one. */
  split({ id, name }: Summary, tick: number): Promise<void> {
    return this.session.attempt(async () => {
      await post(`api/takes/${id}/split`, { tick });
      this.#say([`“${name}” is two takes more now: what was before, and what was after.`]);
    });
  }

  /** Makes another take of one as its log plays it once more, perhaps mended, or under another luck. */
  playAgain({ id, name }: Summary, mends: Mend[], luck?: number): Promise<void> {
    return this.session.attempt(async () => {
      const again = await post<Imported>(`api/takes/${id}/again`, {
        ...(mends.length > 0 && { mends }),
        ...(luck !== undefined && { luck }),
      });
      const how = mends.length > 0 ? `, with ${counted(mends.length, "action")} mended` : "";
      const under = luck === undefined ? "" : ` with luck ${luck}`;
      this.#say([`“${name}” was played again${under}${how}: ${counted(again.notes, "note")}.`]);
    });
  }

  /** Writes the live changes that stood at a take's end into the project, as one step of undo. */
  storeStage({ id }: Summary): Promise<void> {
    return this.session.change((revision) =>
      post<ProjectState>(`api/takes/${id}/stage`, { revision }),
    );
  }

  /** Makes the project what it was when a take began. */
  bringBack({ id }: Summary): Promise<void> {
    return this.session.change((revision) =>
      post<ProjectState>(`api/takes/${id}/origin`, { revision }),
    );
  }

  /** Writes notes of a take into a new pattern, turns to it, and says what could not be kept. */
  writePattern({ id }: Summary, request: Omit<PatternRequest, "revision">): Promise<void> {
    return this.session.change(async (revision) => {
      const path = `api/takes/${id}/pattern`;
      const answer = await post<PatternAnswer>(path, { revision, ...request });
      const remarks = answer.remarks.map((remark) => `${remark}.`);
      this.#say([`“${answer.name}” plays it as a pattern now.`, ...remarks]);
      return answer.project;
    });
  }

  /** Makes the notes of a take the project's key. */
  takeKey({ id }: Summary, notes: Choice): Promise<void> {
    return this.session.change((revision) =>
      post<ProjectState>(`api/takes/${id}/key`, { revision, notes }),
    );
  }

  /** Has a track play what it played last as a loop. */
  loopTrack(what: Pick<LoopRequest, "track" | "bars" | "notes">): Promise<void> {
    return this.session.change((revision) =>
      post<ProjectState>("api/loops", { revision, ...what }),
    );
  }

  editLoop(track: number, edit: TakeEditJSON): Promise<void> {
    return this.session.change((revision) =>
      post<ProjectState>(`api/loops/${track}/edits`, { revision, edit }),
    );
  }

  #say(sentences: string[]): void {
    this.session.notices.add(sentences.join(" "));
  }
}
