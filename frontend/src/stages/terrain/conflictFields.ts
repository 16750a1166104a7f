import type { ConflictField } from '../../api/conflict';
import type { LineView, UnitsView } from '../../api/types';
import { length } from '../../format/units';

const list = (v: unknown) => (Array.isArray(v) ? v.join(', ') : '');
/** A surface's definition, field by field, for two who changed it at once. */
export const surfaceFields = (units: UnitsView): ConflictField[] => [
  { key: 'name', label: 'name', text: (v) => String(v) },
  { key: 'roles', label: 'points', text: list },
  { key: 'codes', label: 'codes', text: (v) => list(v) || 'all' },
  { key: 'pattern', label: 'names like', text: (v) => String(v ?? '') || 'all' },
  { key: 'areas', label: 'areas', text: (v) => String(((v as unknown[]) ?? []).length || 'none') },
  { key: 'include', label: 'also', text: list },
  { key: 'exclude', label: 'without', text: list },
  {
    key: 'lines',
    label: 'lines',
    text: (v) => (v as LineView[]).map((l) => `${l.name || l.role} (${l.points.length + l.vertices.length})`).join(', '),
  },
  { key: 'maxEdge', label: 'longest edge', text: (v) => (typeof v === 'number' ? length(v, units) : 'any') },
  { key: 'crossing', label: 'crossing lines', text: (v) => (v === 'mean' ? 'take the mean' : 'refuse') },
  { key: 'smooth', label: 'smooth contours', text: (v) => (v ? 'yes' : 'no') },
  { key: 'interval', label: 'contours every', text: (v) => length(v as number, units) },
];
