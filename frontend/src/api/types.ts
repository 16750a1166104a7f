// Made by bin/console mensura:types from the PHP classes; do not edit.

/** A new password, with the one it replaces. */
export interface PasswordRequest {
  current: string;
  new: string;
}

/** Who is signed in, and the token unsafe requests must carry. */
export interface SessionView {
  user: UserView | null;
  token: string;
}

/** One place the account is signed in; current is the one that asks. */
export interface SignedInView {
  id: number;
  address: string;
  agent: string;
  begunAt: string;
  usedAt: string;
  current: boolean;
}

/** An account as others see it. */
export interface UserView {
  username: string;
  name: string;
}

/** What loops and repeats may miss by; ten millimetres and one millionth of the length are common practice for static work. */
export interface AllowanceRequest {
  constant?: number;
  ppm?: number;
}

/** A base whose position or antenna height was wrong, and what was measured from it. Metres; degrees where the right position is given as latitude and longitude. */
export interface BaseRequest {
  files: number[];
  what: string;
  usedE: number;
  usedN: number;
  usedH: number;
  form?: string;
  frame?: string;
  first?: number | null;
  second?: number | null;
  third?: number | null;
  heights?: string;
  epoch?: number | null;
  antennaUsed?: number | null;
  antennaRight?: number | null;
  reason?: string;
}

/** An occupation to be solved epoch by epoch, and from which base. */
export interface EpochsRequest {
  base: number;
  rover: number;
}

/** Rover features to be corrected: from which references, and where those are. Metres in the project. */
export interface FeaturesRequest {
  file: number;
  references: number[];
  position?: string;
  mark?: string;
  e?: number | null;
  n?: number | null;
  h?: number | null;
}

/** What is made right about an occupation. Metres; seconds of GPS time since 1980-01-06. */
export interface OccupationRequest {
  marker: string;
  heightKind: string;
  heightValue: number;
  heightRadius?: number;
  heightAbove?: number;
  antenna?: string;
  trimFrom?: number | null;
  trimTo?: number | null;
  reason?: string;
  moves?: boolean | null;
}

/** Baselines to be processed, and what with. */
export interface ProcessRequest {
  pairs: number[][];
  mask?: number;
  orbits?: string;
  bands?: string;
  ionosphere?: string;
  leftOut?: string[];
  from?: number | null;
  to?: number | null;
}

/** A position report as it was received. */
export interface ReportRequest {
  text: string;
}

/** What is ordered of a reference station. Instants of UTC, as 2031-05-04T09:00:00Z, whole hours. */
export interface StationOrderRequest {
  station: string;
  from: string;
  to: string;
  interval?: number;
  format?: string;
}

/** How the points made of a rover's stops are called: the prefix with a number, and the code of all. */
export interface StopsRequest {
  prefix: string;
  code?: string;
}

/** Baselines to be accepted to the network. */
export interface VectorsRequest {
  baselines: string[];
}

/** A file of points that may have been measured from a base. */
export interface BaseFileView {
  id: number;
  name: string;
  records: number;
  bases: string[];
  corrected: string;
}

/** A point before and after its base gets its right position. Metres in the project. */
export interface BaseMoveView {
  name: string;
  code: string;
  e: number;
  n: number;
  h: number | null;
  newE: number;
  newN: number;
  newH: number | null;
}

/** A place a base can be given: easting, northing and height of the project, metres. */
export interface BasePlaceView {
  label: string;
  e: number;
  n: number;
  h: number;
}

/** What a base correction would move. */
export interface BasePreview {
  rows: BaseMoveView[];
  count: number;
  shift: number[];
  base: number[];
  words: string;
}

/** What a base correction can start from. */
export interface BaseView {
  files: BaseFileView[];
  sessions: BasePlaceView[];
  epoch: number;
  hasGeoid: boolean;
}

/** A baseline as it was processed once. Metres. */
export interface BaselineRunView {
  run: number;
  solution: string;
  ratio: number | null;
  rms: number;
  sdPlan: number;
  sdUp: number;
  vector: number[];
  less: number[] | null;
  length: number;
  epochs: number;
  from: number | null;
  to: number | null;
  satellites: number;
  slips: number;
  settings: string;
  baseFrom: string;
  warnings: string[];
  at: string;
  author: string;
  output: string;
}

/** Two occupations that recorded together, and how the baseline between them was solved. Seconds of GPS time since 1980-01-06. */
export interface BaselineView {
  key: string;
  base: number;
  rover: number;
  fromName: string;
  toName: string;
  session: string;
  from: number;
  to: number;
  independent: boolean;
  length: number | null;
  runs: BaselineRunView[];
  stale: string[];
  accepted: boolean;
  epochs: EpochsView | null;
  moves: boolean;
}

/** The Baselines stage of a project. */
export interface BaselinesView {
  occupations: OccupationView[];
  baselines: BaselineView[];
  closures: ClosureView[];
  constant: number;
  ppm: number;
  broadcast: boolean;
  precise: boolean;
  leap: number | null;
  recordings: RecordingView[];
}

/** A loop of baselines, or a baseline measured twice, and what it misses by. Metres. */
export interface ClosureView {
  key: string;
  kind: string;
  marks: string[];
  baselines: string[];
  sessions: string[];
  length: number;
  closure: number[];
  size: number;
  allowed: number;
  independent: boolean;
}

/** An occupation solved epoch by epoch: where it stood, and when it moved. Times are seconds after the first epoch; millimetres. */
export interface EpochsView {
  mark: string;
  first: number;
  epochs: number;
  fixed: number;
  stands: StandView[];
  moves: MoveView[];
  keep: number | null;
  output: string;
  stale: string[];
  warnings: string[];
}

/** A file of rover features, and how it was corrected. Seconds of GPS time since 1980-01-06. */
export interface FeatureFileView {
  id: number;
  name: string;
  title: string;
  times: number[];
  rinex: string;
  bands: number[];
  isCorrected: boolean;
  features: number;
  corrected: number;
  positions: number;
  covered: number;
  before: number[];
  after: number[];
  output: string;
  stale: string[];
}

/** What a correction of features would rest on: where the reference is taken to be against what its file says. */
export interface FeaturesPreview {
  less: number[] | null;
  place: number[] | null;
}

/** Rover features of a project. */
export interface FeaturesView {
  files: FeatureFileView[];
}

/** A receiver's way from one place to the next. Seconds after the first epoch; millimetres east, north, up. */
export interface MoveView {
  from: number;
  to: number;
  shift: number[];
  confidence: number;
}

/** A receiver on a mark. Metres in the project; seconds of GPS time since 1980-01-06. */
export interface OccupationView {
  id: number;
  version: number;
  marker: string;
  file: string;
  from: number;
  to: number;
  trimFrom: number | null;
  trimTo: number | null;
  interval: number | null;
  epochs: number;
  satellites: number;
  receiver: string;
  antenna: string;
  heightKind: string;
  heightValue: number;
  heightRadius: number;
  heightAbove: number;
  vertical: number | null;
  heightWords: string;
  e: number | null;
  n: number | null;
  h: number | null;
  placeFrom: string;
  question: string;
  suggested: string | null;
  moves: boolean;
}

/** A receiver's own file. Seconds of GPS time since 1980-01-06. */
export interface RecordingView {
  id: number;
  name: string;
  kind: string;
  marker: string;
  epochs: number;
  satellites: number;
  ephemerides: number;
  from: number | null;
  to: number | null;
  written: boolean;
}

/** A reference station of a service. Metres; places in the project where it can say. */
export interface ReferenceStationView {
  id: string;
  lat: number;
  lon: number;
  h: number;
  distance: number;
  e: number | null;
  n: number | null;
  intervals: number[];
  formats: string[];
}

