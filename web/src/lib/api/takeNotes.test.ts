import { afterEach, expect, it, vi } from "vitest";
import { getTakeNotes } from "./takeNotes";

afterEach(() => vi.unstubAllGlobals());

/** Every note sounds for 10 ticks; the server answers with 3 at most. */
const starts = [0, 5, 20, 22, 24, 26, 28, 95];

it("fetches every note once, however many there are at a time", async () => {
  const asked: string[] = [];
  vi.stubGlobal("fetch", (path: string) => {
    asked.push(path);
    const query = new URL(path, "http://here").searchParams;
    const [from, to] = [Number(query.get("from")), Number(query.get("to"))];
    const notes = starts
      .map((start, place) => ({ place, start }))
      .filter(({ start }) => start < to && start + 10 > from);
    const answer = { notes: notes.slice(0, 3), crowded: notes.length > 3 };
    return Promise.resolve(new Response(JSON.stringify(answer)));
  });
  const notes = await getTakeNotes("api/takes/7", 0, 24);
  expect(notes.map(({ place }) => place).sort()).toEqual([0, 1, 2, 3]);
  expect(asked.length).toBeGreaterThan(1);
  const late = await getTakeNotes("api/takes/7", 40, 100);
  expect(late.map(({ place }) => place)).toEqual([7]);
});
