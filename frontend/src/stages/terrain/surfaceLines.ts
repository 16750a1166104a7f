import type { LineView, PointView } from '../../api/types';

/** What the form knows of a surface's lines: breaklines along codes, and everything else as it is. */
export interface FormLines {
  /** Codes whose points, in the order they were surveyed, make a breakline. */
  codes: string[];
  closed: boolean;
  /** Lines that follow no code: picked, drawn, by names. */
  others: LineView[];
}

export function readLines(lines: LineView[], known: string[]): FormLines {
  const codes: string[] = [];
  const others: LineView[] = [];
  let closed = true;
  for (const line of lines) {
    const code = line.role === 'breakline' ? known.find((c) => c !== '' && c.toLowerCase() === line.name.toLowerCase()) : undefined;
    if (code !== undefined) {
      codes.push(code);
      closed = line.points.length > 2 && line.points[0] === line.points[line.points.length - 1];
    } else {
      others.push(line);
    }
  }
  return { codes, closed, others };
}

export function codeLine(code: string, closed: boolean, points: PointView[]): LineView {
  const names = points.filter((p) => p.code === code && p.h !== null).map((p) => p.name);
  return { role: 'breakline', name: code.toLowerCase(), points: closed && names.length > 2 ? [...names, names[0]!] : names, vertices: [] };
}