/** What a position report says. Geocentric, metres. */
export interface ReportView {
  marker: string;
  frame: string;
  epoch: number;
  place: number[];
  sd: number[];
  method: string;
}

/** One satellite of a strip. */
export interface SkyRow {
  id: string;
  tracked: number[];
  strength: (number | null)[];
  lost: number[];
}

/** How a receiver tracked, in equal cells of time. Seconds; instants of GPS time since 1980-01-06. */
export interface SkyView {
  from: number;
  span: number;
  count: number[];
  rows: SkyRow[];
}

/** A stretch in which a receiver stood at one place. Seconds after the first epoch; millimetres east, north, up. */
export interface StandView {
  from: number;
  to: number;
  count: number;
  mean: number[];
  spreadPlan: number;
  spreadUp: number;
}

/** A reference-station service near the project, and what may be wanted of it. */
export interface StationsView {
  service: string;
  stations: ReferenceStationView[];
  from: number | null;
  to: number | null;
  why: string;
}

/** Tolerance bands: limits in metres, growing; a colour a band from the lowest up, as "#rrggbb". */
export interface BandsRequest {
  limits: number[];
  colours: string[];
}

/** Check points held against what was computed. Metres. */
export interface CheckPointsRequest {
  name: string;
  against: string;
  number?: number | null;
  pattern?: string;
  surface?: number;
  cloud?: number;
  within?: number;
  radius?: number | null;
  made?: string;
}

/** Measured points held against a reference. Metres. */
export interface DeviationRequest {
  name: string;
  reference: string;
  along: string;
  number?: number | null;
  measuredOn?: string;
  codes?: string[];
  pattern?: string;
  surface?: number;
  design?: number;
  layers?: string[];
  planeCodes?: string[];
  elevation?: number;
  ignore?: number | null;
  unit?: string;
  measured?: string;
  measuredSurface?: number;
  measuredCloud?: number;
  cloud?: number;
  radius?: number | null;
}

/** Differences in one coordinate, e, n or h. Metres. */
export interface AxisView {
  axis: string;
  count: number;
  mean: number;
  rms: number;
  sd: number | null;
  min: number;
  max: number;
}

/** What is known of check points held against what was computed there: computed minus known. Metres. */
export interface CheckPointsView {
  number: number;
  name: string;
  compared: string;
  against: string;
  pattern: string;
  surface: number;
  cloud: number;
  within: number;
  radius: number | null;
  made: string;
  count: number;
  used: number;
  axes: AxisView[];
  radial: number | null;
  horizontal: number | null;
  vertical: number | null;
  enough: number;
  run: number;
  output: string;
  at: string;
  author: string;
  stale: string[];
}

/** The Checks stage. */
export interface ChecksView {
  deviations: DeviationView[];
  designs: DesignFileView[];
  surfaces: SurfaceChoice[];
  codes: Record<string, number>;
  clouds: CloudFileView[];
  checks: CheckPointsView[];
  checkPoints: number;
  made: Record<string, string>;
}

/** Measured points held against a reference. Metres. */
export interface DeviationView {
  number: number;
  name: string;
  measuredOn: string;
  against: string;
  reference: string;
  along: string;
  codes: string[];
  pattern: string;
  surface: number;
  design: number;
  layers: string[];
  planeCodes: string[];
  elevation: number;
  ignore: number | null;
  unit: string;
  measuredKind: string;
  measuredSurface: number;
  measuredCloud: number;
  cloud: number;
  radius: number | null;
  measured: number;
  used: number;
  beyond: number;
  outside: number;
  mean: number | null;
  rms: number | null;
  sd: number | null;
  min: number | null;
  max: number | null;
  nearestBeyond: number | null;
  steepest: number | null;
  planeSd: number | null;
  run: number;
  output: string;
  at: string;
  author: string;
  limits: number[];
  colours: string[];
  stale: string[];
}

/** A surface that can be compared with. */
export interface SurfaceChoice {
  id: number;
  name: string;
}

/** What a cloud is made of, and what is done to it. Metres. */
export interface CloudRequest {
  name: string;
  number?: number | null;
  files?: number[];
  clouds?: number[];
  crop?: number[][];
  outside?: boolean;
  thin?: number | null;
  noise?: boolean;
  ground?: boolean;
  classes?: number[];
  onto?: number;
  within?: number;
  passes?: number[];
  dense?: number[];
  targets?: ({ e: number; h: number; n: number; target: string })[];
  paint?: string;
  against?: string;
  range?: number;
}

/** Dense points of adjusted flights or groups of images, and the cloud that is made of them. Metres. */
export interface DenseRequest {
  name: string;
  flights: number[];
  spacing?: number | null;
  number?: number | null;
}

/** Which mission is adjusted, with marks of control in its images. Pixels. */
export interface FlightRequest {
  name: string;
  mission: number;
  number?: number | null;
  marks?: ({ image: string; point: string; x: number; y: number })[];
}

/** A control or check point that a scan shows, and where, from its given place. Metres. */
export interface MarkRequest {
  target: string;
  east?: number;
  north?: number;
}

/** What is made of an adjusted flight: heights and an orthoimage. Metres. */
export interface OrthoRequest {
  name: string;
  flight: number;
  number?: number | null;
  cell?: number | null;
  pixel?: number | null;
}

/** Which drive is laid onto which, or registered to control alone. Metres, seconds. */
export interface PassRequest {
  name: string;
  trajectory: number;
  cloud: number;
  referenceTrajectory?: number | null;
  referenceCloud?: number | null;
  referencePass?: number | null;
  number?: number | null;
  every?: number;
  isTime?: boolean;
  radius?: number;
  preShift?: number[];
  targets?: ({ e: number; h: number; n: number; target: string; time: number })[];
}

/** A place that was picked. Metres. */
export interface PickRequest {
  name: string;
  e: number;
  n: number;
  h: number;
  code?: string;
}

/** A place that rays meet at becomes a point. Pixels. */
export interface RaysPointRequest {
  name: string;
  rays: ({ image: string; x: number; y: number })[];
  code?: string;
}

/** Where images show a place. Pixels. */
export interface RaysRequest {
  rays: ({ image: string; x: number; y: number })[];
  find?: boolean;
}

/** How a cloud lies on the one it was laid onto. */
export interface CloudFitView {
  onto: string;
  overlap: number;
  rms: number;
  shift: number[];
  turn: number;
}

/** A cloud that was made; metres. */
export interface CloudView {
  number: number;
  name: string;
  of: string;
  steps: string[];
  files: number[];
  clouds: number[];
  passes: number[];
  dense: number[];
  crop: number[][];
  outside: boolean;
  thin: number | null;
  noise: boolean;
  ground: boolean;
  keeps: number[];
  onto: number;
  within: number;
  fit: CloudFitView | null;
  targets: ({ e: number; h: number; n: number; target: string })[];
  byTargets: { isTilted: boolean; off: ({ off: number[]; role: string; target: string })[]; rms: number; shift: number[]; turn: number } | null;
  paint: string;
  paintAgainst: string;
  range: number;
  painted: { against: string; by: string; from: number; to: number } | null;
  points: number;
  classes: Record<string, number>;
  extent: number[];
  density: number;
  spacing: number | null;
  hasColours: boolean;
  hasIntensities: boolean;
  bytes: number;
  tiles: string;
  run: number;
  at: string;
  author: string;
  stale: string[];
}

