/** The dialogs, by what they are about. */
export type DialogName =
  "project" | "time" | "help" | "key" | "history" | "luck" | "record" | "stage";
