import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "vitest";

const lanes =
  "gate|pitch|octave|alteration|chord|velocity|length|ratchet|probability|nudge|swing|slide|mod\\d?";

/** A comparison with the name of a lane (some controls are called alike), or a list of them. */
const compares = new RegExp(
  `[!=]==? ["'](${lanes})["']|["'](${lanes})["'] [!=]==?|case ["'](${lanes})["']:|["'](${lanes})["'](, ["'](${lanes})["'])*\\]\\.includes|startsWith\\(["']mod`,
);

test("no component compares the names of lanes: what they are stands in the table of the server", () => {
  const folders = [import.meta.dirname, join(import.meta.dirname, "../chart")];
  const files = folders.flatMap((folder) =>
    readdirSync(folder, { recursive: true, encoding: "utf8" }).map((file) => join(folder, file)),
  );
  const sources = files.filter((file) => /(\.svelte|(?<!\.test)\.ts)$/.test(file));
  expect(sources.length).toBeGreaterThan(90);
  for (const file of sources) {
    const line = readFileSync(file, "utf8")
      .split("\n")
      .find((line) => compares.test(line.replace(/control.name === "\w+"/, "")));
    expect(line, file).toBeUndefined();
  }
});

test("the pattern finds such comparisons", () => {
  for (const line of [
    'if (name === "pitch") return;',
    '{#if "gate" !== lane}',
    'case "mod1":',
    '["velocity", "length"].includes(name)',
    'name.startsWith("mod")',
  ])
    expect(line).toMatch(compares);
  expect('label="length"').not.toMatch(compares);
});
