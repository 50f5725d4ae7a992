/** The dialogs, by what they are about. */
export type DialogName = "time" | "goTo" | "help" | "key" | "history" | "luck" | "record" | "stage";
