// Prints, for the page, the bounds of the numbers of the wire's types, from their JSON Schema on the standard input.
import { readFileSync } from "node:fs";

const { $defs: types } = JSON.parse(readFileSync(0, "utf8"));
const bounds = {};
for (const [type, { properties = {} }] of Object.entries(types)) {
  for (const [field, { minimum, maximum }] of Object.entries(properties)) {
    if (minimum === undefined || maximum === undefined) continue;
    bounds[type] ??= {};
    bounds[type][field] = { min: minimum, max: maximum };
  }
}
const lines = Object.entries(bounds).map(([type, of]) => `  ${type}: ${JSON.stringify(of)},`);
process.stdout.write(
  `\n/** The least and the most of numbers, by the types and the fields that hold them. */\nexport const bounds = {\n${lines.join("\n")}\n} as const;\n`,
);
