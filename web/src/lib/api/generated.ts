// Made from the Go types by `make generate`. Do not edit.

export type HeldSteps = number[];
export type Calibration = Corrected[];

export interface Message {
  project?: ProjectState;
  transport?: Status;
  stage?: StageMessage;
  batch?: WireBatch;
  takes?: TakesMessage;
  problems?: ProblemsMessage;
  notice?: NoticeMessage;
  devices?: DevicesMessage;
  inputs?: InputsMessage;
  calibrations?: CalibrationsMessage;
  clock?: ClockAnswer;
  heard?: HeardInput;
}
export interface ProjectState {
  document: number;
  revision: number;
  undo: string;
  redo: string;
  project?: Project;
  from?: number;
  changes?: Difference[];
  bars?: BarSpan[];
  ticksPerMilli?: number;
}
export interface Project {
  name: string;
  tempo: number;
  /**
   * @maxItems 256
   */
  tempoChanges?: TempoChange[];
  meter: Meter;
  /**
   * @maxItems 256
   */
  meterChanges?: MeterChange[];
  key: Key;
  luck: Luck;
  swing: number;
  swingGrid: "1/8" | "1/16";
  filling: boolean;
  patternsCut?: boolean;
  sceneOn?: number;
  fillLevel?: number;
  /**
   * @maxItems 64
   */
  recipes?: Recipe[];
  /**
   * @maxItems 16
   */
  outputs?: Output[];
  /**
   * @maxItems 16
   */
  inputs?: Input[];
  clockIn?: ClockIn;
  /**
   * @minItems 1
   * @maxItems 32
   */
  tracks: Track[];
  /**
   * @maxItems 64
   */
  scenes?: Scene[];
  /**
   * @maxItems 128
   */
  song?: Section[];
  /**
   * @maxItems 16
   */
  chordMaps?: ChordMap[];
  /**
   * @maxItems 64
   */
  fieldLayers?: FieldLayer[];
  /**
   * @maxItems 16
   */
  macros?: Macro[];
  /**
   * @maxItems 16
   */
  modulators?: Modulator[];
  /**
   * @maxItems 256
   */
  switches?: Switch[];
  /**
   * @maxItems 256
   */
  mappings?: Mapping[];
}
export interface TempoChange {
  tick: number;
  tempo: number;
}
export interface Meter {
  beats: number;
  unit: 2 | 4 | 8 | 16;
  /**
   * @maxItems 16
   */
  groups?: number[];
}
export interface MeterChange {
  bar: number;
  meter: Meter;
}
export interface Key {
  root: number;
  scale: string;
  /**
   * @maxItems 1024
   */
  notes?: number[];
  /**
   * @maxItems 1024
   */
  allowed?: number[];
  tuning?: Tuning;
}
export interface Tuning {
  name: string;
  /**
   * @minItems 1
   * @maxItems 1024
   */
  pitches: string[];
  keyboard?: Keyboard;
}
export interface Keyboard {
  first: number;
  last: number;
  middle: number;
  reference: number;
  microHertz: number;
  octave: number;
  /**
   * @maxItems 128
   */
  keys?: number[];
}
export interface Luck {
  number: number;
  /**
   * @maxItems 1000
   */
  former: number[];
}
export interface Recipe {
  name: string;
  lane: string;
  lowest: number;
  highest: number;
  density: number;
  lean: number;
}
export interface Output {
  id: number;
  name: string;
  kind: "browserPort" | "serverDevice" | "voltages" | "osc";
  offset?: number;
  standIn?: boolean;
  velocityZero?: boolean;
  gap?: number;
  controllerRate?: number;
  activeSensing?: boolean;
  paced?: boolean;
  runningStatus?: boolean;
  clock?: ClockOut;
  tagLead?: number;
  voltages?: VoltageSetup;
}
export interface ClockOut {
  offset?: number;
  whileStopped?: boolean;
  starts?: boolean;
  follows?: boolean;
}
export interface VoltageSetup {
  fullScale: number;
  silence?: number;
  lowestFree?: boolean;
  /**
   * @maxItems 32
   */
  channels: VoltageChannel[];
}
export interface VoltageChannel {
  channel: number;
  signal: "pitch" | "gate" | "trigger" | "velocity" | "mod" | "clock" | "run" | "reset";
  track?: number;
  voice?: number;
  part?: number;
  mod?: number;
  lowest: number;
  highest: number;
  rest?: number;
  staysOnStop?: boolean;
  zero?: number;
  hertzPerVolt?: boolean;
  slide?: number;
  exponential?: boolean;
  lead?: number;
  slew?: number;
  height?: number;
  inverted?: boolean;
  byVelocity?: boolean;
  gap?: number;
  length?: number;
  bipolar?: boolean;
  smooth?: boolean;
  pulses?: number;
  swung?: boolean;
}
export interface Input {
  id: number;
  name: string;
  kind: "screen" | "browserPort" | "serverDevice" | "osc";
  channel?: number;
  playsIn?: boolean;
  switches?: boolean;
  /**
   * @maxItems 32
   */
  passesTo?: Passage[];
  transposes?: Transposing;
  holds?: "" | "pedal" | "latch";
}
export interface Passage {
  channel?: number;
  track: number;
}
export interface Transposing {
  /**
   * @minItems 1
   * @maxItems 32
   */
  tracks: number[];
  root: number;
  latches?: boolean;
  lowest?: boolean;
}
export interface ClockIn {
  input?: number;
  from?: "" | "clock" | "note" | "control";
  channel?: number;
  number?: number;
  perQuarter?: number;
  offset?: number;
  runsOn?: boolean;
}
export interface Track {
  id: number;
  name: string;
  kind: "melodic" | "kit" | "field";
  channel: number;
  program?: number;
  bank?: number;
  /**
   * @maxItems 8
   */
  routes?: Route[];
  muteCuts?: boolean;
  chaseWaits?: boolean;
  mute: boolean;
  solo: boolean;
  offAir: boolean;
  source: Source;
  voices: number;
  overlap: number;
  register: Register;
  pitches?: PitchSource;
  tuned?: Tuned;
  transpose: Transpose;
  speed: Ratio;
  swing: number;
  entersAsPlayed?: boolean;
  swingOwnSteps?: boolean;
  delay: number;
  jitter: number;
  /**
   * @maxItems 8
   */
  shifts?: string[];
  probability?: number;
  luck: number;
  hold: number;
  holdFrom?: number;
  realign: number;
  loop?: Loop;
  playing: number;
  /**
   * @minItems 1
   * @maxItems 16
   */
  patterns: Pattern[];
}
export interface Route {
  output: number;
  channel?: number;
  voices?: number;
  onlyPart?: boolean;
  part?: number;
  octave?: number;
  lowest: number;
  highest: number;
  softest: number;
  loudest: number;
  curve?: number;
  program?: number;
  bank?: number;
  lead?: number;
  patch?: "" | "bell" | "pluck" | "bass" | "pad" | "lead" | "organ";
}
export interface Source {
  kind: "own" | "starts" | "ends" | "rules" | "input notes" | "input control" | "modulator";
  track: number;
  channel?: number;
  lowest?: number;
  highest?: number;
  controller?: number;
  level?: number;
  modulator?: number;
  crossing?: number;
  odds: number;
  delay: number;
}
export interface Register {
  lowest: number;
  highest: number;
}
export interface PitchSource {
  kind: "key" | "held" | "track" | "map";
  track?: number;
  map?: number;
  byNote?: boolean;
  inTime?: boolean;
  channel?: number;
  lowest?: number;
  highest?: number;
  latched?: boolean;
  restart?: boolean;
  onlyHeld?: boolean;
  order?:
    "" | "up" | "down" | "up and down" | "up and down twice" | "as played" | "outward" | "inward" | "random" | "all";
  octaves?: number;
  /**
   * @maxItems 8
   */
  rules?: RoleRule[];
}
export interface RoleRule {
  role: "root" | "third" | "fifth" | "seventh" | "other";
  semitones: number;
  odds: number;
}
export interface Tuned {
  by: "instrument" | "bend" | "messages";
  channels?: number;
  range?: number;
}
export interface Transpose {
  degrees: number;
  semitones: number;
}
export interface Ratio {
  n: number;
  m: number;
}
export interface Loop {
  start: number;
  length: number;
  /**
   * @maxItems 1024
   */
  notes?: LoopNote[];
}
export interface LoopNote {
  start: number;
  length: number;
  key: number;
  velocity: number;
  detune?: number;
}
export interface Pattern {
  id: number;
  name: string;
  after?: Chain;
  /**
   * @minItems 1
   * @maxItems 16
   */
  parts: Part[];
}
export interface Chain {
  passes: number;
  to: "next" | "pattern" | "drawn" | "silence";
  pattern?: number;
  /**
   * @maxItems 16
   */
  weights?: PatternWeight[];
}
export interface PatternWeight {
  pattern: number;
  weight: number;
}
export interface Part {
  id: number;
  name: string;
  note: number;
  mute: boolean;
  fill: number;
  lengthUnit?: string;
  /**
   * @maxItems 32
   */
  durations?: Duration[];
  ratchet: RatchetShape;
  voicing: Voicing;
  /**
   * @maxItems 8
   */
  mods?: Mod[];
  slideTime: number;
  held?: HeldSteps;
  details?: {
    [k: string]: StepDetail;
  };
  field?: Field;
  lanes: Lanes;
}
export interface Duration {
  value: string;
  rest?: boolean;
  weight: number;
}
export interface RatchetShape {
  spacing: "even" | "gathering" | "slackening";
  ramp: number;
  odds: number;
}
export interface Voicing {
  inversion: number;
  open: boolean;
  strum: number;
}
export interface Mod {
  target: "control" | "control14" | "bend" | "pressure" | "program";
  number: number;
  least: number;
  most: number;
  glide: number;
}
/**
 * This interface was referenced by `undefined`'s JSON-Schema definition
 * via the `patternProperty` "^[0-9]+$".
 */
