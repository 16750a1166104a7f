import type { CandidateView, FitView, GridFileView, MovePreview, ReferenceView, SystemDetail } from '../src/api/types';

export function way(name: string, over: Partial<CandidateView> = {}): CandidateView {
  return { name, accuracy: 1, area: 'Europe', bounds: null, covers: true, usable: true, missing: [], steps: [], epoch: null, ...over };
}

export function detail(reference: string, name: string, over: Partial<SystemDetail> = {}): SystemDetail {
  return {
    reference,
    name,
    kind: 'projected',
    datum: 'ETRS89',
    ellipsoid: 'GRS 1980',
    geodetic: 'ETRS89',
    geodeticReference: 'EPSG:4258',
    method: 'Transverse Mercator',
    parameters: [{ name: 'False easting', value: '500000 m' }],
    unit: 'metre',
    metresPerUnit: 1,
    axes: ['E east', 'N north'],
    area: 'Europe',
    bounds: [34, -6, 80, 0],
    coversPoints: true,
    deprecated: false,
    successor: null,
    candidates: [way('one'), way('two')],
    gnss: '1 m from WGS 84',
    wkt: 'PROJCRS["x"]',
    proj: '+proj=utm',
    ...over,
  };
}

export const egm: GridFileView = {
  reference: 'installed:egm96_15.gtx',
  id: null,
  name: 'egm96_15.gtx',
  kind: 'geoid',
  origin: 'installed',
  size: 4153000,
  bounds: [-90, -180, 90, 180],
  step: 0.25,
  ellipsoid: 'WGS 84',
  coversPoints: true,
  notes: [],
};

export function reference(over: Partial<ReferenceView> = {}): ReferenceView {
  return {
    system: detail('EPSG:25830', 'ETRS89 / UTM zone 30N'),
    heights: 'ellipsoidal',
    geoid: '',
    points: 2,
    localPoints: 0,
    extent: [54.39, -3.12, 54.41, -3.08],
    meanHeight: 231.4,
    customs: [],
    grids: [egm],
    localizations: [],
    methods: [
      {
        code: 9807,
        name: 'Transverse Mercator',
        parameters: [
          { code: 8801, name: 'Latitude of natural origin', kind: 'angle' },
          { code: 8802, name: 'Longitude of natural origin', kind: 'angle' },
          { code: 8805, name: 'Scale factor at natural origin', kind: 'scale' },
          { code: 8806, name: 'False easting', kind: 'length' },
        ],
      },
    ],
    registry: 'v10.076',
    ...over,
  };
}

export function moves(over: Partial<MovePreview> = {}): MovePreview {
  return {
    operation: 'one',
    accuracy: 1,
    rows: [
      { name: 'A', e: 493612.345, n: 6028050.5, h: 221.25, newE: 882909.057, newN: 6044104.547, newH: 221.25, known: 'global' },
      { name: 'L', e: 10, n: 20, h: 1, newE: 10, newN: 20, newH: 1, known: 'local' },
    ],
    moved: 1,
    localOnly: 1,
    candidates: [way('one')],
    warnings: [],
    problem: '',
    ...over,
  };
}

export function fitted(names: string[], over: Partial<FitView> = {}): FitView {
  return {
    values: { shiftE: 492358.75, shiftN: 6023243.39, rotation: 21.43, scale: 0.9995, centreE: 1, centreN: 2, a: 150, b: 2e-5, c: -1e-5 },
    sd: { shiftE: 0.006, shiftN: 0.006, rotation: 0.0015, scale: null, a: 0.002, b: null, c: null },
    rows: names.map((name, i) => ({
      name,
      e: 0.001 * i,
      n: -0.002,
      h: 0.003,
      horizontal: 0.0022,
      standardized: 0.5,
      standardizedH: 0.3,
      withoutE: 0.003,
      withoutN: 0.004,
      withoutH: null,
      gridE: 493000 + i,
      gridN: 6028000,
    })),
    sigma: 0.0172,
    sigmaH: 0.0029,
    redundancy: 4,
    redundancyH: 2,
    suspect: null,
    hull: [
      [0, 0],
      [10, 0],
      [5, 8],
    ],
    outside: [],
    ...over,
  };
}
