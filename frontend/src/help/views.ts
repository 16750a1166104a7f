export interface ViewHelp {
  title: string;
  lines: string[];
  /** Page of the documentation, and the heading in it. */
  doc: [page: string, heading: string];
}

/** What each view is for, in five lines. */
export const VIEWS: Record<string, ViewHelp> = {
  intake: {
    title: 'Intake',
    lines: [
      'Drop field files, a folder or a zip anywhere: each is read and shown before it joins the project.',
      'What a column means is told from its heading and its values; what stays open is asked once per file.',
      'Lines that cannot be used are listed with their number and reason; nothing is left out unless you say so.',
      'A mapping you corrected is remembered for the next file with the same headings.',
      'Accepting is one entry of the ledger and can be undone; the file as received is kept.',
    ],
    doc: ['formats', 'read'],
  },
  reference: {
    title: 'Reference',
    lines: [
      'Says in which coordinate system and above what the project stands, with accuracy and area of use.',
      'A system is found by code, by words such as utm 30, or by what covers the points here.',
      'Before the system changes you see where every point goes, and by which transformation.',
      'Heights, geoid extracts, own systems and localizations to a site grid have a page each.',
      'Inverse gives every distance and azimuth between two points with where each figure comes from.',
    ],
    doc: ['numerics', 'projections'],
  },
  baselines: {
    title: 'Baselines',
    lines: [
      'Occupations come from RINEX files; baselines between receivers that recorded together are proposed, independent ones marked.',
      'Processing gives fixed, float or code only, worst first; a session whose receiver moved is never called fixed.',
      'One action solves a session epoch by epoch: e; drag over a plot to choose what to keep, t trims there and processes again.',
      'Loops and repeated baselines are found by themselves; accepted vectors go into the network with their covariance.',
      'A wrong base, rover features, reference stations and receivers without an exchange format have a page each.',
    ],
    doc: ['numerics', 'baselines'],
  },
  network: {
    title: 'Network',
    lines: [
      'Adjusts directions, zenith angles, distances, levels and vectors; the verdict on top says what does not fit its weights, and where.',
      'The table is worst first; x sets an observation aside and shows at once what that changed.',
      'Screening proposes what to set aside; suspects rank what went wrong in the field, and a correction stands beside what the file says.',
      'Setups holds the total-station book, single set-ups placed by themselves, and traverses; Plan shows a network before it is measured.',
      'Accepting makes the adjusted values the coordinates of the project; until then nothing moves.',
    ],
    doc: ['numerics', 'network-adjustment'],
  },
  terrain: {
    title: 'Terrain',
    lines: [
      'Makes surfaces of points chosen by name, code, role, box or lasso, and shows at once how they would be; a click takes a point in or out.',
      'Contours follow the triangles, or a surface bent smoothly through them, and never cross.',
      'Volumes against an elevation, another surface or the own edge are exact on the triangles; what lies between is a surface of its own.',
      'Sections run along a line or an alignment; designs are taken apart: picked faces become a surface, edges and corners points.',
      'A surface whose points changed is stale until it is computed again; the reason stands beside it.',
    ],
    doc: ['numerics', 'surfaces'],
  },
  clouds: {
    title: 'Clouds',
    lines: [
      'A cloud is made of clouds that came in, or of ones made here: cropped, thinned, noise and ground found, classes chosen.',
      'What it is made of stays as it is; a cloud changed anew makes what rests on it stale.',
      'In space a drag turns it and the wheel comes closer; coloured by height, class, intensity or its own colours.',
      'Click a point to read it, a second one to measure; cut along a line drawn on the map to see it from the side.',
      'Flights and rover images: adjust, mark control or pick a place, which the others are searched for; then dense points.',
    ],
    doc: ['numerics', 'point-clouds'],
  },
  checks: {
    title: 'Checks',
    lines: [
      'Measured points, a surface or a point cloud are held against a design, a surface, a cloud, a plane or an elevation.',
      'Compare along the normal on anything that slopes; the page says when the difference matters.',
      'The limits of the bands are typed; the band that holds zero is the tolerance and carries no colour.',
      'What was left out stands on a page of its own, with the reason; worst places lead to the map.',
      'Check points take part in nothing: they say how accurate what was computed is, at 95 %.',
    ],
    doc: ['numerics', 'deviations'],
  },
  handover: {
    title: 'Hand-over',
    lines: [
      'Files, drawings, packages, sheets, GIS sets and catalogues have a page each; every one is read back before it is offered.',
      'A package is opened on a simulated controller: o; arrow keys lead the rover, shots come back through Intake.',
      'A sheet lays views out true to scale; the preview is the PDF itself, and a locked view stays until it is asked to look again.',
      'What was left out is said with count and reason; a file whose inputs changed is stale, the old one stays in the archive.',
      'Everyone may remark on a result and mark it checked; a check stands in report and package and falls away with what it was of.',
    ],
    doc: ['formats', 'written'],
  },
};
