/** Instants of GPS time (seconds since 1980-01-06) as clocks show them. */
const GPS_BEGAN = Date.UTC(1980, 0, 6);

/** "gps", "utc", or the name of a time zone. */
export type Zone = string;

export function localZone(): Zone {
  return Intl.DateTimeFormat().resolvedOptions().timeZone || 'utc';
}

function instant(seconds: number, zone: Zone, leap: number): Date {
  return new Date(GPS_BEGAN + 1000 * (zone === 'gps' ? seconds : seconds - leap));
}

const formats = new Map<string, Intl.DateTimeFormat>();
function shown(date: Date, zone: Zone, options: Intl.DateTimeFormatOptions): string {
  const key = zone + JSON.stringify(options);
  let format = formats.get(key);
  if (!format) {
    format = new Intl.DateTimeFormat('en-GB', { ...options, timeZone: zone === 'gps' || zone === 'utc' ? 'UTC' : zone });
    formats.set(key, format);
  }
  return format.format(date);
}

/** As 12:45, with seconds where they matter. */
export function clock(seconds: number, zone: Zone, leap: number, withSeconds = false): string {
  const options: Intl.DateTimeFormatOptions = { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' };
  // GPS time runs seconds ahead: a minute that begins there is not the one before here.
  const rounded = withSeconds ? 0 : 30;
  return shown(instant(seconds + rounded, zone, leap), zone, withSeconds ? { ...options, second: '2-digit' } : options);
}

export function day(seconds: number, zone: Zone, leap: number): string {
  return shown(instant(seconds, zone, leap), zone, { day: 'numeric', month: 'long', year: 'numeric' });
}

/** How far a zone is ahead of UTC then, as UTC+1; daylight saving is in it. */
export function ahead(seconds: number, zone: Zone, leap: number): string {
  if (zone === 'gps') return `UTC + ${leap} s`;
  if (zone === 'utc') return 'UTC';
  const parts = new Intl.DateTimeFormat('en-GB', { timeZone: zone, timeZoneName: 'shortOffset' }).formatToParts(
    instant(seconds, zone, leap),
  );
  return (parts.find((p) => p.type === 'timeZoneName')?.value ?? '').replace('GMT', 'UTC');
}

/** All three clocks, for a hint. */
export function clocks(seconds: number, zone: Zone, leap: number): string {
  const local = zone === 'gps' || zone === 'utc' ? localZone() : zone;
  return (
    `${clock(seconds, local, leap, true)} ${local} (${ahead(seconds, local, leap)}) · ` +
    `${clock(seconds, 'utc', leap, true)} UTC · ${clock(seconds, 'gps', leap, true)} GPS`
  );
}

/** Instants that are round on the clock shown, at most so many. */
export function ticks(from: number, to: number, most: number, zone: Zone, leap: number): number[] {
  const step = [300, 600, 900, 1800, 3600, 7200, 14400, 21600, 43200].find((s) => (to - from) / s <= most) ?? 86400;
  const shift = zone === 'gps' ? 0 : leap;
  const list: number[] = [];
  for (let t = Math.ceil((from - shift) / step) * step + shift; t <= to; t += step) list.push(t);
  return list;
}

export function minutes(seconds: number): string {
  const all = Math.round(seconds / 60);
  return all < 60 ? `${all} min` : `${Math.floor(all / 60)} h ${String(all % 60).padStart(2, '0')}`;
}

/** A window rounded outward to whole hours of UTC, as services hand files out. */
export function hours(from: number, to: number, leap: number): [number, number] {
  return [Math.floor((from - leap) / 3600) * 3600 + leap, Math.ceil((to - leap) / 3600) * 3600 + leap];
}

/** A whole hour of UTC as services take it: 2031-05-04T09:00:00Z. */
export function isoHour(seconds: number, leap: number): string {
  return new Date(GPS_BEGAN + 1000 * Math.round(seconds - leap)).toISOString().replace('.000Z', 'Z');
}
