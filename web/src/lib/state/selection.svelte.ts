import type {
  BarSpan,
  Lane,
  LaneChange,
  LaneName,
  LaneSpec,
  Part,
  PartAddress,
  PartChange,
  Pattern,
  SetTrack,
  Snapshot,
  Track,
} from "../api/types";
import { gateLane } from "../chart/gate";
import { OpenProject } from "./openProject.svelte";
import { Stage } from "./stage.svelte";

/** A change of something, or what makes one of it as it is when its turn comes: of changes that follow each other quickly each counts. */
export type ChangeOf<Of, Change> = Change | ((now: Of) => Change);

export function changeOf<Of, Change extends object>(change: ChangeOf<Of, Change>, now: Of): Change {
  return typeof change === "function" ? (change as (now: Of) => Change)(now) : change;
}

/** What of the open project is being written: a track, one of its patterns and a part of that; and edits of these. */
export class Selection extends OpenProject {
  readonly stage = new Stage(this);

  protected override get played(): BarSpan[] {
    const metered = this.project.song?.some(({ meter }) => meter) ?? false;
    return metered ? this.stage.song.bars : [];
  }

  #trackId = $state<number>();
  #partIndex = $state(0);

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

  /** The part that an address names, if it is there. */
  partAt({ track, pattern, part }: PartAddress): Part | undefined {
    const of = this.project.tracks.find(({ id }) => id === track);
    const parts = of?.patterns.find(({ id }) => id === pattern)?.parts;
    return parts?.find(({ id }) => id === part);
  }

  /** The pattern that is being written: the one that was selected, else the one that plays. */
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

  selectPart(index: number): void {
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

  /** The lanes that mean something to the track, in the order in which to show them. */
  get fittingLanes(): LaneSpec[] {
    const kit = this.track.kind === "kit";
    return this.lists.lanes.filter((spec) => !kit || !spec.pitched);
  }

  /** Those that the part has. */
  get lanes(): LaneSpec[] {
    return this.fittingLanes.filter((s) => this.part.lanes[s.name]);
  }

  selectTrack(id: number): void {
    if (id === this.track.id) return;
    this.#trackId = id;
    this.#partIndex = 0;
  }

  /** Adds a track, new or a copy, behind all others, and turns to it. */
  async addTrack(what: { kind: "melodic" | "kit" | "field" } | { copy: number }): Promise<void> {
    const at = this.project.tracks.length;
    await this.edit({ addTrack: { at, ...what } });
    const added = this.project.tracks[at];
    if (added) this.selectTrack(added.id);
  }

  setTrack(change: ChangeOf<Track, Omit<SetTrack, "track">>, track = this.track): Promise<void> {
    return this.edit(() => {
      const now = this.project.tracks.find(({ id }) => id === track.id) ?? track;
      return { setTrack: { track: track.id, ...changeOf(change, now) } };
    });
  }

  setPart(change: ChangeOf<Part, PartChange>): Promise<void> {
    const { address, part } = this;
    return this.edit(() => ({
      setPart: { ...address, ...changeOf(change, this.partAt(address) ?? part) },
    }));
  }

  setLane(lane: LaneName, change: ChangeOf<Lane, LaneChange>): Promise<void> {
    const { address, part } = this;
    return this.edit(() => ({
      setLane: {
        ...{ ...address, lane },
        ...changeOf(change, this.lane(lane, this.partAt(address) ?? part)),
      },
    }));
  }

  protected override shown({ document, project }: Snapshot, before: Snapshot | undefined): void {
    if (before?.document !== document) {
      this.#trackId = undefined;
      this.stage.forget();
    }
    const { tracks } = project;
    if (tracks.some((track) => track.id === this.#trackId)) return;
    // The track that is written is gone, so the one that has come to its place is written.
    const place = before?.project.tracks.findIndex((track) => track.id === this.#trackId) ?? 0;
    this.#trackId = tracks[Math.min(Math.max(0, place), tracks.length - 1)]?.id;
    this.#partIndex = 0;
  }
}
