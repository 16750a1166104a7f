// Made by bin/console mensura:types from the PHP classes; do not edit.

/** Gives someone a role in a project; "none" takes it away. */
export interface MemberRequest {
  username: string;
  role: string;
}

/** Someone who may open a project. */
export interface MemberView {
  username: string;
  name: string;
  role: string;
}

/** Who is signed in, and the token unsafe requests must carry. */
export interface SessionView {
  user: UserView | null;
  token: string;
}

/** An account as others see it. */
export interface UserView {
  username: string;
  name: string;
}

/** What to hand over. */
export interface ExportRequest {
  kind: string;
  surfaces?: number[];
}

/** One line of a receipt. */
export interface CheckView {
  what: string;
  expected: string;
  found: string;
  holds: boolean;
}

/** A file that was handed over, and its receipt. */
export interface ExportView {
  id: number;
  slot: string;
  kind: string;
  label: string;
  name: string;
  size: number;
  run: number;
  createdAt: string;
  author: string;
  holds: boolean;
  checks: CheckView[];
  leftOut: string[];
  stale: string[];
}

/** The hand-over stage. */
export interface HandOverView {
  exports: ExportView[];
  archive: ExportView[];
}

/**  */
export interface AcceptRequest {
  leaveOutBad?: boolean;
}

/** A column of a file and a few of its cells. */
export interface ColumnView {
  index: number;
  heading: string;
  samples: string[];
}

/** What a kind of file says, where it was found, and in which unit. Unit is null where it must be answered. */
export interface FieldView {
  key: string;
  label: string;
  quantity: string;
  required: boolean;
  column: number | null;
  unit: string | null;
  units: string[];
}

/** A file of the project. */
export interface FileView {
  id: number;
  name: string;
  size: number;
  sha256: string;
  kind: string;
  kindLabel: string;
  state: string;
  records: number;
  leftOut: number;
  author: string;
  receivedAt: string;
  acceptedAt: string | null;
}

/** Something odd about a file. Severity: error or warning. */
export interface FindingView {
  severity: string;
  line: number | null;
  message: string;
}

/** The intake stage. */
export interface IntakeView {
  files: FileView[];
}

/** A kind of file. */
export interface KindView {
  key: string;
  label: string;
}

/** A position for the sketch, metres. */
export interface PlacedPoint {
  name: string;
  e: number;
  n: number;
  known: boolean;
}

/** What a waiting file is read as. */
export interface PreviewView {
  id: number;
  name: string;
  size: number;
  sha256: string;
  kind: string;
  kinds: KindView[];
  columns: ColumnView[];
  fields: FieldView[];
  counts: Record<string, number>;
  leftOut: number;
  findings: FindingView[];
  findingCount: number;
  questions: string[];
  extent: number[] | null;
  points: PlacedPoint[];
  rays: number[][];
  unreadable: string | null;
  acceptable: boolean;
}

/** A line of a file as it was received. */
export interface SourceLine {
  line: number;
  text: string;
}

/** A job. State: queued, running, done, failed or cancelled. Progress 0 to 1. */
export interface JobView {
  id: string;
  kind: string;
  title: string;
  state: string;
  stage: string;
  progress: number;
  error: string | null;
  secondsLeft: number | null;
  outcome: Record<string, unknown> | null;
}

/** What going back would take back. */
export interface BackPreview {
  entries: EntryView[];
  changes: number;
}

/** Before and after of one row, the changed columns only. */
export interface ChangeView {
  what: string;
  before: Record<string, unknown> | null;
  after: Record<string, unknown> | null;
}

/** An entry with its detail and its first changes. */
export interface EntryDetail {
  entry: EntryView;
  detail: Record<string, unknown>;
  changes: ChangeView[];
}

/** One entry of the ledger. */
export interface EntryView {
  seq: number;
  operation: string;
  title: string;
  author: string;
  at: string;
  changes: number;
  undoneBy: number | null;
  undoes: number | null;
}

