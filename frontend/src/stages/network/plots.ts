import type { RowView, StationView } from '../../api/types';
import { atName, rowKey } from './columns';

export type Against = 'normal' | 'length' | 'zenith' | 'time';

export interface PlotDot {
  x: number;
  y: number;
  key: string;
  text: string;
}

/** Quantile of the standard normal distribution; Acklam's rational approximation, good to 1e-9 relative. */
export function normalQuantile(p: number): number {
  const a = [-3.969683028665376e1, 2.209460984245205e2, -2.759285104469687e2, 1.38357751867269e2, -3.066479806614716e1, 2.506628277459239];
  const b = [-5.447609879822406e1, 1.615858368580409e2, -1.556989798598866e2, 6.680131188771972e1, -1.328068155288572e1];
  const c = [-7.784894002430293e-3, -3.223964580411365e-1, -2.400758277161838, -2.549732539343734, 4.374664141464968, 2.938163982698783];
  const d = [7.784695709041462e-3, 3.224671290700398e-1, 2.445134137142996, 3.754408661907416];
  const poly = (k: number[], x: number) => k.reduce((sum, v) => sum * x + v, 0);
  if (p < 0.02425) {
    const q = Math.sqrt(-2 * Math.log(p));
    return poly(c, q) / (poly(d, q) * q + 1);
  }
  if (p > 1 - 0.02425) return -normalQuantile(1 - p);
  const q = p - 0.5;
  const r = q * q;
  return (poly(a, r) * q) / (poly(b, r) * r + 1);
}

/** Standardized residuals of what is used, against what could be behind them. */
export function dots(rows: RowView[], stations: StationView[], against: Against, kind: string): PlotDot[] {
  const used = rows.filter((r) => r.used && r.standardized !== null && (kind === '' || r.kind === kind));
  const dot = (r: RowView, x: number): PlotDot => ({
    x,
    y: r.standardized!,
    key: rowKey(r),
    text: `${r.kind}${r.component ? ` ${r.component}` : ''} ${atName(r)} → ${r.to}: ${r.standardized!.toFixed(1)}`,
  });
  if (against === 'normal') {
    const sorted = [...used].sort((p, q) => p.standardized! - q.standardized!);
    // Blom's plotting positions.
    return sorted.map((r, i) => dot(r, normalQuantile((i + 1 - 0.375) / (sorted.length + 0.25))));
  }
  if (against === 'time') return used.filter((r) => r.observedAt).map((r) => dot(r, Date.parse(r.observedAt!)));
  if (against === 'length') {
    const place = new Map(stations.map((s) => [s.name, s]));
    return used.flatMap((r) => {
      const from = place.get(r.at);
      const to = place.get(r.to);
      return from && to ? [dot(r, Math.hypot(from.e - to.e, from.n - to.n))] : [];
    });
  }
  const zenith = new Map(rows.filter((r) => r.kind === 'zenith' && r.line !== null).map((r) => [`${r.fileId} ${r.line}`, r.observed]));
  return used.flatMap((r) => {
    const z = r.kind === 'zenith' ? r.observed : r.line === null ? undefined : zenith.get(`${r.fileId} ${r.line}`);
    return z === undefined ? [] : [dot(r, z)];
  });
}
