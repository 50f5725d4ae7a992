import { AwayError, RefusedError } from "./http";

/** Why something that was asked for was not done, as a sentence. */
export function whyNot(error: unknown): string {
  if (error instanceof RefusedError) return refusal(error);
  if (error instanceof AwayError)
    return "Nothing was changed: Jettyfog does not answer. Is it still running?";
  return `This page failed at it: ${String(error)}. What is stored is kept; load the page again, and look whether the last change is there.`;
}

/** Why the server refused something, as a sentence that says once that nothing was changed. */
export function refusal({ message }: RefusedError): string {
  const why = inWords(message);
  const said = why.includes("nothing was changed") ? why : `nothing was changed: ${why}`;
  return `${said.charAt(0).toUpperCase()}${said.slice(1)}.`;
}

/** A place in a project, as its file has it, of which something is said; a name that looks like one stays. */
const place = /\b[a-z]+(?:\[\d+\])?(?:\.[a-z]+(?:\[\d+\])?)*(?= is )/gi;

/** Has places in lists be said as they are counted on the screen: tracks[0].parts[1] is track 1, part 2. */
export function inWords(message: string): string {
  return message.replace(place, (path) => (path.includes("[") ? words(path) : path));
}

function words(path: string): string {
  return path
    .replace(
      /([a-z])([A-Z])/g,
      (_, before: string, after: string) => `${before} ${after.toLowerCase()}`,
    )
    .replace(/s?\[(\d+)\]/g, (_, index: string) => ` ${Number(index) + 1}`)
    .replaceAll(".", ", ");
}
