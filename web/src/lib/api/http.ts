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

/** Asks for JSON. Throws a RefusedError if the server refuses, and another error if it is away. */
export async function get<T>(path: string, signal?: AbortSignal): Promise<T> {
  return answer<T>(await fetch(path, { signal: signal ?? null }));
}

/** Sends JSON: an object, or text that is JSON already. */
export function post<T>(path: string, body: object | string): Promise<T> {
  return send<T>(path, "application/json", typeof body === "string" ? body : JSON.stringify(body));
}

/** Has something taken away. */
export async function remove<T>(path: string): Promise<T> {
  return answer<T>(await fetch(path, { method: "DELETE" }));
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
  const response = await fetch(path, sent);
  if (!response.ok || !response.body) return tell(await answer<T>(response));
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  for (let read = await reader.read(); !read.done; read = await reader.read()) {
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
  return answer<T>(await fetch(path, { method: "POST", headers, body }));
}

async function answer<T>(response: Response): Promise<T> {
  if (response.ok) return (await response.json()) as T;
  const refusal = (await response.json()) as Refusal;
  throw new RefusedError(refusal.error, response.status);
}
