import type { Lanes, Project, ProjectState, SetLane, SetPart } from "./generated";

export type * from "./generated";

/** The lanes of a melodic part. */
export type LaneName = keyof Lanes;

/** The whole project at a revision. */
export type Snapshot = ProjectState & { project: Project };

/** Names a part, as edits do. */
export type PartAddress = Pick<SetPart, "track" | "pattern" | "part">;

/** What an edit of a lane changes. */
export type LaneChange = Omit<SetLane, keyof PartAddress | "lane">;
