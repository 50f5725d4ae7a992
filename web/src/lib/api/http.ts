import type { Refusal } from "./generated";

/** A request that the server has refused; the message is a sentence for the user. */
export class RefusedError extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message);
  }
}

/** The server cannot be asked, or its answer has not come whole. */
export class AwayError extends Error {
  constructor(cause: unknown) {
    super("Jettyfog does not answer", { cause });
  }
}

/**
 * Asks for JSON. Throws a RefusedError if the server refuses, an AwayError if it is away, and what the signal was aborted
 * with if it was.
 */
export async function get<T>(path: string, signal?: AbortSignal): Promise<T> {
  return answer<T>(await orAway(fetch(path, { signal: signal ?? null }), signal), signal);
}

/** Sends JSON: an object, or text that is JSON already. */
export function post<T>(path: string, body: object | string): Promise<T> {
  return send<T>(path, "application/json", typeof body === "string" ? body : JSON.stringify(body));
}

/** Has something taken away. */
export async function remove<T>(path: string): Promise<T> {
  return answer<T>(await orAway(fetch(path, { method: "DELETE" })));
}

/** Sends JSON, and has a function told of each line of JSON of the answer as it comes. */
export async function postForLines<T>(
  path: string,
  body: object,
  signal: AbortSignal,
  tell: (line: T) => void,
): Promise<void> {
  const headers = { "Content-Type": "application/json" };
  const sent = { method: "POST", headers, body: JSON.stringify(body), signal };
  const response = await orAway(fetch(path, sent), signal);
  if (!response.ok || !response.body) return tell(await answer<T>(response, signal));
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  const next = () => orAway(reader.read(), signal);
  for (let read = await next(); !read.done; read = await next()) {
    const lines = (rest + read.value).split("\n");
    rest = lines.pop() ?? "";
    for (const line of lines) {
      const value = JSON.parse(line) as T & Partial<Refusal>;
      if (value.error) throw new RefusedError(value.error, response.status);
      tell(value);
    }
  }
}

/** Sends a file as it is. What changes the project is answered with what leads to it (RFC 7240). */
export async function send<T>(path: string, type: string, body: BodyInit): Promise<T> {
  const headers = { "Content-Type": type, Prefer: "return=minimal" };
  return answer<T>(await orAway(fetch(path, { method: "POST", headers, body })));
}

async function answer<T>(response: Response, signal?: AbortSignal): Promise<T> {
  const body: unknown = await orAway(response.json(), signal);
  if (response.ok) return body as T;
  throw new RefusedError((body as Refusal).error, response.status);
}

/** Waits for something of the server, and says that it is away where that fails. */
async function orAway<T>(wait: Promise<T>, signal?: AbortSignal): Promise<T> {
  try {
    return await wait;
  } catch (error) {
    throw signal?.aborted ? error : new AwayError(error);
  }
}
