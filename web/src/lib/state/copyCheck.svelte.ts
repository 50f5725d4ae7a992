import canonicalize from "canonicalize";
import { get } from "../api/http";
import type { Project, ProjectDigest } from "../api/types";
import type { Session } from "./session.svelte";

/** For how long nobody must have edited before the copy is compared, in ms. */
const quiet = 2000;

/** Compares the page's copy of the project with the server's whenever nobody edits, and has it fetched anew if it differs. */
export function checkCopy(session: Session): void {
  $effect(() => {
    const { revision, project } = session.snapshot;
    if (revision === 0) return; // the server is away
    const wait = setTimeout(() => {
      // A server that does not answer is said by whatever else is asked of it.
      compare(session, revision, project).catch(() => {});
    }, quiet);
    return () => clearTimeout(wait);
  });
}

async function compare(session: Session, revision: number, project: Project): Promise<void> {
  const theirs = await get<ProjectDigest>("api/project/digest");
  if (theirs.revision !== revision || theirs.digest === (await digestOf(project))) return;
  await session.fetchWhole();
  session.notices.add("This page's copy of the project had gone wrong; it was fetched anew.");
}

/** Returns the SHA-256, in hexadecimal, of a project's canonical JSON (RFC 8785). */
async function digestOf(project: Project): Promise<string> {
  const bytes = new TextEncoder().encode(canonicalize(project));
  const sum = new Uint8Array(await crypto.subtle.digest("SHA-256", bytes));
  return [...sum].map((byte) => byte.toString(16).padStart(2, "0")).join("");
}
