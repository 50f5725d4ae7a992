/** The values of a gate step. */
export const Gate = { off: 0, on: 1, tie: 2 } as const;