/** The Clouds stage. */
export interface CloudsView {
  clouds: CloudView[];
  files: CloudFileView[];
  points: ({ e: number; h: number; n: number; name: string; role: string })[];
  products: Record<string, string>;
}

/** An adjusted photo flight. Metres. */
export interface FlightView {
  number: number;
  name: string;
  of: string;
  mission: number;
  images: number;
  joined: number;
  alone: string[];
  points: number;
  rays: number;
  left: number;
  sigma0: number | null;
  freeSigma0: number | null;
  control: number;
  isHeld: boolean;
  checks: number;
  rms: number[] | null;
  pixel: number;
  swapped: ({ 0: string; 1: string })[];
  converged: boolean;
  marks: ({ image: string; point: string; x: number; y: number })[];
  run: number;
  output: string;
  at: string;
  author: string;
  stale: string[];
}

/** The photo flights of a project. */
export interface FlightsView {
  flights: FlightView[];
  orthos: OrthoView[];
  missions: ({ id: number; images: number; isGroup: boolean; name: string })[];
  points: ({ e: number; h: number; n: number; name: string; role: string })[];
}

/** A mission where the project has it: what its images show of the ground. Metres. */
export interface MissionView {
  id: number;
  name: string;
  isGroup: boolean;
  width: number;
  height: number;
  above: number;
  isOriented: boolean;
  missing: number;
  pixel: number;
  area: number;
  threefold: number;
  forward: number | null;
  images: ({ e: number; file: string; footprint: ({ 0: number; 1: number })[]; h: number; n: number; photo: number | null })[];
  cover: { count: number[]; e: number[]; n: number[]; size: number };
}

/** Heights and an orthoimage of a flight. Metres. */
export interface OrthoView {
  number: number;
  name: string;
  flight: number;
  of: string;
  cell: number;
  pixel: number;
  columns: number;
  rows: number;
  completeness: number;
  box: number[];
  known: ({ id: string; off: number; role: string })[];
  run: number;
  output: string;
  at: string;
  author: string;
  stale: string[];
}

/** A pass as it was laid onto another, or registered to control. Metres. */
export interface PassView {
  number: number;
  name: string;
  of: string;
  onto: string;
  trajectory: number;
  cloud: number;
  referenceTrajectory: number | null;
  referenceCloud: number | null;
  referencePass: number | null;
  every: number;
  isTime: boolean;
  radius: number;
  preShift: number[];
  status: string;
  reason: string | null;
  stations: number;
  used: number;
  length: number;
  rmsBefore: number | null;
  rmsAfter: number | null;
  greatest: number;
  targets: ({ e: number; h: number; n: number; target: string; time: number })[];
  control: { after: number[]; before: number[]; count: number } | null;
  check: { after: number[]; before: number[]; count: number } | null;
  without: number[] | null;
  run: number;
  output: string;
  at: string;
  author: string;
  stale: string[];
}

/** The passes of a project. */
export interface PassesView {
  passes: PassView[];
  trajectories: TrajectoryFileView[];
  clouds: CloudFileView[];
  points: ({ e: number; h: number; n: number; name: string; role: string })[];
}

/** Rays of a group of images, and where they meet. Metres, pixels. */
export interface RaysView {
  rays: ({ alike: number | null; dx: number | null; dy: number | null; image: string; x: number; y: number })[];
  place: number[] | null;
  sd: number[] | null;
  mistaken: string | null;
  lines: ({ image: string; line: ({ 0: number; 1: number })[] })[];
  shows: ({ image: string; x: number; y: number })[];
}