export interface StepDetail {
  skip?: boolean;
  stretch?: number;
  lengths?: string;
  condition?: string;
  ratchet?: StepRatchet;
}
export interface StepRatchet {
  spacing: "even" | "gathering" | "slackening";
  ramp: number;
  odds: number;
  /**
   * @maxItems 16
   */
  shares?: number[];
  /**
   * @maxItems 15
   */
  hitOdds?: number[];
  walk?: number;
  /**
   * @maxItems 16
   */
  counts?: number[];
}
export interface Field {
  columns: number;
  rows: number;
  /**
   * @maxItems 256
   */
  cells?: Cell[];
  /**
   * @maxItems 16
   */
  rowNotes?: number[];
  /**
   * @maxItems 16
   */
  columnNotes?: number[];
  /**
   * @maxItems 16
   */
  travellers?: Traveller[];
  /**
   * @maxItems 16
   */
  rules?: MeetingRule[];
  recalled?: RecalledLayers;
}
export interface Cell {
  column: number;
  row: number;
  note?: boolean;
  degree?: number;
  octave?: number;
  velocity?: number;
  length?: number;
  ratchet?: number;
  probability?: number;
  /**
   * @maxItems 8
   */
  mods?: CellMod[];
  /**
   * @maxItems 8
   */
  arrows?: Arrow[];
  letter?: string;
  jump?: "" | "nearest" | "random";
  repeater?: boolean;
  wall?: boolean;
  locked?: boolean;
}
export interface CellMod {
  mod: number;
  value: number;
}
export interface Arrow {
  to: number;
  weight: number;
}
export interface Traveller {
  id: number;
  motion: "straight" | "arrows" | "wave";
  column: number;
  row: number;
  direction?: number;
  rate: string;
  startsAfter?: number;
  velocity: number;
  length: number;
  octave?: number;
  oneVoice?: boolean;
  at?: "" | "back" | "right" | "end";
  meets?: "" | "back" | "right";
  atTurns?: boolean;
  every?: number;
  shape?: "" | "square" | "diamond";
}
export interface MeetingRule {
  a: number;
  b: number;
  when: "cell" | "row" | "column" | "diagonal" | "near" | "left" | "right" | "above" | "below";
  distance?: number;
  do: "sounds" | "silent" | "turns" | "start" | "letter" | "rate" | "clock";
  letter?: string;
  rate?: string;
  track?: number;
  odds: number;
}
export interface RecalledLayers {
  values?: number;
  arrows?: number;
  travellers?: number;
  rules?: number;
}
export interface Lanes {
  gate?: Lane;
  pitch?: Lane;
  octave?: Lane;
  alteration?: Lane;
  velocity?: Lane;
  length?: Lane;
  ratchet?: Lane;
  probability?: Lane;
  nudge?: Lane;
  swing?: Lane;
  chord?: Lane;
  slide?: Lane;
  mod1?: Lane;
  mod2?: Lane;
  mod3?: Lane;
  mod4?: Lane;
  mod5?: Lane;
  mod6?: Lane;
  mod7?: Lane;
  mod8?: Lane;
}
export interface Lane {
  linked: boolean;
  first: number;
  length: number;
  rate: string;
  order: string;
  drift: DriftOdds;
  /**
   * @maxItems 64
   */
  path?: number[];
  moves: string;
  amount: number;
  spread?: Spread;
  /**
   * @maxItems 32
   */
  weights?: Weight[];
  evolve?: Evolve;
  /**
   * @maxItems 64
   */
  locked?: number[];
  own?: {
    [k: string]: StepOwn;
  };
  /**
   * @minItems 64
   * @maxItems 64
   */
  steps: number[];
}
export interface DriftOdds {
  forward: number;
  back: number;
}
export interface Spread {
  chance: number;
  depth: number;
  lowest: number;
  highest: number;
  limits?: boolean;
  lean: number;
  grain: number;
  touches?: "" | "within" | "outside";
  from?: number;
  to?: number;
}
export interface Weight {
  lowest: number;
  highest: number;
  weight: number;
  rest?: boolean;
}
export interface Evolve {
  every: number;
  percent: number;
  lowest: number;
  highest: number;
}
/**
 * This interface was referenced by `undefined`'s JSON-Schema definition
 * via the `patternProperty` "^[0-9]+$".
 */
