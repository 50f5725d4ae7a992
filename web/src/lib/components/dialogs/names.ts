/** The dialogs, by what they are about. */
export type DialogName = "time" | "help" | "key" | "history" | "luck" | "record" | "stage";
