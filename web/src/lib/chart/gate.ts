import type { LaneName } from "../api/types";

/** The lane on whose steps the others can sit. */
export const gateLane: LaneName = "gate";

/** The values of a gate step. */
export const Gate = { off: 0, on: 1, tie: 2 } as const;