/** The newest entries first. */
export interface LedgerView {
  entries: EntryView[];
}

/** One step of what a result rests on; depth 0 is the result itself. */
export interface LineageView {
  depth: number;
  text: string;
  stale: boolean;
}

/** What is given about a control mark; metres. */
export interface ControlRequest {
  point: string;
  e: number | null;
  n: number | null;
  h: number | null;
  held?: string;
  sdE?: number | null;
  sdN?: number | null;
  sdH?: number | null;
}

/** A point's new name. */
export interface RenameRequest {
  from: string;
  to: string;
}

/** Limit of the standardized residual for screening. */
export interface ScreenRequest {
  limit?: number;
}

/** Which rows to set aside or bring back. */
export interface SetUseRequest {
  rows: ({ component: string | null; id: number })[];
  aside: boolean;
  reason?: string;
}

/** A-priori precision: arc seconds, metres, parts per million. */
export interface SettingsRequest {
  directionSd: number;
  zenithSd: number;
  distanceConstant: number;
  distancePpm: number;
  instrumentCentring: number;
  targetCentring: number;
  heightCentring: number;
  refraction: number;
  confidence: number;
  free?: boolean;
}

/** The newest run against the one before. */
export interface ComparisonView {
  previousRun: number;
  previousFactor: number | null;
  previousPassed: boolean | null;
  shifts: ShiftView[];
  largest: number;
}

/** Agreement of a group of observations with their weights. */
export interface GroupView {
  name: string;
  kind: string;
  setup: string;
  count: number;
  redundancy: number;
  factor: number | null;
  standing: string;
}

/** The network stage. */
export interface NetworkView {
  settings: SettingsView;
  rows: RowView[];
  stations: StationView[];
  kinds: GroupView[];
  setups: GroupView[];
  runs: RunView[];
  stale: string[];
  comparison: ComparisonView | null;
  accepted: boolean;
  largestEllipse: number | null;
  largestEllipseAt: string | null;
}

/** A point of the project; metres. Given values and sd belong to control. */
export interface PointView {
  id: number;
  name: string;
  role: string;
  source: string;
  code: string;
  e: number | null;
  n: number | null;
  h: number | null;
  givenE: number | null;
  givenN: number | null;
  givenH: number | null;
  held: string;
  sdE: number | null;
  sdN: number | null;
  sdH: number | null;
  file: string | null;
  line: number | null;
}

/** All points of a project. */
export interface PointsView {
  points: PointView[];
}

/** One scalar of an observation with its statistics. Angles in degrees, lengths in metres; groundMm is the residual on the ground. */
export interface RowView {
  id: number;
  component: string | null;
  kind: string;
  set: string;
  at: string;
  to: string;
  observed: number;
  residual: number | null;
  groundMm: number | null;
  sd: number | null;
  standardized: number | null;
  redundancy: number | null;
  detectable: number | null;
  external: number | null;
  flagged: boolean;
  used: boolean;
  reason: string;
  asideBy: string | null;
  asideAt: string | null;
  fileId: number | null;
  file: string | null;
  line: number | null;
}

/** One run of the adjustment. */
export interface RunView {
  id: number;
  run: number;
  createdAt: string;
  author: string;
  passed: boolean | null;
  converged: boolean;
  varianceFactor: number | null;
  lower: number | null;
  upper: number | null;
  redundancy: number;
  observations: number;
  stations: number;
  asideCount: number;
  free: boolean;
  confidence: number;
  headline: string;
  sentences: string[];
  warnings: string[];
}

/** What screening proposes to set aside. */
export interface ScreenedView {
  id: number;
  component: string | null;
  pass: number;
  standardized: number;
  text: string;
}

