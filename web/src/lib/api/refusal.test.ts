import { expect, test } from "vitest";
import { AwayError, RefusedError } from "./http";
import { inWords, whyNot } from "./refusal";

test.each([
  ["meterChanges[1].bar is 3; it must be 4 to 10", "meter change 2, bar is 3; it must be 4 to 10"],
  ["outputs[0].voltages.channels[11].highest is 1", "output 1, voltages, channel 12, highest is 1"],
  [
    "tracks[3].patterns[0].parts[0].lanes.pitch.steps[5] is 99",
    "track 4, pattern 1, part 1, lanes, pitch, step 6 is 99",
  ],
  ["“Low tide.mid” is no Standard MIDI File", "“Low tide.mid” is no Standard MIDI File"],
  [
    'tracks[0].name is "Pads[1]"; it must be another',
    'track 1, name is "Pads[1]"; it must be another',
  ],
  ["swing is 900; it must be 500 to 750", "swing is 900; it must be 500 to 750"],
])("%s", (message, said) => expect(inWords(message)).toBe(said));

test("a refusal says once that nothing was changed", () => {
  expect(whyNot(new RefusedError("rates[0] is 7", 422))).toBe("Nothing was changed: rate 1 is 7.");
  expect(whyNot(new RefusedError("it is full, so nothing was changed", 507))).toBe(
    "It is full, so nothing was changed.",
  );
});

test("a server that is away and a fault of the page are told apart", () => {
  expect(whyNot(new AwayError(new TypeError("Failed to fetch")))).toContain("does not answer");
  expect(whyNot(new TypeError("x is undefined"))).toContain("This page failed at it: TypeError");
});
