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

/** Sends a file as it is. */
export async function send<T>(path: string, type: string, body: BodyInit): Promise<T> {
  return answer<T>(await fetch(path, { method: "POST", headers: { "Content-Type": type }, body }));
}

async function answer<T>(response: Response): Promise<T> {
  if (response.ok) return (await response.json()) as T;
  const refusal = (await response.json()) as Refusal;
  throw new RefusedError(refusal.error, response.status);
}
