import type { Forecast } from "../api/types";
import type { Cell } from "./geometry";

/** What becomes of a gate step, ready to be drawn. A doubt is from 0, certain, to 1. */
export interface GateBars {
  hits: { x: number; width: number; height: number; sounds: boolean; doubt: number }[];
  /** Where the first hit begins, and how far the last one reaches from there. */
  from: number;
  width: number;
  doubt: number;
  sounds: boolean;
}

/** A gate that is being drawn, of which the core has not been asked yet. */
export function drawnBars(cell: Cell, height: number): GateBars {
  const width = Math.max(3, cell.width * 0.6);
  const hit = { x: cell.x + 1.5, width, height, sounds: true, doubt: 0 };
  return { hits: [hit], from: hit.x, width, doubt: 0, sounds: true };
}

/** A step as it turns out: each hit as a bar as wide as it sounds and as high as it is loud. */
export function forecastBars(
  forecast: Forecast,
  cell: Cell,
  { scale, barHeight, width }: { scale: number; barHeight: number; width: number },
): GateBars {
  const loudest = Math.max(...forecast.hits.map((hit) => hit.velocity));
  const x = (tick: number) => cell.x + (tick - forecast.tick) * scale;
  const hits = forecast.hits.map((hit) => {
    const start = x(Math.min(...hit.notes.map((note) => note.start)));
    const end = x(Math.max(...hit.notes.map((note) => note.end)));
    return {
      x: start + 0.5,
      width: Math.max(1.5, Math.min(end, width) - start - 1),
      height: barHeight * Math.max(0.2, hit.velocity / loudest),
      sounds: forecast.sounds && hit.sounds,
      doubt: 1 - (forecast.probability * hit.odds) / 10_000,
    };
  });
  const last = hits.at(-1);
  const from = hits[0]?.x ?? cell.x;
  return {
    hits,
    from,
    width: last ? last.x + last.width - from : 0,
    doubt: 1 - forecast.probability / 100,
    sounds: forecast.sounds,
  };
}
