// Made from the Go types by `make generate`. Do not edit.

export interface Message {
  project?: Snapshot;
  transport?: Status;
  batch?: WireBatch;
  takes?: TakesMessage;
  clock?: ClockAnswer;
}
export interface Snapshot {
  project: Project;
  revision: number;
  undo: string;
  redo: string;
}
export interface Project {
  name: string;
  tempo: number;
  meter: Meter;
  key: Key;
  luck: Luck;
  /**
   * @minItems 1
   * @maxItems 32
   */
  tracks: Track[];
}
export interface Meter {
  beats: number;
  unit: 2 | 4 | 8 | 16;
}
export interface Key {
  root: number;
  scale: string;
}
export interface Luck {
  number: number;
  /**
   * @maxItems 1000
   */
  former: number[];
}
export interface Track {
  id: number;
  name: string;
  channel: number;
  mute: boolean;
  register: Register;
  lanes: Lanes;
}
export interface Register {
  lowest: number;
  highest: number;
}
export interface Lanes {
  gate: Lane;
  pitch: Lane;
  velocity: Lane;
  length: Lane;
  probability: Lane;
}
export interface Lane {
  linked: boolean;
  length: number;
  rate: string;
  order: "forward" | "backward";
  /**
   * @minItems 64
   * @maxItems 64
   */
  steps: number[];
}
export interface Status {
  playing: boolean;
  recording: boolean;
  tick: number;
  at: number;
  tempo: number;
}
export interface WireBatch {
  sounds: WireSound[];
  places: WirePlace[];
}
export interface WireSound {
  at: number;
  tick: number;
  track: number;
  channel: number;
  key: number;
  velocity: number;
}
export interface WirePlace {
  at: number;
  tick: number;
  track: number;
  lane: string;
  step: number;
}
export interface TakesMessage {
  takes: Summary[];
  problem?: string;
}
export interface Summary {
  id: number;
  name: string;
  created: number;
  luck: number;
  revision: number;
  bars: number;
  seconds: number;
  notes: number;
}
export interface ClockAnswer {
  sent: number;
  server: number;
}
export interface Question {
  sent: number;
}
export interface EditRequest {
  revision: number;
  edit: EditJSON;
}
export interface EditJSON {
  setProject?: SetProject;
  changeLuck?: ChangeLuck;
  backLuck?: BackLuck;
  restoreLuck?: RestoreLuck;
  setTrack?: SetTrack;
  setLane?: SetLane;
  setSteps?: SetSteps;
  replace?: Replace;
}
export interface SetProject {
  name?: string;
  tempo?: number;
  meter?: Meter;
  key?: Key;
}
export interface ChangeLuck {
  number: number;
}
export interface BackLuck {}
export interface RestoreLuck {
  luck: Luck;
}
export interface SetTrack {
  track: number;
  name?: string;
  channel?: number;
  mute?: boolean;
  register?: Register;
}
export interface SetLane {
  track: number;
  lane: string;
  linked?: boolean;
  length?: number;
  rate?: string;
  order?: string;
}
export interface SetSteps {
  track: number;
  lane: string;
  /**
   * @minItems 1
   * @maxItems 64
   */
  steps: StepValue[];
}
export interface StepValue {
  step: number;
  value: number;
}
export interface Replace {
  project: Project;
}
export interface RevisionRequest {
  revision: number;
}
export interface TransportRequest {
  do: "play" | "stop" | "record" | "endRecording";
}
export interface Chart {
  revision: number;
  track: number;
  from: number;
  to: number;
  lanes: ChartLane[];
  forecasts: Forecast[];
  period: number;
  degrees: Degree[];
}
export interface ChartLane {
  lane: string;
  moves: Move[];
  loop: number;
  meetsGate: number;
}
export interface Move {
  tick: number;
  step: number;
}
export interface Forecast {
  tick: number;
  end: number;
  step: number;
  probability: number;
  sounds: boolean;
  key: number;
}
export interface Degree {
  degree: number;
  name: string;
  root: boolean;
}
export interface Lists {
  lanes: LaneSpec[];
  rates: Rate[];
  orders: string[];
  roots: string[];
  scales: string[];
  ticksPerQuarter: number;
}
export interface LaneSpec {
  name: string;
  least: number;
  most: number;
  default: number;
}
export interface Rate {
  name: string;
  ticks: number;
}
export interface Refusal {
  error: string;
}
