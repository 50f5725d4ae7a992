import type { Chart, Forecast, LaneSpec } from "../api/types";
import { cellAt, type Cell, type ValueScale } from "./geometry";

/** What a value turns out to be that is written as something else. */
export interface EffectiveMark {
  x: number;
  is: number;
  /** Whether there is room for a number beside it. */
  wide: boolean;
  cell: Cell;
  /** The heights of what is written and of what will be. */
  from: number;
  to: number;
}

/** How wide a cell is in which a number fits beside a ring. */
const roomForNumber = 34;

/** Returns what a lane's values turn out to be by forecasts; undefined of a lane whose values are not forecast. */
function forecastOf(spec: LaneSpec): ((forecast: Forecast) => number | undefined) | undefined {
  if (spec.marks === "fog") return ({ probability }) => probability;
  if (!spec.scaled) return undefined;
  return ({ sounds, hits }) => (sounds ? hits.find((hit) => hit.sounds)?.velocity : undefined);
}

/**
 * Returns where values of a lane turn out to be others than those that are written, on a chart of some width. Of what sounds at one moment, as cells of a field
 * do, only the last is looked at: a strip shows where the lane has come to by then.
 */
export function effectiveMarks(
  spec: LaneSpec,
  chart: Chart,
  width: number,
  forecasts: readonly Forecast[],
  cells: Cell[],
  values: number[],
  scale: ValueScale,
): EffectiveMark[] {
  const effective = forecastOf(spec);
  if (!effective) return [];
  const perTick = width / (chart.to - chart.from);
  return forecasts.flatMap((forecast, i) => {
    if (forecasts[i + 1]?.tick === forecast.tick) return [];
    const x = (forecast.tick - chart.from) * perTick;
    const cell = cellAt(cells, x + 0.01);
    const is = effective(forecast);
    const written = cell && values[cell.step];
    if (!cell || is === undefined || written === undefined || Math.abs(is - written) < 1) return [];
    return [
      {
        x: x + Math.min(cell.width / 2, 8),
        is: Math.round(is),
        wide: cell.width >= roomForNumber,
        cell,
        from: scale.y(written),
        to: scale.y(is),
      },
    ];
  });
}
