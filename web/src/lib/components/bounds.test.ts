import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "vitest";

/** A greatest value that stands in the page; what a page alone has, as the range of the pointer's random values, may. */
const own = /max=\{-?[\d_.]+\}/;
const allowed = "chart/ToolBar.svelte";

test("no field states how far the values of the project go: bounds are those of the Go types", () => {
  const files = readdirSync(import.meta.dirname, { recursive: true, encoding: "utf8" });
  const components = files.filter((file) => file.endsWith(".svelte"));
  expect(components.length).toBeGreaterThan(60);
  const found = components.filter((file) =>
    own.test(readFileSync(join(import.meta.dirname, file), "utf8")),
  );
  expect(found).toEqual([allowed]);
});
