/** The dialogs, by what they are about. */
export type DialogName = "project" | "help" | "key" | "history" | "luck" | "record";
