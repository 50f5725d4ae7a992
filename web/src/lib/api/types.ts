import type {
  Lanes,
  LaneSpec as AnyLaneSpec,
  Lists as AnyLists,
  ProjectState,
  SetLane,
  SetPart,
} from "./generated";

export type * from "./generated";

/** The lanes of a melodic part. */
export type LaneName = keyof Lanes;

/** What there is to know of a lane; see score.LaneSpec. */
export type LaneSpec = Omit<AnyLaneSpec, "name"> & { name: LaneName };

/** What there is to select from. */
export type Lists = Omit<AnyLists, "lanes"> & { lanes: LaneSpec[] };

/** The whole project at a revision, and its time. */
export type Snapshot = Required<Omit<ProjectState, "from" | "changes">>;

/** Names a part, as edits do. */
export type PartAddress = Pick<SetPart, "track" | "pattern" | "part">;

/** What an edit of a lane changes. */
export type LaneChange = Omit<SetLane, keyof PartAddress | "lane">;

/** What an edit of a part changes. */
export type PartChange = Omit<SetPart, keyof PartAddress>;
