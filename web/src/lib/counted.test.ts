import { expect, it } from "vitest";
import { counted } from "./counted";

it("counts in words, one without an s", () => {
  const words = [0, 0.001, 1, 1.004, 0.25, 2, 1024].map((count) => counted(count, "bar"));
  expect(words.join("; ")).toBe("0 bars; 0 bars; 1 bar; 1 bar; 0.25 bars; 2 bars; 1,024 bars");
});