export interface StepOwn {
  spread?: Spread;
  /**
   * @maxItems 32
   */
  weights?: Weight[];
  /**
   * @maxItems 128
   */
  allowed?: number[];
  /**
   * @maxItems 8
   */
  notes?: StepNote[];
  each?: boolean;
}
export interface StepNote {
  degree?: number;
  octave?: number;
  alteration?: number;
  velocity?: number;
  nudge?: number;
  length?: number;
}
export interface Scene {
  id: number;
  name: string;
  /**
   * @maxItems 512
   */
  values: SceneValue[];
}
export interface SceneValue {
  control: ControlAddress;
  value: number;
}
export interface ControlAddress {
  name: string;
  track?: number;
  pattern?: number;
  part?: number;
  lane?: string;
  bar?: number;
  id?: number;
}
export interface Section {
  id: number;
  name: string;
  scene?: number;
  bars: number;
  repeats: number;
  takesOver?: boolean;
  luck?: number;
  tempo?: number;
  meter?: Meter;
  key?: Key;
}
export interface ChordMap {
  id: number;
  name: string;
  /**
   * @maxItems 24
   */
  chords: MapChord[];
  led?: boolean;
  strum?: number;
}
export interface MapChord {
  /**
   * @maxItems 8
   */
  keys: number[];
  inversion?: number;
  open?: boolean;
  beats?: number;
}
export interface FieldLayer {
  id: number;
  name: string;
  kind: "values" | "arrows" | "travellers" | "rules";
  /**
   * @maxItems 256
   */
  cells?: Cell[];
  /**
   * @maxItems 16
   */
  rowNotes?: number[];
  /**
   * @maxItems 16
   */
  columnNotes?: number[];
  /**
   * @maxItems 16
   */
  travellers?: Traveller[];
  /**
   * @maxItems 16
   */
  rules?: MeetingRule[];
}
export interface Macro {
  id: number;
  name: string;
  position: number;
  rest?: number;
  /**
   * @maxItems 32
   */
  moves: MacroMove[];
}
export interface MacroMove {
  control: ControlAddress;
  by?: number;
  absolute?: boolean;
  from?: number;
  to?: number;
  curve?: "" | "slow start" | "fast start" | "s";
}
export interface Modulator {
  id: number;
  name: string;
  shape:
    | "sine"
    | "triangle"
    | "ramp"
    | "pulse"
    | "random"
    | "drawn"
    | "copy"
    | "notes"
    | "velocity"
    | "pitch"
    | "mod"
    | "control";
  amount: number;
  value?: string;
  times?: number;
  hertz?: number;
  phase?: number;
  symmetry?: number;
  skew?: number;
  fadeIn?: number;
  once?: boolean;
  restart?: number;
  restartSections?: boolean;
  /**
   * @maxItems 64
   */
  points?: number[];
  between?: "" | "line" | "smooth";
  copies?: number;
  stretch?: Ratio;
  track?: number;
  mod?: number;
  attack?: number;
  release?: number;
  channel?: number;
  controller?: number;
  /**
   * @maxItems 32
   */
  moves: ModulatorMove[];
  /**
   * @maxItems 8
   */
  sends?: ModulatorSend[];
}
export interface ModulatorMove {
  control: ControlAddress;
  depth: number;
}
export interface ModulatorSend {
  track: number;
  target: "control" | "control14" | "bend" | "pressure" | "program";
  number: number;
  least: number;
  most: number;
  glide: number;
}
export interface Switch {
  message: "note" | "control" | "program" | "key";
  key?: string;
  inverted?: boolean;
  press?: "" | "long" | "double";
  way?: "" | "momentary" | "latching";
  do?: "" | "play" | "record" | "keep" | "tap" | "one" | "back" | "panic" | "next" | "previous" | "luck";
  channel: number;
  number: number;
  control: ControlAddress;
  value: number;
  when: "now" | "step" | "beat" | "bar" | "pattern";
}
export interface Mapping {
  message: "control" | "control14" | "bend" | "pressure" | "note";
  channel: number;
  number: number;
  control: ControlAddress;
  from: number;
  to: number;
  curve?: "" | "slow start" | "fast start" | "s";
  turns?: "" | "jump" | "signed" | "offset" | "twos";
  sendsTo?: number;
}
export interface Difference {
  op: "replace" | "add" | "remove";
  path: unknown[];
  value?: unknown;
}
export interface BarSpan {
  bar: number;
  tick: number;
  length: number;
  beat: number;
  groups: number[];
  meter: Meter;
}
export interface Status {
  playing: boolean;
  recording: boolean;
  armed: boolean;
  tick: number;
  at: number;
  ticksPerMilli: number;
  clock?: ClockStatus;
  jump?: NextJump;
  opening?: boolean;
  interrupted?: boolean;
  stopped: number;
  loop: Range;
}
export interface ClockStatus {
  input: number;
  state: string;
  tempo: number;
}
export interface NextJump {
  at: number;
  to: number;
}
export interface Range {
  from: number;
  to: number;
  goesOn: boolean;
}
export interface StageMessage {
  number: number;
  changes: LiveChange[];
  given: Change[];
  moved: Change[];
  queue: QueuedAction[];
  back: number;
  song: SongStatus;
  faders: FaderWait[];
}
export interface LiveChange {
  control: Control;
  value: number;
  written: number;
  words: string;
}
export interface Control {
  name: string;
  track?: number;
  pattern?: number;
  part?: number;
  lane?: string;
  bar?: number;
  id?: number;
}
export interface Change {
  control: Control;
  value: number;
}
export interface QueuedAction {
  id: number;
  doing: Doing;
  at: number;
  words: string;
}
export interface Doing {
  control: Control;
  value?: number;
}
export interface SongStatus {
  plays: boolean;
  sections: PlannedSection[];
  end: number;
  chains: Next[];
  bars: BarSpan[];
}
export interface PlannedSection {
  section: number;
  bar: number;
  bars: number;
  from: number;
}
export interface Next {
  at: number;
  track: number;
  pattern: number;
  silent: boolean;
}
export interface FaderWait {
  control: Control;
  value: number;
}
export interface WireBatch {
  sounds?: WireSound[];
  messages?: WireMessage[];
  places?: WirePlace[];
  clicks?: WireClick[];
  voltages?: WireVoltages[];
  withdrawn?: WireSound[];
  unsent?: WireMessage[];
  release?: boolean;
  panic?: boolean;
}
export interface WireSound {
  at: number;
  tick: number;
  track: number;
  channel: number;
  key: number;
  velocity: number;
  detune?: number;
}
export interface WireMessage {
  at: number;
  output: number;
  track: number;
  data: number[];
}
export interface WirePlace {
  at: number;
  tick: number;
  track: number;
  part: number;
  lane: string;
  step: number;
}
export interface WireClick {
  at: number;
  first: boolean;
}
export interface WireVoltages {
  output: number;
  playing: boolean;
  lines: WireLine[];
}
export interface WireLine {
  channel: number;
  rest?: number;
  beyond?: string;
  uncorrected?: boolean;
  segments: WireSegment[];
}
export interface WireSegment {
  at: number;
  takes: number;
  start: number;
  end: number;
  bend?: number;
}
export interface TakesMessage {
  takes: Summary[];
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
  version: number;
  position: number;
  undo: string;
  redo: string;
  deleted: boolean;
}
export interface ProblemsMessage {
  problems: string[];
}
export interface NoticeMessage {
  text: string;
}
export interface DevicesMessage {
  devices: Device[];
  problem?: string;
  outputs: OutputState[];
  held?: boolean;
  oscIn?: string;
}
export interface Device {
  name: string;
  place: string;
  standIn?: boolean;
}
export interface OutputState {
  output: number;
  device: string;
  ready: boolean;
  words: string;
  dropped: number;
}
export interface InputsMessage {
  devices: Device[];
  inputs: InputState[];
  clock: ClockSettings;
}
export interface InputState {
  input: number;
  device: string;
  ready: boolean;
  words: string;
}
export interface ClockSettings {
  on: boolean;
  runs: boolean;
  tempo: number;
  drift: number;
  jitter: number;
}
export interface CalibrationsMessage {
  calibrations: Calibrated[];
}
export interface Calibrated {
  interface: string;
  channel: number;
  readings: VoltageReading[];
  calibration: Calibration;
}
export interface VoltageReading {
  asked: number;
  read?: number;
  hertz?: number;
}
export interface Corrected {
  wanted: number;
  sent: number;
}
export interface ClockAnswer {
  sent: number;
  server: number;
}
export interface HeardInput {
  kind: "serverDevice" | "osc";
  id: number;
  at: number;
  message: number[];
}
export interface Question {
  sent: number;
  input?: PageInput;
}
export interface PageInput {
  kind: "screen" | "browserPort";
  id?: number;
  at: number;
  /**
   * @maxItems 3
   */
  message: number[];
  key?: string;
  down?: boolean;
}
export interface EditRequest {
  revision: number;
  edit: EditJSON;
  run?: string;
}
export interface EditJSON {
  setProject?: SetProject;
  changeLuck?: ChangeLuck;
  backLuck?: BackLuck;
  restoreLuck?: RestoreLuck;
  addTrack?: AddTrack;
  addLines?: AddLines;
  insertTrack?: InsertTrack;
  removeTrack?: RemoveTrack;
  moveTrack?: MoveTrack;
  setTrack?: SetTrack;
  setLoop?: SetLoop;
  copyPattern?: CopyPattern;
  insertPattern?: InsertPattern;
  removePattern?: RemovePattern;
  movePattern?: MovePattern;
  setPattern?: SetPattern;
  addPart?: AddPart;
  insertPart?: InsertPart;
  removePart?: RemovePart;
  movePart?: MovePart;
  setPart?: SetPart;
  restorePart?: RestorePart;
  setDetail?: SetDetail;
  setField?: SetField;
  keepLayer?: KeepLayer;
  insertLayer?: InsertLayer;
  removeLayer?: RemoveLayer;
  recallLayer?: RecallLayer;
  setOwn?: SetOwn;
  toggleNote?: ToggleNote;
  reshape?: Reshape;
  setLane?: SetLane;
  restoreLane?: RestoreLane;
  setSteps?: SetSteps;
  setScene?: SetScene;
  removeScene?: RemoveScene;
  setSection?: SetSection;
  removeSection?: RemoveSection;
  all?: All;
  replace?: Replace;
}
export interface SetProject {
  name?: string;
  tempo?: number;
  tempoChanges?: TempoChange[];
  meter?: Meter;
  meterChanges?: MeterChange[];
  key?: Key;
  swing?: number;
  swingGrid?: string;
  filling?: boolean;
  fillLevel?: number;
  patternsCut?: boolean;
  sceneOn?: number;
  recipes?: Recipe[];
  outputs?: Output[];
  inputs?: Input[];
  clockIn?: ClockIn;
  switches?: Switch[];
  macros?: Macro[];
  modulators?: Modulator[];
  chordMaps?: ChordMap[];
  mappings?: Mapping[];
}
export interface ChangeLuck {
  number: number;
}
export interface BackLuck {}
export interface RestoreLuck {
  luck: Luck;
}
export interface AddTrack {
  at: number;
  kind?: "melodic" | "kit" | "field";
  copy?: number;
}
export interface AddLines {
  track: number;
  /**
   * @minItems 1
   * @maxItems 8
   */
  lines: RandomLine[];
}
export interface RandomLine {
  rate: string;
  odds: number;
  octave?: number;
}
export interface InsertTrack {
  at: number;
  track: Track;
}
export interface RemoveTrack {
  track: number;
}
export interface MoveTrack {
  track: number;
  to: number;
}
export interface SetTrack {
  track: number;
  name?: string;
  channel?: number;
  program?: number;
  bank?: number;
  routes?: Route[];
  muteCuts?: boolean;
  chaseWaits?: boolean;
  mute?: boolean;
  solo?: boolean;
  offAir?: boolean;
  voices?: number;
  overlap?: number;
  source?: Source;
  register?: Register;
  pitches?: PitchSource;
  tuned?: Tuned;
  transpose?: Transpose;
  speed?: Ratio;
  swing?: number;
  swingOwnSteps?: boolean;
  entersAsPlayed?: boolean;
  delay?: number;
  jitter?: number;
  shifts?: string[];
  probability?: number;
  luck?: number;
  hold?: number;
  holdFrom?: number;
  realign?: number;
  playing?: number;
}
export interface SetLoop {
  track: number;
  loop?: Loop;
}
export interface CopyPattern {
  track: number;
  pattern: number;
  name: string;
  plays?: boolean;
}
export interface InsertPattern {
  track: number;
  at: number;
  pattern: Pattern;
  plays?: boolean;
}
export interface RemovePattern {
  track: number;
  pattern: number;
}
export interface MovePattern {
  track: number;
  pattern: number;
  to: number;
}
export interface SetPattern {
  track: number;
  pattern: number;
  name?: string;
  after?: Chain;
  ends?: boolean;
}
export interface AddPart {
  track: number;
  pattern: number;
  part: number;
  note: number;
  copy?: boolean;
}
export interface InsertPart {
  track: number;
  pattern: number;
  at: number;
  value: Part;
}
export interface RemovePart {
  track: number;
  pattern: number;
  part: number;
}
export interface MovePart {
  track: number;
  pattern: number;
  part: number;
  to: number;
}
export interface SetPart {
  track: number;
  pattern: number;
  part: number;
  name?: string;
  note?: number;
  mute?: boolean;
  fill?: number;
  ratchet?: RatchetShape;
  voicing?: Voicing;
  held?: HeldSteps;
  mods?: Mod[];
  slideTime?: number;
  lengthUnit?: string;
  durations?: Duration[];
}
export interface RestorePart {
  track: number;
  pattern: number;
  part: number;
  value: Part;
}
export interface SetDetail {
  track: number;
  pattern: number;
  part: number;
  step: number;
  detail: StepDetail;
}
export interface SetField {
  track: number;
  pattern: number;
  part: number;
  columns?: number;
  rows?: number;
  cells?: Cell[];
  rowNotes?: number[];
  columnNotes?: number[];
  travellers?: Traveller[];
  rules?: MeetingRule[];
  recalled?: RecalledLayers;
}
export interface KeepLayer {
  track: number;
  pattern: number;
  part: number;
  kind: "values" | "arrows" | "travellers" | "rules";
  name: string;
}
export interface InsertLayer {
  at: number;
  layer: FieldLayer;
}
export interface RemoveLayer {
  layer: number;
}
export interface RecallLayer {
  track: number;
  pattern: number;
  part: number;
  kind: "values" | "arrows" | "travellers" | "rules";
  layer: number;
}
export interface SetOwn {
  track: number;
  pattern: number;
  part: number;
  lane: string;
  step: number;
  own: StepOwn;
}
export interface ToggleNote {
  track: number;
  pattern: number;
  part: number;
  step: number;
  degree: number;
}
export interface Reshape {
  track: number;
  pattern: number;
  part: number;
  lane: string;
  do: "rotate" | "reverse" | "invert" | "double" | "halve" | "clear" | "least" | "most" | "euclid";
  by?: number;
  /**
   * @maxItems 64
   */
  steps?: number[];
}
export interface SetLane {
  track: number;
  pattern: number;
  part: number;
  lane: string;
  linked?: boolean;
  first?: number;
  length?: number;
  rate?: string;
  order?: string;
  drift?: DriftOdds;
  path?: number[];
  shape?: string;
  moves?: string;
  amount?: number;
  spread?: Spread;
  weights?: Weight[];
  evolve?: Evolve;
  locked?: number[];
}
export interface RestoreLane {
  track: number;
  pattern: number;
  part: number;
  lane: string;
  value?: Lane;
}
export interface SetSteps {
  track: number;
  pattern: number;
  part: number;
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
export interface SetScene {
  at?: number;
  scene: Scene;
}
export interface RemoveScene {
  scene: number;
}
export interface SetSection {
  at?: number;
  section: Section;
}
export interface RemoveSection {
  section: number;
}
export interface All {
  name: string;
  /**
   * @minItems 1
   * @maxItems 8192
   */
  edits: EditJSON[];
}
export interface Replace {
  project: Project;
}
export interface RevisionRequest {
  revision: number;
}
export interface TransportRequest {
  do:
    | "play"
    | "goOn"
    | "jump"
    | "loop"
    | "song"
    | "section"
    | "stop"
    | "record"
    | "endRecording"
    | "panic"
    | "one"
    | "move";
  from?: number;
  jump?: JumpRequest;
  loop?: LoopRange;
  song?: boolean;
  section?: SectionRequest;
  record?: RecordOptions;
  at?: number;
  beats?: number;
  millis?: number;
}
export interface JumpRequest {
  to: number;
  when: "now" | "step" | "beat" | "bar" | "bars" | "pattern";
  bars?: number;
  goesOn?: boolean;
}
export interface LoopRange {
  from: number;
  bars: number;
  goesOn?: boolean;
}
export interface SectionRequest {
  places: number;
  when: "now" | "step" | "beat" | "bar" | "bars" | "pattern";
  bars?: number;
}
export interface RecordOptions {
  countIn: number;
  from: number;
  start?: number;
  bars: number;
  again: boolean;
}
export interface Chart {
  revision: number;
  track: number;
  from: number;
  to: number;
  pattern: number;
  parts: ChartPart[];
  period: Period;
  repeats: Period;
  projectRepeats: Period;
  degrees: Degree[];
}
export interface ChartPart {
  lanes: ChartLane[];
  forecasts: Forecast[];
  details: {
    [k: string]: ChartDetail;
  };
  field?: ChartField;
}
export interface ChartLane {
  lane: string;
  moves: Move[];
  loop: Period;
  meetsGate: Period;
  inForce?: number[];
  reaches: Reach[];
}
export interface Move {
  tick: number;
  step: number;
}
export interface Period {
  ticks: number;
  never?: string;
}
export interface Reach {
  step: number;
  lowest: number;
  highest: number;
  own: boolean;
  words?: string;
}
export interface Forecast {
  tick: number;
  step: number;
  probability: number;
  sounds: boolean;
  hits: Hit[];
}
export interface Hit {
  odds: number;
  sounds: boolean;
  velocity: number;
  notes: HitNote[];
}
export interface HitNote {
  start: number;
  end: number;
  key: number;
  detune?: number;
  velocity: number;
}
/**
 * This interface was referenced by `undefined`'s JSON-Schema definition
 * via the `patternProperty` "^[0-9]+$".
 */
export interface ChartDetail {
  condition: string;
  mark: string;
  words: string;
}
export interface ChartField {
  moments: FieldMoment[];
  repeats: Period;
  names: {
    [k: string]: string;
  };
}
export interface FieldMoment {
  tick: number;
  travellers: FieldPlace[];
  waves: FieldWave[];
  unstarted?: number;
  sounds: FieldSound[];
}
export interface FieldPlace {
  id: number;
  column: number;
  row: number;
  direction: number;
  next: number;
}
export interface FieldWave {
  traveller: number;
  column: number;
  row: number;
  ring: number;
  next: number;
}
export interface FieldSound {
  traveller: number;
  column: number;
  row: number;
}
export interface Degree {
  degree: number;
  name: string;
  root: boolean;
  key: number;
  detune: number;
}
export interface Lists {
  lanes: LaneSpec[];
  rates: Rate[];
  orders: OrderSpec[];
  shapes: Shape[];
  sources: Option[];
  spacings: Option[];
  modTargets: ModTargetSpec[];
  tunedBys: Option[];
  wholeRoute: Route;
  patches: Option[];
  voltageChannels: VoltageChannel[];
  terms: TermSpec[];
  maxTerms: number;
  wholeStep: number;
  notes: NoteNames[];
  percussion: PercussionKey[];
  roots: string[];
  scales: Scale[];
  ticksPerQuarter: number;
  pitchKinds: Option[];
  chordOrders: Option[];
  chordRoles: string[];
  chordQualities: Quality[];
  fields: FieldLists;
  chordMaps: ChordMap[];
  waveShapes: WaveShapeSpec[];
  controls: Listing[];
  presetKinds: KindSpec[];
}
export interface LaneSpec {
  name: string;
  label: string;
  help: string;
  least: number;
  most: number;
  default: number;
  reads: "number" | "signed" | "percent" | "degree" | "duration" | "words";
  words?: string[];
  marks: "gates" | "heads" | "stems" | "lengths" | "fog";
  leads: boolean;
  scaled: boolean;
  pitched: boolean;
  rests: boolean;
  notes: boolean;
  mod: number;
  always: boolean;
  movers: Option[];
  rollMost: number;
  rollDensity: number;
}
export interface Option {
  value: string;
  label: string;
  help?: string;
}
export interface Rate {
  name: string;
  ticks: number;
}
export interface OrderSpec {
  name: string;
  label: string;
  help: string;
  picture: number[];
}
export interface Shape {
  name: string;
}
export interface ModTargetSpec {
  name: string;
  label: string;
  help: string;
  most: number;
  numbered: boolean;
  mostNumber: number;
}
export interface TermSpec {
  label: string;
  form: string;
  of?: "" | "track" | "section" | "scene";
  usual: number[];
  numbers: TermNumber[];
}
export interface TermNumber {
  label: string;
  min: number;
  max: number;
}
export interface NoteNames {
  name: string;
  spellings: string[];
}
export interface PercussionKey {
  note: number;
  name: string;
}
export interface Scale {
  name: string;
  semitones: number[];
}
export interface Quality {
  name: string;
  semitones: number[];
}
export interface FieldLists {
  motions: Option[];
  edges: Option[];
  meetings: Option[];
  shapes: Option[];
  jumps: Option[];
  whens: Option[];
  dos: Option[];
  changes: Option[];
  rolls: Option[];
  layers: Option[];
}
export interface WaveShapeSpec {
  name: string;
  label: string;
  help: string;
  free?: boolean;
  leveled?: boolean;
  byTrack?: boolean;
  byMod?: boolean;
}
export interface Listing {
  address: string;
  name: string;
  of: string;
  words: string;
  unit?: string;
  min: number;
  max: number;
  values?: string[];
  momentary?: boolean;
  once?: boolean;
  ofSong?: boolean;
  movable?: boolean;
  modulated?: boolean;
}
export interface KindSpec {
  value: string;
  label: string;
  help: string;
  use: string;
}
export interface Outline {
  track: number;
  notes: OutlineNote[];
  silent: boolean;
}
export interface OutlineNote {
  start: number;
  end: number;
  key: number;
}
export interface ListedProject {
  id: number;
  name: string;
  changed: number;
  revision: number;
  deleted?: boolean;
  open: boolean;
  picture: OutlineNote[];
  ends: number;
}
export interface OpenRequest {
  revision: number;
  atOnce?: boolean;
}
export interface NewProjectRequest {
  revision: number;
  atOnce?: boolean;
  from: "blank" | "example";
}
export interface NameRequest {
  name: string;
}
export interface Draws {
  shares: Share[];
  drawn: number[];
}
export interface Share {
  added: number;
  share: number;
}
export interface Entry {
  position: number;
  label: string;
  done: boolean;
}
export interface RollRequest {
  revision: number;
  track: number;
  pattern: number;
  part: number;
  lane: string;
  scope: "lane" | "part" | "track" | "all";
  luck: number;
  lowest: number;
  highest: number;
  density: number;
  lean: number;
  /**
   * @maxItems 64
   */
  steps?: number[];
}
export interface FieldRequest {
  revision: number;
  track: number;
  pattern: number;
  part: number;
  do: Change;
}
export interface FieldRollRequest {
  revision: number;
  track: number;
  pattern: number;
  part: number;
  do: "notes" | "loops" | "tree" | "noise";
  luck: number;
  density: number;
  lowest: number;
  highest: number;
  loops: number;
  length: number;
}
export interface GoToRequest {
  revision: number;
  position: number;
}
export interface TuningRequest {
  revision: number;
  scl: string;
  kbm?: string;
}
export interface DoRequest {
  /**
   * @minItems 1
   * @maxItems 64
   */
  do: Doing[];
  when: "now" | "step" | "beat" | "bar" | "bars" | "pattern";
  bars?: number;
}
export interface TurnRequest {
  address: string;
  value?: number;
  when?: "" | "now" | "step" | "beat" | "bar" | "pattern";
  turns?: boolean;
}
export interface ControlAt {
  address: string;
  value: number;
  words: string;
}
export interface ModulatorCurve {
  modulator: number;
  levels: number[];
}
export interface FoundChords {
  chords: NamedChord[];
  remarks: string[];
}
export interface NamedChord {
  name: string;
  keys: number[];
  notes: string[];
  beats?: number;
}
export interface SceneRequest {
  scene: number;
  when: "now" | "step" | "beat" | "bar" | "bars" | "pattern";
  bars?: number;
}
export interface ScenePicture {
  scene: number;
  notes: OutlineNote[];
  length: number;
}
export interface SetList {
  name: string;
  /**
   * @maxItems 256
   */
  projects: number[];
}
export interface SetListRequest {
  name: string;
  places: number;
  revision: number;
}
export interface RampRequest {
  tempo: number;
  bars: number;
}
export interface PerformedAction {
  entry: number;
  tick: number;
  control: Control;
  value?: number;
  words: string;
}
export interface AgainRequest {
  luck?: number;
  /**
   * @maxItems 10000
   */
  mends?: Mend[];
}
export interface Mend {
  entry: number;
  tick?: number;
  value?: number;
}
export interface ProjectDigest {
  revision: number;
  digest: string;
}
export interface Clash {
  output: number;
  channel: number;
  what: string;
  tracks: number[];
}
export interface BindRequest {
  output: string;
  device: string;
}
export interface TestRequest {
  output: number;
  channel: number;
}
export interface BindInputRequest {
  input: string;
  device: string;
}
export interface ClockAct {
  do: "set" | "start" | "stop" | "continue" | "position" | "dropOut";
  settings?: ClockSettings;
  position?: number;
  millis?: number;
}
export interface CalibrateRequest {
  output: number;
  channel: number;
  interface: string;
  /**
   * @maxItems 24
   */
  readings: VoltageReading[];
}
export interface VoltageTestRequest {
  output: number;
  channel: number;
  millivolts?: number;
}
export interface LoadRequest {
  name: string;
  revision: number;
}
export interface ListedPreset {
  kind: string;
  name: string;
  words: string;
  own: boolean;
}
export interface PresetRequest {
  revision?: number;
  kind: string;
  name: string;
  words?: string;
  at: LaneAddress;
  roll?: Recipe;
}
export interface LaneAddress {
  track: number;
  pattern: number;
  part: number;
  lane: string;
}
export interface HeardPreset {
  track: number;
  kit: boolean;
  notes: HitNote[];
  end: number;
}
export interface WakeView {
  stretch: number;
  before: number;
  after: number;
  from: number;
  to: number;
  bar: number;
  bars: BarSpan[];
  notes: OutlineNote[];
}
export interface Imported {
  id: number;
  notes: number;
  remarks: string[];
}
export interface KeepRequest {
  bars?: number;
  stretch?: number;
  from?: number;
  to?: number;
}
export interface EntryRequest {
  revision: number;
  track: number;
  pattern: number;
  part: number;
  step: number;
  do: "notes" | "chord" | "rest" | "tie" | "name" | "degrees";
  /**
   * @maxItems 64
   */
  steps?: number[];
  /**
   * @maxItems 16
   */
  notes?: Struck[];
  fit?: string;
}
export interface Struck {
  key: number;
  velocity: number;
  late?: number;
  length?: number;
}
export interface PlayedRequest {
  track: number;
  part: number;
  /**
   * @minItems 1
   * @maxItems 16
   */
  notes: PlayedNote[];
  strength: number;
  fit?: string;
  replace: boolean;
  after: number;
}
export interface PlayedNote {
  key: number;
  velocity: number;
  at: number;
  held: number;
}
export interface PlayedAnswer {
  project: ProjectState;
  step: number;
  began: number;
}
export interface HeardKeyRequest {
  revision: number;
  /**
   * @minItems 1
   * @maxItems 128
   */
  notes: number[];
  do: "root" | "scale";
}
export interface RenderRequest {
  from: number;
  bars: number;
}
export interface RenderProgress {
  done: number;
  take?: Imported;
}
export interface LoopRequest {
  revision: number;
  track: number;
  bars?: number;
  notes?: number;
}
export interface PatternRequest {
  revision: number;
  track: number;
  kind?: string;
  notes: Choice;
  rate?: string;
}
export interface Choice {
  /**
   * @maxItems 100000
   */
  notes?: number[];
  /**
   * @maxItems 64
   */
  tracks?: number[];
  from?: number;
  to?: number;
}
export interface PatternAnswer {
  project: ProjectState;
  track: number;
  name: string;
  remarks: string[];
}
export interface Roll {
  summary: Summary;
  bars: BarSpan[];
  key: Key;
  end: number;
  paces: Pace[];
  tracks: RollTrack[];
  notes: RollNote[];
  crowded: boolean;
  controls: RollControl[];
  lowest: number;
  highest: number;
  markers: Marker[];
}
export interface Pace {
  tick: number;
  millis: number;
  ticksPerMilli: number;
}
export interface RollTrack {
  id: number;
  name: string;
  mute?: boolean;
  kit?: boolean;
  parts?: KitPart[];
  notes: number;
}
export interface KitPart {
  key: number;
  name: string;
}
export interface RollNote {
  place: number;
  track: number;
  start: number;
  end: number;
  key: number;
  velocity: number;
  channel: number;
  detune?: number;
}
export interface RollControl {
  track: number;
  channel: number;
  kind: string;
  number: number;
  most: number;
  points: RollPoint[];
}
export interface RollPoint {
  tick: number;
  value: number;
}
export interface Marker {
  tick: number;
  text: string;
}
export interface Scope {
  points: ScopePoint[];
  crowded: boolean;
}
export interface ScopePoint {
  tick: number;
  volts: number;
}
export interface TakeEditRequest {
  version: number;
  edit: TakeEditJSON;
  run?: string;
}
export interface TakeEditJSON {
  rename?: Rename;
  setTrack?: TakeSetTrack;
  trim?: Trim;
  cutOut?: CutOut;
  addNotes?: AddNotes;
  deleteNotes?: DeleteNotes;
  moveNotes?: MoveNotes;
  shapeNotes?: ShapeNotes;
  setNotes?: SetNotes;
  quantise?: Quantise;
  fit?: Fit;
  thin?: Thin;
  several?: Several;
}
export interface Rename {
  name: string;
}
export interface TakeSetTrack {
  track: number;
  mute: boolean;
}
export interface Trim {
  from: number;
  to: number;
  aligned?: boolean;
}
export interface CutOut {
  from: number;
  to: number;
}
export interface AddNotes {
  /**
   * @minItems 1
   * @maxItems 100000
   */
  notes: AddedNote[];
}
export interface AddedNote {
  track: number;
  start: number;
  length: number;
  key: number;
  velocity: number;
}
export interface DeleteNotes {
  /**
   * @maxItems 100000
   */
  notes?: number[];
  /**
   * @maxItems 64
   */
  tracks?: number[];
  from?: number;
  to?: number;
}
export interface MoveNotes {
  /**
   * @maxItems 100000
   */
  notes?: number[];
  /**
   * @maxItems 64
   */
  tracks?: number[];
  from?: number;
  to?: number;
  ticks: number;
  semitones: number;
}
export interface ShapeNotes {
  /**
   * @maxItems 100000
   */
  notes?: number[];
  /**
   * @maxItems 64
   */
  tracks?: number[];
  from?: number;
  to?: number;
  velocity?: number;
  length?: number;
  percent?: number;
}
export interface SetNotes {
  /**
   * @minItems 1
   * @maxItems 100000
   */
  notes: number[];
  /**
   * @maxItems 100000
   */
  velocities?: number[];
  /**
   * @maxItems 100000
   */
  lengths?: number[];
}
export interface Quantise {
  /**
   * @maxItems 100000
   */
  notes?: number[];
  /**
   * @maxItems 64
   */
  tracks?: number[];
  from?: number;
  to?: number;
  grid: string;
  strength: number;
  swing: number;
}
export interface Fit {
  /**
   * @maxItems 100000
   */
  notes?: number[];
  /**
   * @maxItems 64
   */
  tracks?: number[];
  from?: number;
  to?: number;
  key: Key;
  direction: "nearest" | "up" | "down";
}
export interface Thin {
  /**
   * @maxItems 64
   */
  tracks?: number[];
  grid: string;
}
export interface Several {
  /**
   * @minItems 1
   * @maxItems 256
   */
  edits: TakeEditJSON[];
}
export interface Statistics {
  notes: number;
  velocity: number;
  deviation: number;
  length: number;
  bars: BarStatistics[];
  keys: Tally[];
  intervals: Tally[];
}
export interface BarStatistics {
  bar: number;
  notes: number;
  velocity: number;
}
export interface Tally {
  value: number;
  count: number;
}
export interface TakeComparison {
  same: number;
  changed: number[];
  gone: number[];
  added: RollNote[];
}
export interface Refusal {
  error: string;
}

/** The least and the most of numbers, by the types and the fields that hold them. */
export const bounds = {
  AddPart: {"note":{"min":0,"max":127}},
  AddedNote: {"key":{"min":0,"max":127},"velocity":{"min":1,"max":127}},
  AgainRequest: {"luck":{"min":0,"max":999999}},
  Arrow: {"to":{"min":0,"max":7},"weight":{"min":0,"max":100}},
  CalibrateRequest: {"output":{"min":1,"max":255},"channel":{"min":1,"max":32}},
  Cell: {"column":{"min":0,"max":15},"row":{"min":0,"max":15},"degree":{"min":-28,"max":28},"octave":{"min":-4,"max":4},"velocity":{"min":0,"max":127},"length":{"min":0,"max":163},"ratchet":{"min":0,"max":16},"probability":{"min":0,"max":100}},
  CellMod: {"mod":{"min":1,"max":8},"value":{"min":0,"max":127}},
  Chain: {"passes":{"min":1,"max":64},"pattern":{"min":0,"max":255}},
  ChangeLuck: {"number":{"min":0,"max":999999}},
  ChordMap: {"id":{"min":1,"max":255},"strum":{"min":-100,"max":100}},
  ClockAct: {"position":{"min":0,"max":16383},"millis":{"min":0,"max":10000}},
  ClockIn: {"input":{"min":0,"max":255},"channel":{"min":0,"max":16},"number":{"min":0,"max":127},"perQuarter":{"min":0,"max":48},"offset":{"min":-100,"max":250}},
  ClockOut: {"offset":{"min":-100,"max":250}},
  ClockSettings: {"tempo":{"min":10000,"max":400000},"drift":{"min":-60000,"max":60000},"jitter":{"min":0,"max":20}},
  Control: {"bar":{"min":0,"max":1000000},"id":{"min":0,"max":255}},
  ControlAddress: {"bar":{"min":0,"max":1000000},"id":{"min":0,"max":255}},
  DoRequest: {"bars":{"min":0,"max":64}},
  DriftOdds: {"forward":{"min":0,"max":100},"back":{"min":0,"max":100}},
  Duration: {"weight":{"min":0,"max":1000}},
  EntryRequest: {"step":{"min":0,"max":63}},
  Evolve: {"every":{"min":1,"max":64},"percent":{"min":0,"max":100},"lowest":{"min":-200,"max":200},"highest":{"min":-200,"max":200}},
  Field: {"columns":{"min":1,"max":16},"rows":{"min":1,"max":16}},
  FieldLayer: {"id":{"min":1,"max":255}},
  FieldRollRequest: {"luck":{"min":0,"max":999999},"density":{"min":0,"max":100},"lowest":{"min":-28,"max":28},"highest":{"min":-28,"max":28},"loops":{"min":1,"max":8},"length":{"min":2,"max":64}},
  Input: {"id":{"min":1,"max":255},"channel":{"min":0,"max":16}},
  InsertLayer: {"at":{"min":0,"max":64}},
  JumpRequest: {"to":{"min":1,"max":10000},"bars":{"min":0,"max":64}},
  KeepRequest: {"bars":{"min":1,"max":4096}},
  Key: {"root":{"min":0,"max":1023}},
  Keyboard: {"first":{"min":0,"max":127},"last":{"min":0,"max":127},"middle":{"min":0,"max":127},"reference":{"min":0,"max":127},"microHertz":{"min":1000000,"max":20000000000},"octave":{"min":0,"max":1024}},
  Lane: {"first":{"min":0,"max":63},"length":{"min":1,"max":64},"amount":{"min":0,"max":200}},
  Loop: {"length":{"min":1260,"max":20643840}},
  LoopNote: {"key":{"min":0,"max":127},"velocity":{"min":1,"max":127}},
  LoopRange: {"from":{"min":1,"max":10000},"bars":{"min":1,"max":4096}},
  LoopRequest: {"bars":{"min":0,"max":256},"notes":{"min":0,"max":1024}},
  Luck: {"number":{"min":0,"max":999999}},
  Macro: {"id":{"min":1,"max":255},"position":{"min":0,"max":1000},"rest":{"min":0,"max":1000}},
  MacroMove: {"by":{"min":-1000000000,"max":1000000000},"from":{"min":-1000000000,"max":1000000000},"to":{"min":-1000000000,"max":1000000000}},
  MapChord: {"inversion":{"min":0,"max":4},"beats":{"min":0,"max":64}},
  Mapping: {"channel":{"min":0,"max":16},"number":{"min":0,"max":127},"from":{"min":-1000000000,"max":1000000000},"to":{"min":-1000000000,"max":1000000000},"sendsTo":{"min":0,"max":255}},
  MeetingRule: {"a":{"min":0,"max":255},"b":{"min":0,"max":255},"distance":{"min":0,"max":16},"track":{"min":0,"max":2147483647},"odds":{"min":0,"max":100}},
  Mend: {"entry":{"min":0,"max":1000000}},
  Meter: {"beats":{"min":1,"max":16}},
  MeterChange: {"bar":{"min":1,"max":1000000}},
  Mod: {"number":{"min":0,"max":119},"least":{"min":0,"max":16383},"most":{"min":0,"max":16383},"glide":{"min":0,"max":80640}},
  Modulator: {"id":{"min":1,"max":255},"amount":{"min":0,"max":100},"times":{"min":0,"max":256},"hertz":{"min":0,"max":20000},"phase":{"min":0,"max":999},"symmetry":{"min":-49,"max":49},"skew":{"min":-100,"max":100},"fadeIn":{"min":0,"max":64},"restart":{"min":0,"max":4096},"copies":{"min":0,"max":255},"track":{"min":0,"max":255},"mod":{"min":0,"max":8},"attack":{"min":0,"max":10000},"release":{"min":0,"max":10000},"channel":{"min":0,"max":16},"controller":{"min":0,"max":119}},
  ModulatorMove: {"depth":{"min":-1000,"max":1000}},
  ModulatorSend: {"track":{"min":1,"max":255},"number":{"min":0,"max":119},"least":{"min":0,"max":16383},"most":{"min":0,"max":16383},"glide":{"min":0,"max":80640}},
  MoveNotes: {"semitones":{"min":-127,"max":127}},
  Output: {"id":{"min":1,"max":255},"offset":{"min":-100,"max":250},"gap":{"min":0,"max":10},"controllerRate":{"min":0,"max":1000},"tagLead":{"min":0,"max":250}},
  PageInput: {"id":{"min":0,"max":255}},
  Part: {"id":{"min":0,"max":255},"note":{"min":0,"max":127},"fill":{"min":0,"max":100},"slideTime":{"min":0,"max":127}},
  Passage: {"channel":{"min":0,"max":16},"track":{"min":1,"max":255}},
  Pattern: {"id":{"min":0,"max":255}},
  PatternWeight: {"pattern":{"min":0,"max":255},"weight":{"min":0,"max":1000}},
  PitchSource: {"track":{"min":0,"max":2147483647},"map":{"min":0,"max":255},"channel":{"min":0,"max":16},"lowest":{"min":0,"max":127},"highest":{"min":0,"max":127},"octaves":{"min":0,"max":4}},
  PlayedNote: {"key":{"min":0,"max":127},"velocity":{"min":1,"max":127}},
  PlayedRequest: {"strength":{"min":0,"max":100}},
  Project: {"tempo":{"min":10000,"max":400000},"swing":{"min":500,"max":750},"sceneOn":{"min":0,"max":1000000},"fillLevel":{"min":0,"max":100}},
  Quantise: {"strength":{"min":0,"max":100},"swing":{"min":500,"max":750}},
  RampRequest: {"tempo":{"min":10000,"max":400000},"bars":{"min":1,"max":64}},
  RandomLine: {"odds":{"min":0,"max":100},"octave":{"min":-4,"max":4}},
  RatchetShape: {"ramp":{"min":-100,"max":100},"odds":{"min":0,"max":100}},
  Ratio: {"n":{"min":1,"max":16},"m":{"min":1,"max":16}},
  RecallLayer: {"layer":{"min":1,"max":255}},
  RecalledLayers: {"values":{"min":0,"max":255},"arrows":{"min":0,"max":255},"travellers":{"min":0,"max":255},"rules":{"min":0,"max":255}},
  Recipe: {"lowest":{"min":-200,"max":200},"highest":{"min":-200,"max":200},"density":{"min":0,"max":100},"lean":{"min":-100,"max":100}},
  RecordOptions: {"countIn":{"min":0,"max":8},"from":{"min":0,"max":100000},"start":{"min":0,"max":10000},"bars":{"min":0,"max":4096}},
  Register: {"lowest":{"min":0,"max":116},"highest":{"min":11,"max":127}},
  RemoveLayer: {"layer":{"min":1,"max":255}},
  RenderRequest: {"from":{"min":1,"max":1000000},"bars":{"min":1,"max":10000}},
  Reshape: {"by":{"min":-64,"max":64}},
  RoleRule: {"semitones":{"min":-24,"max":24},"odds":{"min":0,"max":100}},
  RollRequest: {"luck":{"min":0,"max":999999},"lowest":{"min":-200,"max":200},"highest":{"min":-200,"max":200},"density":{"min":0,"max":100},"lean":{"min":-100,"max":100}},
  Route: {"output":{"min":0,"max":255},"channel":{"min":0,"max":16},"voices":{"min":0,"max":16},"part":{"min":0,"max":255},"octave":{"min":-4,"max":4},"lowest":{"min":0,"max":127},"highest":{"min":0,"max":127},"softest":{"min":1,"max":127},"loudest":{"min":1,"max":127},"curve":{"min":-100,"max":100},"program":{"min":0,"max":128},"bank":{"min":0,"max":16384},"lead":{"min":0,"max":2000}},
  Scene: {"id":{"min":0,"max":1000000}},
  SceneRequest: {"scene":{"min":1,"max":1000000},"bars":{"min":0,"max":64}},
  SceneValue: {"value":{"min":-1000000000,"max":1000000000}},
  Section: {"id":{"min":0,"max":1000000},"scene":{"min":0,"max":1000000},"bars":{"min":1,"max":4096},"repeats":{"min":0,"max":64},"luck":{"min":0,"max":999999},"tempo":{"min":10000,"max":400000}},
  SectionRequest: {"places":{"min":-127,"max":127},"bars":{"min":0,"max":64}},
  SetDetail: {"step":{"min":0,"max":63}},
  SetListRequest: {"places":{"min":-255,"max":255}},
  SetOwn: {"step":{"min":0,"max":63}},
  SetScene: {"at":{"min":0,"max":63}},
  SetSection: {"at":{"min":0,"max":127}},
  ShapeNotes: {"velocity":{"min":-126,"max":126},"percent":{"min":0,"max":1000}},
  Source: {"channel":{"min":0,"max":16},"lowest":{"min":0,"max":127},"highest":{"min":0,"max":127},"controller":{"min":0,"max":119},"level":{"min":0,"max":127},"modulator":{"min":0,"max":255},"crossing":{"min":-100,"max":100},"odds":{"min":0,"max":100},"delay":{"min":0,"max":80640}},
  Spread: {"chance":{"min":0,"max":100},"depth":{"min":0,"max":100},"lowest":{"min":-200,"max":200},"highest":{"min":-200,"max":200},"lean":{"min":-100,"max":100},"grain":{"min":1,"max":64},"from":{"min":-200,"max":200},"to":{"min":-200,"max":200}},
  StepDetail: {"stretch":{"min":0,"max":16}},
  StepNote: {"degree":{"min":-56,"max":56},"octave":{"min":-10,"max":10},"alteration":{"min":-12,"max":12},"velocity":{"min":-126,"max":126},"nudge":{"min":-80640,"max":80640},"length":{"min":0,"max":20643840}},
  StepRatchet: {"ramp":{"min":-100,"max":100},"odds":{"min":0,"max":100},"walk":{"min":-14,"max":14}},
  StepValue: {"step":{"min":0,"max":63}},
  Struck: {"key":{"min":0,"max":127},"velocity":{"min":1,"max":127},"late":{"min":-80640,"max":80640},"length":{"min":0,"max":20643840}},
  Switch: {"channel":{"min":0,"max":16},"number":{"min":0,"max":127},"value":{"min":-1000000000,"max":1000000000}},
  TempoChange: {"tempo":{"min":10000,"max":400000}},
  TestRequest: {"output":{"min":1,"max":255},"channel":{"min":1,"max":16}},
  ToggleNote: {"step":{"min":0,"max":63},"degree":{"min":-28,"max":28}},
  Track: {"id":{"min":1,"max":2147483647},"channel":{"min":1,"max":16},"program":{"min":0,"max":128},"bank":{"min":0,"max":16384},"voices":{"min":0,"max":16},"overlap":{"min":0,"max":20160},"swing":{"min":0,"max":750},"delay":{"min":-20160,"max":20160},"jitter":{"min":0,"max":100},"probability":{"min":-100,"max":100},"luck":{"min":-1,"max":999999},"hold":{"min":0,"max":64},"holdFrom":{"min":0,"max":1000000},"realign":{"min":0,"max":64},"playing":{"min":0,"max":255}},
  TransportRequest: {"from":{"min":0,"max":10000},"beats":{"min":0,"max":4},"millis":{"min":-100,"max":100}},
  Transpose: {"degrees":{"min":-28,"max":28},"semitones":{"min":-48,"max":48}},
  Transposing: {"root":{"min":0,"max":127}},
  Traveller: {"id":{"min":1,"max":255},"column":{"min":0,"max":15},"row":{"min":0,"max":15},"direction":{"min":0,"max":7},"startsAfter":{"min":0,"max":256},"velocity":{"min":0,"max":200},"length":{"min":1,"max":800},"octave":{"min":-4,"max":4},"every":{"min":0,"max":256}},
  Tuned: {"channels":{"min":0,"max":16},"range":{"min":0,"max":96}},
  Voicing: {"inversion":{"min":0,"max":4},"strum":{"min":-100,"max":100}},
  VoltageChannel: {"channel":{"min":1,"max":32},"voice":{"min":0,"max":16},"part":{"min":0,"max":255},"mod":{"min":0,"max":15},"lowest":{"min":-20000,"max":20000},"highest":{"min":-20000,"max":20000},"rest":{"min":-20000,"max":20000},"zero":{"min":0,"max":127},"slide":{"min":0,"max":20000},"lead":{"min":0,"max":100},"slew":{"min":0,"max":500},"height":{"min":0,"max":20000},"gap":{"min":0,"max":50},"length":{"min":0,"max":500},"pulses":{"min":0,"max":48}},
  VoltageReading: {"asked":{"min":-200000,"max":200000},"read":{"min":-250000,"max":250000},"hertz":{"min":0,"max":20000000}},
  VoltageSetup: {"fullScale":{"min":1000,"max":20000},"silence":{"min":0,"max":100}},
  VoltageTestRequest: {"output":{"min":1,"max":255},"channel":{"min":1,"max":32},"millivolts":{"min":-20000,"max":20000}},
  Weight: {"lowest":{"min":-200,"max":200},"highest":{"min":-200,"max":200},"weight":{"min":0,"max":1000}},
} as const;
