import type { Lanes, SetLane, SetPart } from "./generated";

export type * from "./generated";

/** The lanes of a melodic part. */
export type LaneName = keyof Lanes;

/** Names a part, as edits do. */
export type PartAddress = Pick<SetPart, "track" | "pattern" | "part">;

/** What an edit of a lane changes. */
export type LaneChange = Omit<SetLane, keyof PartAddress | "lane">;