/** A trajectory that came in. */
export interface TrajectoryFileView {
  id: number;
  name: string;
  rows: number;
  length: number;
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
  geoid: string;
  revision: number;
  units: UnitsView;
  stages: StageView[];
  stale: StaleView[];
  jobs: JobView[];
  undo: number | null;
  redo: number | null;
  ledgerCount: number;
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

/** Corners of a drawing that become points. */
export interface TakePointsRequest {
  corners: number[];
  prefix: string;
  code?: string;
  unit?: string;
}

/** A point cloud that can be compared, or compared with. */
export interface CloudFileView {
  id: number;
  name: string;
  points: number;
}

/** A file of faces, lines and points that others drew. */
export interface DesignFileView {
  id: number;
  name: string;
  faces: number;
  layers: Record<string, number>;
  lines: number;
  points: number;
  lineLayers: Record<string, number>;
}

/** What a file draws, as the file holds it, in drawing units: corners, and what is made of them by their numbers. */
export interface DrawingView {
  id: number;
  name: string;
  x: number[];
  y: number[];
  z: number[];
  triangles: number[];
  faceOf: number[];
  layers: string[];
  faceLayer: number[];
  lines: number[][];
  lineLayer: number[];
  points: number[];
  pointLayer: number[];
}

/** What goes to drawing programs, and onto which layers. */
export interface CadRequest {
  name: string;
  format?: string;
  roles?: string[];
  codes?: string[];
  blocks?: boolean;
  texts?: boolean;
  surfaces?: ({ contours: boolean; faces: boolean; id: number; lines: boolean })[];
  layers?: ({ file: number; layer: string })[];
  alignments?: ({ file: number; name: string })[];
  catalogue?: number;
  mapping?: ({ colour: string; from: string; style: string; to: string })[];
  codeLines?: boolean;
  within?: ({ e: number; n: number })[];
}

/** The types of a feature catalogue. */
export interface CatalogueRequest {
  name: string;
  scope?: string;
  types?: ({ accuracy: number; alias: string; attributes: ({ decimals: number; default: string; isFilled: boolean; kind: string; least: number | null; length: number; most: number | null; name: string; number: number | null; options: string[]; required: boolean; unit: string })[]; code: string; colour: string; every: number; kind: string; logging: string; positions: number; solution: string; style: string; symbol: string })[];
}

/** Features that were collected with a version of a catalogue; metres. */
export interface CollectedRequest {
  features: ({ attributes: Record<string, string>; code: string; places: ({ e: number; h: number; n: number; positions: number; sd: number })[]; solution: string })[];
}

/** What to hand over. */
export interface ExportRequest {
  kind: string;
  surfaces?: number[];
}

/** Where the simulated rover stands, and what it is held against. */
export interface FixesRequest {
  places: number[][];
  surface?: number;
  point?: string;
  line?: string;
}

/** What goes to information systems. */
export interface GisRequest {
  name: string;
  format?: string;
  roles?: string[];
  codes?: string[];
  plan?: number | null;
  up?: number | null;
  unknown?: boolean;
  layers?: ({ file: number; layer: string })[];
  attributes?: string[];
  system?: string;
}

/** What stands at the head of reports: up to four lines. */
export interface LetterheadRequest {
  letterhead: string;
}

/** Whether a view stays as it is now, whatever the project becomes. */
export interface LockRequest {
  locked: boolean;
}

/** What a package is to hold. */
export interface PackageRequest {
  name: string;
  surfaces?: number[];
  roles?: string[];
  codes?: string[];
  layers?: ({ colour: string; file: number; layer: string })[];
  alignments?: ({ file: number; name: string })[];
  localization?: number;
  geoid?: number;
}

/** A window for which a scale is looked for; millimetres, degrees. */
export interface ScaleFitRequest {
  view: number;
  width: number;
  height: number;
  rotation?: number;
}

/** How a drawing sheet is laid out: millimetres from its upper left corner. */
export interface SheetRequest {
  name: string;
  size?: string;
  landscape?: boolean;
  plain?: boolean;
  windows?: ({ bar: boolean; coordinates: boolean; e: number | null; frame: string; grid: boolean; height: number; legend: boolean; n: number | null; north: boolean; rotation: number; scale: number; view: number; width: number; x: number; y: number })[];
  tables?: ({ key: string; width: number; x: number; y: number })[];
  fields?: { checked?: string; company?: string; date?: string; drawn?: string; number?: string; title?: string };
  revisions?: ({ date: string; mark: string; text: string })[];
}

/** As-built shots of the simulated controller, to be brought into the project. */
export interface ShotsRequest {
  shots: ({ code: string; count: number; e: number; h: number; n: number; note: string; sd: number })[];
  prefix?: string;
}

/** What a view of a drawing shows. */
export interface ViewRequest {
  name: string;
  roles?: string[];
  codes?: string[];
  names?: boolean;
  heights?: boolean;
  surfaces?: ({ contours: boolean; id: number; lines: boolean })[];
  layers?: ({ colour: string; file: number; layer: string; width: number })[];
  screenOnly?: string[];
  text?: number;
  locked?: string;
}

/** The layers a drawing would have. */
export interface CadLayersView {
  layers: ({ colour: number; count: number; from: string; name: string; style: string })[];
  points: number;
  lines: number;
  faces: number;
}

/** A hand-over to drawing programs as it is defined, and what was written of it. */
export interface CadSetView {
  id: number;
  version: number;
  name: string;
  format: string;
  roles: string[];
  codes: string[];
  blocks: boolean;
  texts: boolean;
  surfaces: ({ contours: boolean; faces: boolean; id: number; lines: boolean })[];
  layers: ({ file: number; layer: string })[];
  alignments: ({ file: number; name: string })[];
  catalogue: number;
  mapping: ({ colour: string; from: string; style: string; to: string })[];
  codeLines: boolean;
  within: ({ e: number; n: number })[];
  files: ExportView[];
}

/** Hand-overs to drawing programs, and what can be chosen for one. */
export interface CadView {
  sets: CadSetView[];
  surfaces: ({ id: number; name: string })[];
  roles: ({ points: number; role: string })[];
  codes: string[];
  layers: ({ file: number; fileName: string; layer: string; lines: number })[];
  alignments: ({ file: number; fileName: string; length: number; name: string })[];
  catalogues: ({ id: number; name: string })[];
  colours: ({ css: string; name: string })[];
}

/** A feature catalogue as it is edited, and its versions. */
export interface CatalogueView {
  id: number;
  version: number;
  name: string;
  scope: string;
  types: ({ accuracy: number; alias: string; attributes: ({ decimals: number; default: string; isFilled: boolean; kind: string; least: number | null; length: number; most: number | null; name: string; number: number | null; options: string[]; required: boolean; unit: string })[]; code: string; colour: string; every: number; kind: string; logging: string; positions: number; solution: string; style: string; symbol: string })[];
  files: ExportView[];
}

/** One line of a receipt. */
export interface CheckView {
  what: string;
  expected: string;
  found: string;
  holds: boolean;
}

/** Two files of a kind: what differs and why. */
export interface ComparedView {
  from: number;
  to: number;
  same: boolean;
  because: string[];
  gone: number;
  new: number;
  before: string[];
  now: string[];
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
  sha256: string;
  inputs: string[];
}

/** What the simulated rover measured at a place, and how it lies to the design. Metres; degrees from grid north. */
export interface FixView {
  e: number;
  n: number;
  h: number;
  sd: number;
  design: number | null;
  above: number | null;
  point: { bearing: number; distance: number; fill: number | null; forward: number; right: number } | null;
  line: { beyond: boolean; e: number; fill: number | null; n: number; offset: number; station: number } | null;
}

/** What would go along, and what stays out because of how well it is known. */
export interface GisCountView {
  points: number;
  kept: number;
  worse: number;
  unknown: number;
  lines: number;
  areas: number;
}

/** A hand-over to information systems as it is defined, and what was written of it. */
export interface GisSetView {
  id: number;
  version: number;
  name: string;
  format: string;
  roles: string[];
  codes: string[];
  plan: number | null;
  up: number | null;
  unknown: boolean;
  layers: ({ file: number; layer: string })[];
  attributes: string[];
  system: string;
  files: ExportView[];
}

/** Hand-overs to information systems, and what can be chosen for one. */
export interface GisView {
  sets: GisSetView[];
  formats: ({ key: string; name: string })[];
  attributes: string[];
  roles: ({ points: number; role: string })[];
  codes: string[];
  layers: ({ file: number; fileName: string; layer: string; lines: number })[];
}

/** The hand-over stage. */
export interface HandOverView {
  letterhead: string;
  offers: OfferView[];
  exports: ExportView[];
  archive: ExportView[];
  geoids: ({ id: number; name: string; notes: string[]; size: number })[];
}

/** Points and lines of a package, read back from its zip. Metres. */
export interface HeldDrawingView {
  points: ({ code: string; e: number; h: number | null; n: number; name: string })[];
  lines: ({ layer: string; vertices: number[][] })[];
  background: ({ layer: string; vertices: number[][] })[];
  alignments: ({ e: number[]; length: number; n: number[]; name: string; start: number; stations: number[] })[];
}

/** What a package holds, read back from its zip. */
export interface HeldView {
  name: string;
  project: string;
  made: string;
  system: string;
  heights: string;
  checked: string;
  leftOut: string[];
  items: ({ count: number; file: string; from: string; kind: string; name: string; why: string })[];
  layers: ({ colour: string; lines: number; name: string })[];
  surfaces: ({ box: number[]; faces: number; high: number; low: number; name: string })[];
}

/** Lines that codes draw. Metres. @phpstan-import-type Line from Linework */
export interface LineworkView {
  lines: ({ closed: boolean; code: string; from: string; length: number; number: string; path: number[]; points: number; to: string })[];
  faults: string[];
}

/** A kind of file that can be written; format as people name it: "CSV". Takes: how many of the choices at most. */
export interface OfferView {
  kind: string;
  group: string;
  title: string;
  format: string;
  holds: string;
  takes: number;
  choices: ({ id: number; name: string })[];
}

/** A package as it is defined, and the newest that was written of it. */
export interface PackageView {
  id: number;
  version: number;
  name: string;
  surfaces: number[];
  roles: string[];
  codes: string[];
  layers: ({ colour: string; file: number; layer: string })[];
  alignments: ({ file: number; name: string })[];
  localization: number;
  geoid: number;
  files: ExportView[];
}

/** The packages of the project, and what can be chosen for one. */
export interface PackagesView {
  packages: PackageView[];
  surfaces: ({ id: number; name: string })[];
  roles: ({ points: number; role: string })[];
  codes: string[];
  layers: ({ file: number; fileName: string; layer: string; lines: number })[];
  alignments: ({ file: number; fileName: string; length: number; name: string })[];
  localizations: ({ id: number; name: string })[];
  geoids: ({ id: number; name: string })[];
  colours: ({ css: string; name: string })[];
}

/** A view of a drawing: what it shows. */
export interface SavedViewView {
  id: number;
  version: number;
  name: string;
  roles: string[];
  codes: string[];
  names: boolean;
  heights: boolean;
  surfaces: ({ contours: boolean; id: number; lines: boolean })[];
  layers: ({ colour: string; file: number; layer: string; width: number })[];
  screenOnly: string[];
  text: number;
  locked: string;
}

/** Scales at which what a view shows fits a window, and the middle of it; metres. */
export interface ScaleFitView {
  scales: number[];
  e: number;
  n: number;
}

/** A drawing sheet as it is laid out; millimetres from its upper left corner. */
export interface SheetView {
  id: number;
  version: number;
  name: string;
  size: string;
  landscape: boolean;
  plain: boolean;
  windows: ({ bar: boolean; coordinates: boolean; e: number | null; frame: string; grid: boolean; height: number; legend: boolean; n: number | null; north: boolean; rotation: number; scale: number; view: number; width: number; x: number; y: number })[];
  tables: ({ key: string; width: number; x: number; y: number })[];
  fields: { checked: string; company: string; date: string; drawn: string; number: string; title: string };
  revisions: ({ date: string; mark: string; text: string })[];
}

/** Sheets and views of the project, what was drawn of them, and what can be chosen. */
export interface SheetsView {
  sheets: SheetView[];
  views: SavedViewView[];
  files: ExportView[];
  sizes: ({ height: number; name: string; width: number })[];
  tables: ({ key: string; title: string })[];
  surfaces: ({ id: number; name: string })[];
  roles: ({ points: number; role: string })[];
  codes: string[];
  layers: ({ file: number; fileName: string; layer: string; lines: number })[];
  colours: ({ css: string; name: string })[];
}

/**  */
export interface AcceptRequest {
  leaveOutBad?: boolean;
}

/**  */
export interface LabelRequest {
  label: string;
}

/** Answers about a waiting file: frame "project", "local", a system, or "localization:ID"; heights "ellipsoidal", "geoid" or empty. */
export interface MeaningRequest {
  frame?: string;
  heights?: string;
  geoid?: string;
  swap?: boolean | null;
  far?: boolean;
  sign?: string;
  operation?: string;
  control?: string;
  sigma?: number | null;
}

/** What names of a waiting file stand for: a name that stands for itself is kept apart from what looks like it. */
export interface NamesRequest {
  names: ({ from: string; to: string })[];
}

/** A question about a waiting file. Key: heights, geoid, swap, sign or far; offer is the answer a yes gives to sign. */
export interface AskView {
  key: string;
  text: string;
  offer: string;
}

/** A column of a file and a few of its cells. */
export interface ColumnView {
  index: number;
  heading: string;
  samples: string[];
  used: boolean;
}

/** What a kind of file says, where it was found, and in which unit. Unit is null where it must be answered; level and why say how sure it is. */
export interface FieldView {
  key: string;
  label: string;
  quantity: string;
  required: boolean;
  column: number | null;
  unit: string | null;
  units: string[];
  level: string;
  why: string;
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

/** What a file's coordinates and heights are taken to mean; said is what the heading of its height column says; sigma in metres. */
export interface MeaningView {
  frame: string;
  heights: string;
  said: string;
  geoid: string;
  swap: boolean | null;
  far: boolean;
  sign: string;
  operation: string;
  geographic: boolean;
  hasHeights: boolean;
  control: string;
  sigma: number | null;
  plane: boolean;
  asks: AskView[];
  ways: CandidateView[];
}

/** The remembered mapping a file is read by. */
export interface MemoryView {
  id: number;
  label: string;
  author: string;
}

/** A name of a waiting file that may be another one: spelled alike, or lying where that lies; or the same name lying elsewhere. Distance in metres between the two determinations, where both have one; where names the file, or the project, the other stands in. */
export interface NameQuestionView {
  file: number;
  fileName: string;
  name: string;
  other: string;
  where: string;
  alike: boolean;
  plan: number | null;
  height: number | null;
  answer: string | null;
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
  questions: UnitAskView[];
  extent: number[] | null;
  points: PlacedPoint[];
  pointCount: number;
  rays: number[][];
  unreadable: string | null;
  acceptable: boolean;
  meaning: MeaningView | null;
  memory: MemoryView | null;
  twin: string;
}

/** A line of a file as it was received. */
export interface SourceLine {
  line: number;
  text: string;
}

/** A unit that stands nowhere in the file: asked once for all columns it would answer, with the likely answer and why it is that. */
export interface UnitAskView {
  text: string;
  fields: string[];
  units: string[];
  offer: string;
  why: string;
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

/** What is typed for one instrument set-up, and for the book as a whole: degrees Celsius, hectopascal, percent, metres, micrometres. */
export interface BookRequest {
  setup: string;
  mode: string;
  precision: string;
  temperature?: number | null;
  pressure?: number | null;
  humidity?: number | null;
  prism?: number;
  referenceRefractivity?: number | null;
  wavelength?: number;
  scope?: string;
}

/** What groups weights are proposed for. */
export interface ComponentsRequest {
  by: string;
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

/** What to put right in observations, with a reason. */
export interface CorrectionRequest {
  cause: string;
  words: string;
  changes: ({ add?: number; field: string; id: number; to?: string })[];
  reason?: string;
}

/** Pointings whose target stood off its mark, and where the mark lies from it as the observer sees it: metres. */
export interface EccentricRequest {
  pointings: number[];
  right?: number;
  onwards?: number;
  up?: number;
  reason?: string;
}

/** Marks to hold at their given coordinates. */
export interface HoldRequest {
  points: string[];
}

/** What of the levelling book the network gets: differences as measured or adjusted, and how they are weighted. */
export interface LevelHandRequest {
  as: string;
  weight: string;
  sigma?: number | null;
}

/** A file of levelled runs, as text. */
export interface LevelReadRequest {
  text: string;
}

/** A run of levels as it is written; id of a run that is there already. */
export interface LevelRunRequest {
  name: string;
  pattern: string;
  rows: ({ distance: number | null; kind: string; point: string; reading: number | null })[];
  id?: number | null;
}

/** How the levelling book is worked out, and its typed benchmarks. */
export interface LevelSettingsRequest {
  k: number;
  per: string;
  distribute: string;
  curvature: boolean;
  refraction: number;
  repeatLimit: number;
  scalePpm: number;
  expansion: number;
  temperature: number;
  referenceTemperature: number;
  benchmarks?: ({ h: number; id: string })[];
}

/** A network to be measured. Metres, parts per million, metres by root of the kilometres. */
export interface PlanRequest {
  marks: ({ e: number; h: number; held: boolean; n: number; name: string })[];
  sights: ({ from: string; kind: string; rounds: number; to: string })[];
  withMeasured?: boolean;
  vectorPlan?: number;
  vectorHeight?: number;
  vectorPpm?: number;
  perKm?: number;
  wanted?: number;
}

/** A point's new name. */
export interface RenameRequest {
  from: string;
  to: string;
}

/** Other values for control marks: metres; what is left out stays. Applied, or only worked out. */
export interface ReorientRequest {
  control: ({ e: number | null; h: number | null; n: number | null; point: string })[];
  apply?: boolean;
  reason?: string;
}

/** Limit of the standardized residual for screening. */
export interface ScreenRequest {
  limit?: number;
  most?: number | null;
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
  factors?: Record<string, number>;
  deflections?: string;
  xi?: number;
  eta?: number;
}

/** Which set-up to place, whether its station is found from its targets, and the targets held; none named holds control. */
export interface SetupPlacesRequest {
  setup: string;
  resection?: boolean;
  held?: string[];
}

/** Marks along a traverse; without stations, the first that is found. Allowed: arc seconds by root of the angles, and one in so many. */
export interface TraverseRequest {
  back?: string;
  stations?: string[];
  fore?: string;
  angular?: number;
  ratio?: number;
}

/** One instrument set-up, reduced: metres, degrees, parts per million. */
export interface BookSetupView {
  key: string;
  station: string;
  hi: number;
  rounds: number;
  collimation: number | null;
  index: number | null;
  sdDirection: number | null;
  sdZenith: number | null;
  spread: number | null;
  ppm: number;
  targets: ({ direction: number; ellipsoid: number | null; faces: string; grid: number | null; heightDifference: number | null; horizontal: number | null; ht: number; pointings: number; slope: number | null; target: string; zenith: number })[];
  pointings: ({ corrected: boolean; direction: number | null; distance: number | null; face: number | null; ht: number; id: number; line: number | null; round: string; target: string; used: boolean; zenith: number | null })[];
  warnings: string[];
  fault: string | null;
  mode: string;
  precision: string;
  temperature: number | null;
  pressure: number | null;
  humidity: number | null;
  prism: number;
  recordedWeather: string;
}

/** The total-station book of a project. */
export interface BookView {
  referenceRefractivity: number | null;
  wavelength: number;
  version: string;
  setups: BookSetupView[];
}

/** An observation that two runs judge differently. */
export interface ChangedVerdictView {
  id: number;
  component: string | null;
  kind: string;
  at: string;
  to: string;
  before: number | null;
  after: number | null;
  verdict: string;
}

/** The newest run against the one before. */
export interface ComparisonView {
  previousRun: number;
  previousFactor: number | null;
  previousPassed: boolean | null;
  shifts: ShiftView[];
  largest: number;
}

/** What the standard deviations of a group are multiplied by, and what its residuals propose. */
export interface ComponentView {
  group: string;
  count: number;
  redundancy: number;
  present: number;
  proposed: number;
}

/** A correction that was made to recorded observations. */
export interface CorrectionView {
  id: number;
  cause: string;
  words: string;
  reason: string;
  author: string;
  createdAt: string;
  observations: number[];
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

/** How the sight of a held target agrees: across the line, along it and in height, observed less computed; metres. */
export interface HeldSightView {
  target: string;
  across: number | null;
  along: number | null;
  up: number | null;
  flagged: boolean;
}

/** The levelling book of a project, worked out as far as it goes: metres. */
export interface LevelBookView {
  settings: LevelSettingsView;
  version: string;
  benchmarks: ({ h: number; id: string })[];
  known: ({ h: number; id: string })[];
  runs: LevelRunView[];
  fault: string | null;
  sections: ({ allowable: number | null; difference: number; from: string; given: number | null; length: number | null; misclosure: number | null; passed: boolean | null; run: string; setups: number; to: string; unbalance: number | null })[];
  points: ({ adjusted: boolean; again: ({ difference: number; h: number; run: string })[]; h: number; id: string; role: string; run: string | null })[];
  loops: ({ allowable: number | null; length: number | null; misclosure: number; passed: boolean | null; runs: string[]; setups: number })[];
  network: ({ from: string; length: number | null; run: string; setups: number; to: string; value: number })[];
  warnings: string[];
  perKm: number | null;
  perSetup: number | null;
}

/** A run worked out as it is being written: metres. */
export interface LevelDraftView {
  rows: ({ fault: string | null; h: number | null; horizon: number | null; isBeyond: boolean; misclosure: number | null; repeat: number | null; setup: number; unbalance: number | null })[];
  backs: number;
  fores: number;
  setups: number;
  length: number | null;
}

/** A run as it was written. */
export interface LevelRunView {
  id: number;
  version: number;
  name: string;
  pattern: string;
  rows: ({ distance: number | null; kind: string; point: string; reading: number | null })[];
}

/** How a levelling book is worked out: metres, degrees Celsius. */
export interface LevelSettingsView {
  k: number;
  per: string;
  distribute: string;
  curvature: boolean;
  refraction: number;
  repeatLimit: number;
  scalePpm: number;
  expansion: number;
  temperature: number;
  referenceTemperature: number;
}

/** The network stage. */
export interface NetworkView {
  settings: SettingsView;
  settingsVersion: string;
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
  corrections: CorrectionView[];
  relative: RelativeView[];
}

/** A mark placed from a set-up: metres; against what the project knows of it, where it knows it. */
export interface PlacedView {
  name: string;
  e: number;
  n: number;
  h: number | null;
  sdE: number | null;
  sdN: number | null;
  sdH: number | null;
  offE: number | null;
  offN: number | null;
  offH: number | null;
}

/** How well a planned sight will be checked: the least redundancy number of its observations, the largest external effect (metres). */
export interface PlanSightView {
  redundancy: number;
  external: number | null;
}

/** A station as precise as it will be: metres, bearing in degrees. */
export interface PlanStationView {
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
  planned: boolean;
}

/** A network that is to be measured, with the precision and reliability it will have. Metres; ellipses at the project's confidence. */
export interface PlanView {
  marks: ({ e: number; h: number; held: boolean; n: number; name: string })[];
  sights: ({ from: string; kind: string; rounds: number; to: string })[];
  settings: { perKm: number; vectorHeight: number; vectorPlan: number; vectorPpm: number; wanted: number; withMeasured: boolean };
  version: string;
  stations: PlanStationView[];
  worth: PlanSightView[];
  redundancy: number | null;
  confidence: number;
  fault: string | null;
}

/** Error ellipse of a station seen from another; metres at the run's confidence, bearing in degrees. */
export interface RelativeView {
  from: string;
  to: string;
  semiMajor: number;
  semiMinor: number;
  bearing: number;
  sdH: number;
}

/** One scalar of an observation with its statistics. Angles in degrees, lengths in metres; groundMm is the residual on the ground; recorded values where a correction stands before them. */
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
  hi: number;
  ht: number;
  recorded: number | null;
  recordedHi: number | null;
  recordedHt: number | null;
  recordedTo: string | null;
  face: number | null;
  round: number | null;
  observedAt: string | null;
  back: string | null;
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

/** Two runs of the adjustment side by side: what moved and which verdicts changed. */
export interface RunsComparedView {
  earlier: number;
  later: number;
  earlierFactor: number | null;
  laterFactor: number | null;
  shifts: ShiftView[];
  changed: ChangedVerdictView[];
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
  factors: Record<string, number>;
  deflections: string;
  xi: number;
  eta: number;
}

/** A set-up placed on marks that are held: its station, how the held marks agree, and the places of what it sights. */
export interface SetupPlacesView {
  station: string;
  resection: boolean;
  stationKnown: boolean;
  held: string[];
  offered: string[];
  places: PlacedView[];
  checks: HeldSightView[];
  redundancy: number | null;
  varianceFactor: number | null;
  passed: boolean | null;
  fault: string | null;
}

/** How a set-up goes with other control: shift in metres, rotation clockwise in degrees, scale in parts per million. */
export interface SetupTurnView {
  station: string;
  e: number;
  n: number;
  h: number;
  rotation: number;
  scale: number;
  targets: number;
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

/** A standardized residual without and with a suspect's correction. */
export interface SuspectRowView {
  id: number;
  component: string | null;
  kind: string;
  at: string;
  to: string;
  before: number;
  after: number;
}

/** A suspect with its evidence: metres, degrees, parts per million. */
export interface SuspectView {
  cause: string;
  words: string;
  quantity: string;
  estimate: number | null;
  sd: number | null;
  statistic: number;
  explains: number;
  factorAfter: number | null;
  suggests: string | null;
  touched: number[];
  changes: ({ add?: number; field: string; id: number; to?: string })[];
  station: string | null;
  rows: SuspectRowView[];
  moves: ShiftView[];
  largestMove: number | null;
  largestMoveAt: string | null;
}

/** Marks in order along a traverse: backsight, stations from first to last, foresight. */
export interface TraverseLineView {
  back: string | null;
  stations: string[];
  fore: string | null;
}

/** A station of a traverse. Degrees and metres; angle clockwise from the back to the fore target, distance on the grid to the next station, the balanced azimuth of that leg; place by the compass rule, and by least squares with its precision. */
export interface TraverseStationView {
  name: string;
  angle: number | null;
  azimuth: number | null;
  distance: number | null;
  thereLessBack: number | null;
  e: number | null;
  n: number | null;
  rigorousE: number | null;
  rigorousN: number | null;
  sdE: number | null;
  sdN: number | null;
}

/** A traverse balanced, and the others that were found. Degrees and metres; what is allowed beside what is there. */
export interface TraverseView {
  back: string | null;
  stations: TraverseStationView[];
  fore: string | null;
  found: TraverseLineView[];
  angularMisclosure: number | null;
  angularAllowed: number | null;
  misclosureE: number | null;
  misclosureN: number | null;
  linear: number | null;
  linearAllowed: number | null;
  length: number | null;
  ratio: number | null;
  varianceFactor: number | null;
  passed: boolean | null;
  fault: string | null;
  occupied: string[];
}

/** A new project. */
export interface CreateRequest {
  name: string;
  reference: string;
  heights: string;
}

/** Gives someone a role in a project; "none" takes it away. */
export interface MemberRequest {
  username: string;
  role: string;
}

/** How quantities are shown; decimals as in {@see \App\Project\View\UnitsView}. */
export interface UnitsRequest {
  length: string;
  angle: string;
  decimals: number;
  heights?: number;
  angles?: number;
  small?: number;
  areas?: number;
}

/** Someone who may open a project. */
export interface MemberView {
  username: string;
  name: string;
  role: string;
}

/** A project in the list. */
export interface ProjectCard {
  id: number;
  name: string;
  role: string;
  reference: string;
  heights: string;
}

/** How quantities are shown. Length: m, ft or ftUS; angle: dms, deg or gon. Decimals of plan coordinates and distances, of heights, of seconds of arc (other notations as fine), of millimetres, and of areas and volumes. */
export interface UnitsView {
  length: string;
  angle: string;
  decimals: number;
  heights: number;
  angles: number;
  small: number;
  areas: number;
}

/** A system of the project's own: a text (WKT2 or PROJ), or a method with parameters over a geodetic system. Angles in degrees, lengths in metres. */
export interface CustomSystemRequest {
  name: string;
  definition?: string;
  method?: number;
  geodetic?: string;
  parameters?: Record<string, number>;
  lat?: number | null;
  lon?: number | null;
}

/** A low-distortion design: the site's ellipsoidal height in metres; a name keeps it. Corners in degrees where the project has no points; geodetic is the system that the design for a plane project is on. */
export interface DesignRequest {
  height: number;
  name?: string;
  south?: number | null;
  west?: number | null;
  north?: number | null;
  east?: number | null;
  geodetic?: string;
}

/** A geoid extract: the model, an area by corners or by centre and radius (km), a step (degrees; null keeps it), an ellipsoid. */
export interface ExtractRequest {
  geoid: string;
  by: string;
  south?: number | null;
  west?: number | null;
  north?: number | null;
  east?: number | null;
  lat?: number | null;
  lon?: number | null;
  radiusKm?: number | null;
  step?: number | null;
  ellipsoid?: string;
  label?: string;
}

/** The project's system scaled to the ground about a point. */
export interface GroundRequest {
  point: string;
  name: string;
}

/** Pairs and what to fit. Held values: metres, degrees clockwise, ratio; null fits. The system may stay open until it is kept. */
export interface LocalizationRequest {
  pairs: ({ gridE: number; gridH: number | null; gridN: number; horizontal: boolean; localE: number; localH: number | null; localN: number; name: string; vertical: boolean })[];
  system?: string;
  heights?: string;
  geoid?: string;
  shiftE?: number | null;
  shiftN?: number | null;
  rotation?: number | null;
  scale?: number | null;
  vertical?: string;
  name?: string;
}

/** What coordinates and heights mean: "EPSG:n", "custom:ID" or "plane"; heights ellipsoidal, geoid or local; a geoid as "installed:NAME" or "grid:ID"; epoch as a decimal year, for parameters that move with time. */
export interface ReferenceRequest {
  reference: string;
  heights: string;
  geoid?: string;
  operation?: string | null;
  epoch?: number | null;
}

/** One transformation between two datums. Accuracy in metres; bounds south, west, north, east in degrees. */
export interface CandidateView {
  name: string;
  accuracy: number | null;
  area: string;
  bounds: number[] | null;
  covers: boolean;
  usable: boolean;
  missing: string[];
  steps: ({ method: string; parameters: string[]; source: string })[];
  epoch: number | null;
}

/** A proposed low-distortion system: parts per million over the extent, positive where grid distances are longer than those on the ground. */
export interface DesignView {
  datum: string;
  method: string;
  scale: number;
  originLat: number;
  originLon: number;
  min: number;
  max: number;
  mean: number;
  otherMethod: string;
  otherMin: number;
  otherMax: number;
  projectMin: number | null;
  projectMax: number | null;
  wkt: string;
  samples: ({ e: number; n: number; ppm: number })[];
  id: number | null;
}

/** A planned or made geoid extract. Bounds and step in degrees, sizes in bytes, differences to the source in metres. */
export interface ExtractView {
  name: string;
  bounds: number[];
  stepLat: number;
  stepLon: number;
  rows: number;
  columns: number;
  gtxSize: number;
  isgSize: number;
  sameStep: boolean;
  ellipsoid: string;
  id: number | null;
  checked: number | null;
  largest: number | null;
  rms: number | null;
  note: string;
  outline: number[][];
}

/** A fitted localization. Lengths in metres, rotation in degrees clockwise, slopes in metres per metre. */
export interface FitView {
  values: { a: number; b: number; c: number; centreE: number; centreN: number; rotation: number; scale: number; shiftE: number; shiftN: number };
  sd: Record<string, number | null>;
  rows: ({ e: number | null; gridE: number; gridN: number; h: number | null; horizontal: number | null; n: number | null; name: string; standardized: number | null; standardizedH: number | null; withoutE: number | null; withoutH: number | null; withoutN: number | null })[];
  sigma: number | null;
  sigmaH: number | null;
  redundancy: number;
  redundancyH: number;
  suspect: { name: string; off: number[]; part: string; sigma: number; sigmaWithout: number } | null;
  hull: number[][];
  outside: ({ distance: number; name: string })[];
}

/** A geoid or shift grid that can be used. Bounds south, west, north, east and step in degrees. */
export interface GridFileView {
  reference: string;
  id: number | null;
  name: string;
  kind: string;
  origin: string;
  size: number;
  bounds: number[] | null;
  step: number | null;
  ellipsoid: string;
  coversPoints: boolean;
  notes: string[];
}

/** Everything between two points, with where each figure comes from. Lengths in metres, angles in degrees. */
export interface InverseView {
  from: string;
  to: string;
  rows: ({ kind: string; label: string; source: string; value: number | null })[];
  ends: ({ from: number | null; kind: string; label: string; source: string; to: number | null })[];
}

/** What a change of reference would do. */
export interface MovePreview {
  operation: string;
  accuracy: number | null;
  rows: MovedRow[];
  moved: number;
  localOnly: number;
  candidates: CandidateView[];
  warnings: string[];
  problem: string;
}

/** One point before and after, metres. */
export interface MovedRow {
  name: string;
  e: number;
  n: number;
  h: number | null;
  newE: number;
  newN: number;
  newH: number | null;
  known: string;
}

/** The reference stage of a project. Extent south, west, north, east in degrees. */
export interface ReferenceView {
  system: SystemDetail | null;
  heights: string;
  geoid: string;
  points: number;
  localPoints: number;
  extent: number[] | null;
  meanHeight: number | null;
  customs: ({ id: number; name: string })[];
  grids: GridFileView[];
  localizations: ({ id: number; name: string; pairs: number; system: string; vertical: string })[];
  methods: ({ code: number; name: string; parameters: ({ code: number; kind: string; name: string })[] })[];
  registry: string;
}

/** All that is said of one coordinate system. Candidates lead to it from WGS 84, the datum GNSS positions come in. */
export interface SystemDetail {
  reference: string;
  name: string;
  kind: string;
  datum: string;
  ellipsoid: string;
  geodetic: string;
  geodeticReference: string;
  method: string;
  parameters: ({ name: string; value: string })[];
  unit: string;
  metresPerUnit: number;
  axes: string[];
  area: string;
  bounds: number[] | null;
  coversPoints: boolean;
  deprecated: boolean;
  successor: string | null;
  candidates: CandidateView[];
  gnss: string;
  wkt: string;
  proj: string;
}

/** A coordinate system found; reference is what the project is told. */
export interface SystemHit {
  reference: string;
  name: string;
  kind: string;
  area: string;
  why: string;
  deprecated: boolean;
  recent: boolean;
}

/** A definition tried out: its names, and the grid place of a known point. Convergence in degrees, distortion in parts per million. */
export interface TriedView {
  name: string;
  datum: string;
  wkt: string;
  proj: string;
  e: number | null;
  n: number | null;
  backLat: number | null;
  backLon: number | null;
  convergence: number | null;
  scale: number | null;
  problem: string;
}

/** One step of what a result rests on; depth 0 is the result itself. */
export interface LineageView {
  depth: number;
  text: string;
  stale: boolean;
}

/** What is said about a result, a station or a file. */
export interface RemarkRequest {
  about: string;
  text?: string;
  answers?: number;
  checks?: boolean;
}

/** What somebody said about a thing. */
export interface RemarkView {
  id: number;
  about: string;
  text: string;
  author: string;
  at: string;
  answers: number;
  checks: boolean;
  stands: boolean;
  why: string;
}

/** A point of the project; metres. Given values and sd belong to control; version is the ledger entry that last changed it. */
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
  known: string;
  version: number;
}

/** Points of a project as the ledger's entry seq left them: all, or those changed since the entry asked for and the ids of those gone. */
export interface PointsView {
  seq: number;
  whole: boolean;
  gone: number[];
  points: PointView[];
}

/** The materials of a project, all of them, and what a lorry takes (cubic metres, loose). */
export interface MaterialsRequest {
  materials: ({ density: number; isNative: boolean; name: string; shrink: number; swell: number })[];
  capacity: number;
}

/** Surfaces and points cut along a line: drawn, or an alignment of a file. Metres. */
export interface SectionRequest {
  name: string;
  surfaces: number[];
  number?: number | null;
  line?: number[][];
  file?: number;
  alignment?: string;
  offset?: number;
  every?: number;
  half?: number;
}

/** A surface: which points, which lines, how contoured. */
export interface SurfaceRequest {
  name: string;
  roles?: string[];
  codes?: string[];
  exclude?: string[];
  lines?: ({ name: string; points: string[]; role: string; vertices: number[][] })[];
  maxEdge?: number | null;
  interval?: number;
  pattern?: string;
  areas?: number[][][];
  include?: string[];
  index?: number;
  smooth?: boolean;
  crossing?: string;
  design?: { faces?: number[]; file: number; layers?: string[]; unit?: string } | null;
  drawn?: ({ file: number; layers?: string[]; role?: string; unit?: string })[];
  cloud?: { classes?: number[]; file: number; spacing?: number | null } | null;
}

/** A surface and what it is compared with. Metres. */
export interface VolumeRequest {
  name: string;
  surface: number;
  against: string;
  number?: number | null;
  other?: number;
  elevation?: number;
  boundary?: number[][];
  slice?: number;
}

/** An alignment of a file; its length in metres. */
export interface AlignmentView {
  file: number;
  fileName: string;
  name: string;
  length: number;
}

/** What a surface takes of a point cloud. */
export interface CloudTakenView {
  file: number;
  classes: number[];
  spacing: number | null;
}

/** What a volume means in one material; cubic metres and tonnes. Positive is carried away, negative is brought in. */
export interface HaulView {
  material: string;
  isNative: boolean;
  looseCut: number;
  makes: number;
  bankForFill: number;
  looseOver: number;
  massOver: number;
  loads: number;
}

/** A line that shapes a surface: by point names in order, or by drawn vertices. */
export interface LineView {
  role: string;
  name: string;
  points: string[];
  vertices: number[][];
}

/** A material; density in tonnes a cubic metre in the bank. */
export interface MaterialView {
  name: string;
  isNative: boolean;
  swell: number;
  shrink: number;
  density: number;
}

/** A section as it was cut; its drawing lies apart. Metres. */
export interface SectionView {
  number: number;
  name: string;
  surfaces: number[];
  line: number[][];
  file: number;
  alignment: string;
  offset: number;
  every: number;
  half: number;
  length: number;
  start: number;
  low: number | null;
  high: number | null;
  points: number;
  crosses: number;
  output: string;
  run: number;
  at: string;
  author: string;
  stale: string[];
}

/** Cut and fill between two depths or two elevations; metres and cubic metres. */
export interface SliceView {
  from: number;
  to: number;
  cut: number;
  fill: number;
}

/** A surface as it would be. */
export interface SurfacePreviewView {
  points: number;
  triangles: number;
  mesh: string | null;
  contours: ({ h: number; length: number; lines: number[][] })[];
  warnings: string[];
  refusal: string | null;
}

/** A surface and its newest result; version is the ledger entry that last changed its definition. */
export interface SurfaceView {
  id: number;
  version: number;
  name: string;
  roles: string[];
  codes: string[];
  exclude: string[];
  lines: LineView[];
  maxEdge: number | null;
  interval: number;
  pattern: string;
  areas: number[][][];
  include: string[];
  index: number;
  smooth: boolean;
  crossing: string;
  design: TakenView | null;
  drawn: TakenView[];
  cloud: CloudTakenView | null;
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
  createdAt: string | null;
  author: string | null;
}

/** What a surface takes of a drawing. */
export interface TakenView {
  file: number;
  layers: string[];
  faces: number[];
  unit: string;
  role: string;
}

/** The terrain stage. */
export interface TerrainView {
  surfaces: SurfaceView[];
  codes: Record<string, number>;
  volumes: VolumeView[];
  materials: MaterialView[];
  capacity: number;
  sections: SectionView[];
  alignments: AlignmentView[];
  designs: DesignFileView[];
  clouds: CloudFileView[];
}

/** What lies between a surface and what it is compared with; metres, square and cubic metres. */
export interface VolumeView {
  number: number;
  name: string;
  of: string;
  comparedTo: string;
  surface: number;
  against: string;
  other: number;
  elevation: number;
  boundary: number[][];
  slice: number;
  cut: number;
  fill: number;
  net: number;
  areaCut: number;
  areaFill: number;
  planArea: number;
  thickest: number;
  deepest: number;
  depths: SliceView[];
  elevations: SliceView[];
  haul: HaulView[];
  isopach: string | null;
  contours: string | null;
  run: number;
  at: string;
  author: string;
  stale: string[];
}

/** What a copy of a project is called. */
export interface CopyRequest {
  called: string;
}

/** A project that is being made of an archive, and the job that fills it. */
export interface BroughtProject {
  project: number;
  name: string;
  job: string;
}

/** An archive of the project that was written. */
export interface WrittenArchive {
  job: string;
  at: string;
  bytes: number;
  fingerprint: string;
  files: number;
  author: string;
}
