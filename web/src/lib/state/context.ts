import { createContext } from "svelte";
import type { ChartView } from "./chartView.svelte";
import type { Clipboard } from "./clipboard.svelte";
import type { Outputs } from "./outputs.svelte";
import type { Playing } from "./playing.svelte";
import type { Session } from "./session.svelte";
import type { TakeDesk } from "./takeDesk.svelte";

/** The session, for every component below App. */
export const [getSession, setSession] = createContext<Session>();

/** What the chart shows, for every component below Write. */
export const [getChartView, setChartView] = createContext<ChartView>();

/** Steps that were copied. */
export const [getClipboard, setClipboard] = createContext<Clipboard>();

/** The take that is open, for every component below Takes. */
export const [getTakeDesk, setTakeDesk] = createContext<TakeDesk>();

/** The outputs of the project. */
export const [getOutputs, setOutputs] = createContext<Outputs>();

/** Hands on a keyboard. */
export const [getPlaying, setPlaying] = createContext<Playing>();
