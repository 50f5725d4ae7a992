import { afterEach, expect, test, vi } from "vitest";
import { AwayError, get, post, postForLines, RefusedError } from "./http";

const answering = (answer: () => Response | Promise<Response>) =>
  vi.stubGlobal("fetch", () => Promise.resolve().then(answer));

/** An answer whose body breaks off. */
function broken(begins: string): Response {
  const stream = new ReadableStream<Uint8Array>({
    start: (controller) => controller.enqueue(new TextEncoder().encode(begins)),
    pull: (controller) => controller.error(new TypeError("network error")),
  });
  return new Response(stream);
}

afterEach(() => vi.unstubAllGlobals());

test("a server that cannot be reached, whose answer breaks off or is none of ours is away", async () => {
  answering(() => {
    throw new TypeError("Failed to fetch");
  });
  await expect(get("api/project")).rejects.toBeInstanceOf(AwayError);
  for (const answer of [
    broken('{"a":'),
    new Response("<html>"),
    new Response("", { status: 502 }),
  ]) {
    answering(() => answer);
    await expect(post("api/edits", {})).rejects.toBeInstanceOf(AwayError);
  }
});

test("a refusal has the server's sentence", async () => {
  answering(() => Response.json({ error: "no such track" }, { status: 422 }));
  const refused = await post("api/edits", {}).catch((error: unknown) => error);
  expect(refused).toBeInstanceOf(RefusedError);
  expect(refused).toMatchObject({ message: "no such track", status: 422 });
});

test("what is given up is not taken for a server that is away", async () => {
  const stop = new AbortController();
  answering(() => {
    stop.abort();
    throw stop.signal.reason as Error;
  });
  await expect(get("api/chart", stop.signal)).rejects.toMatchObject({ name: "AbortError" });
});

test("lines are told as they come, until one refuses or the answer breaks off", async () => {
  const told: unknown[] = [];
  const lines = (text: () => Response) => {
    answering(text);
    return postForLines("api/takes/render", {}, new AbortController().signal, (line) =>
      told.push(line),
    );
  };
  await lines(() => new Response('{"done":1}\n{"done":2}\n'));
  expect(told).toEqual([{ done: 1 }, { done: 2 }]);
  await expect(lines(() => new Response('{"done":3}\n{"error":"full"}\n'))).rejects.toThrow("full");
  await expect(lines(() => broken('{"done":4}\n{"do'))).rejects.toBeInstanceOf(AwayError);
  expect(told).toEqual([{ done: 1 }, { done: 2 }, { done: 3 }, { done: 4 }]);
});