/** A-priori precision and options of the adjustment. Angular sd in arc seconds, lengths in metres. */
export interface SettingsView {
  directionSd: number;
  zenithSd: number;
  distanceConstant: number;
  distancePpm: number;
  instrumentCentring: number;
  targetCentring: number;
  heightCentring: number;
  refraction: number;
  confidence: number;
  free: boolean;
}

/** How a station moved between two runs, metres. */
export interface ShiftView {
  name: string;
  e: number;
  n: number;
  h: number;
}

/** An adjusted station; metres, ellipse at the run's confidence, bearing in degrees. */
export interface StationView {
  name: string;
  e: number;
  n: number;
  h: number;
  sdE: number;
  sdN: number;
  sdH: number;
  semiMajor: number;
  semiMinor: number;
  bearing: number;
  held: string;
  control: boolean;
  moveE: number | null;
  moveN: number | null;
  moveH: number | null;
}

/** A new project. */
export interface CreateRequest {
  name: string;
  reference: string;
  heights: string;
}

/** What coordinates and heights mean. */
export interface ReferenceRequest {
  reference: string;
  heights: string;
}

/** How quantities are shown. */
export interface UnitsRequest {
  length: string;
  angle: string;
  decimals: number;
}

/** Something found by name. */
export interface HitView {
  kind: string;
  label: string;
  detail: string;
  stage: string;
  key: string;
}

/** All that the frame shows of a project. */
export interface Overview {
  id: number;
  name: string;
  role: string;
  mayChange: boolean;
  reference: string;
  referenceName: string;
  heights: string;
  revision: number;
  units: UnitsView;
  stages: StageView[];
  stale: StaleView[];
  jobs: JobView[];
  undo: number | null;
  redo: number | null;
  ledgerCount: number;
}

/** A project in the list. */
export interface ProjectCard {
  id: number;
  name: string;
  role: string;
  reference: string;
  heights: string;
}

/** One station of the course. State: empty, ready, attention, stale or done. */
export interface StageView {
  key: string;
  label: string;
  state: string;
  caption: string;
}

/** A result whose inputs changed since it was computed. */
export interface StaleView {
  slot: string;
  label: string;
  reasons: string[];
}

/** A coordinate reference system. */
export interface SystemView {
  code: string;
  name: string;
}

/** How quantities are shown. Length: m, ft or ftUS; angle: dms, deg or gon. */
export interface UnitsView {
  length: string;
  angle: string;
  decimals: number;
}

/** A surface: which points, which lines, how contoured. */
export interface SurfaceRequest {
  name: string;
  roles: string[];
  codes?: string[];
  exclude?: string[];
  lines?: ({ name: string; points: string[]; role: string; vertices: number[][] })[];
  maxEdge?: number | null;
  interval?: number;
}

/** The elevation to compare with, metres. */
export interface VolumeRequest {
  elevation: number;
}

/** A line that shapes a surface: by point names in order, or by drawn vertices. */
export interface LineView {
  role: string;
  name: string;
  points: string[];
  vertices: number[][];
}

/** A surface and its newest result. */
export interface SurfaceView {
  id: number;
  name: string;
  roles: string[];
  codes: string[];
  exclude: string[];
  lines: LineView[];
  maxEdge: number | null;
  interval: number;
  computed: boolean;
  run: number;
  points: number;
  triangles: number;
  planArea: number;
  surfaceArea: number;
  hMin: number;
  hMax: number;
  contourCount: number;
  mesh: string | null;
  contours: string | null;
  stale: string[];
  warnings: string[];
  volume: VolumeView | null;
  createdAt: string | null;
  author: string | null;
}

/** The terrain stage. */
export interface TerrainView {
  surfaces: SurfaceView[];
  codes: Record<string, number>;
}

/** Volume against an elevation; cubic and square metres. */
export interface VolumeView {
  elevation: number;
  cut: number;
  fill: number;
  net: number;
  areaCut: number;
  areaFill: number;
  planArea: number;
  stale: string[];
  createdAt: string;
}
