import type { LineView, PointView } from '../../api/types';

/** What the form knows of a surface's lines: breaklines along codes, and everything else as it is. */
export interface FormLines {
  /** Codes whose points, in the order they were surveyed, make a breakline. */
  codes: string[];
  closed: boolean;
  /** Lines that follow no code: by names, voids. Kept as they are unless they are taken out. */
  others: LineView[];
  boundary: [number, number][] | null;
}

export function readLines(lines: LineView[], known: string[]): FormLines {
  const codes: string[] = [];
  const others: LineView[] = [];
  let boundary: [number, number][] | null = null;
  let closed = true;
  for (const line of lines) {
    const code = line.role === 'breakline' ? known.find((c) => c !== '' && c.toLowerCase() === line.name.toLowerCase()) : undefined;
    if (code !== undefined) {
      codes.push(code);
      closed = line.points.length > 2 && line.points[0] === line.points[line.points.length - 1];
    } else if (line.role === 'boundary' && line.vertices.length > 0 && boundary === null) {
      boundary = line.vertices as [number, number][];
    } else {
      others.push(line);
    }
  }
  return { codes, closed, others, boundary };
}

export function codeLine(code: string, closed: boolean, points: PointView[]): LineView {
  const names = points.filter((p) => p.code === code && p.h !== null).map((p) => p.name);
  return { role: 'breakline', name: code.toLowerCase(), points: closed && names.length > 2 ? [...names, names[0]!] : names, vertices: [] };
}
