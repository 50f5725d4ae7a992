import type { Lanes, SetPart } from "./generated";

export type * from "./generated";

/** The lanes of a melodic part. */
export type LaneName = keyof Lanes;

/** Names a part, as edits do. */
export type PartAddress = Pick<SetPart, "track" | "pattern" | "part">;
