import type { Lanes, WirePlace } from "./generated";

export type * from "./generated";

/** The lanes of a melodic part. */
export type LaneName = keyof Lanes;

/** A place whose lane is known to be one of ours. */
export type Place = WirePlace & { lane: LaneName };
