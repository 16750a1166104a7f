import { computed, ref, shallowRef } from 'vue';
import { post } from '../../api/client';
import type { FixesRequest, FixView, ShotsRequest } from '../../api/types';
import { useProject } from '../../state/project';

/** A shot that was taken: the mean of what was measured at one place. */
export interface Shot {
  e: number;
  n: number;
  h: number;
  count: number;
  sd: number;
  code: string;
  note: string;
  above: number | null;
}

/** Positions that are averaged to a shot. */
export const POSITIONS = 10;
const WALK_MS = 250;
const SHOT_MS = 120;

/** The simulated rover of one package: where it stands, what it measures there, and the shots that were taken. */
export function useRover(result: number, start: [number, number]) {
  const project = useProject();
  const place = ref<[number, number]>(start);
  const heading = ref(0);
  const surface = ref(-1);
  const point = ref('');
  const line = ref('');
  const fix = shallowRef<FixView | null>(null);
  const shots = ref<Shot[]>([]);
  const counting = ref(0);
  const isWalking = ref(false);
  let asked = false;
  let again = false;
  let timer = 0;

  const body = (places: number[][]): FixesRequest => ({ places, surface: surface.value, point: point.value, line: line.value });
  const ask = (places: number[][]) => post<FixView[]>(project.path(`/handover/${result}/held/fixes`), body(places));

  /** Only the newest place counts: while one is asked for, the next waits. */
  async function measure() {
    if (asked) {
      again = true;
      return;
    }
    asked = true;
    try {
      [fix.value] = (await ask([[...place.value, heading.value]])) as [FixView];
    } catch (e) {
      project.say('bad', String(e instanceof Error ? e.message : e));
    } finally {
      asked = false;
    }
    if (again) {
      again = false;
      await measure();
    }
  }

  function go(e: number, n: number, towards: number) {
    [place.value, heading.value] = [[e, n], towards];
    void measure();
  }
  /** A step east and north. */
  function step(de: number, dn: number) {
    if (counting.value > 0) return;
    stop();
    go(place.value[0] + de, place.value[1] + dn, ((Math.atan2(de, dn) * 180) / Math.PI + 360) % 360);
  }

  function walkAlong(path: [number, number, number][]) {
    stop();
    isWalking.value = true;
    let i = 0;
    timer = window.setInterval(() => {
      const next = path[i];
      i += 1;
      if (!next) stop();
      else go(...next);
    }, WALK_MS);
  }
  function stop() {
    window.clearInterval(timer);
    isWalking.value = false;
  }

  /** Stands still, measures as often as is averaged, and keeps the mean. */
  async function shoot(code: string) {
    if (counting.value > 0) return;
    stop();
    counting.value = 1;
    try {
      const here = [...place.value, heading.value];
      const fixes = await ask(Array.from({ length: POSITIONS }, () => here));
      for (const f of fixes) {
        fix.value = f;
        await new Promise((r) => window.setTimeout(r, SHOT_MS));
        counting.value += 1;
      }
      const mean = (of: (f: FixView) => number) => fixes.reduce((sum, f) => sum + of(f), 0) / fixes.length;
      const [e, n, h] = [mean((f) => f.e), mean((f) => f.n), mean((f) => f.h)];
      const above = fixes.every((f) => f.design !== null) ? h - mean((f) => f.design!) : null;
      const sd = mean((f) => f.sd) / Math.sqrt(fixes.length);
      shots.value = [...shots.value, { e, n, h, sd, count: fixes.length, code, note: point.value, above }];
    } catch (e) {
      project.say('bad', String(e instanceof Error ? e.message : e));
    } finally {
      counting.value = 0;
    }
  }

  /** Brings the shots into the project, as a file of Intake. */
  async function bring(prefix: string): Promise<boolean> {
    const plain = shots.value.map(({ e, n, h, count, sd, code, note }) => ({ e, n, h, count, sd, code, note }));
    const request: ShotsRequest = { shots: plain, prefix };
    const ok = await project.attempt(
      () => post(project.path(`/handover/${result}/held/shots`), request),
      `${plain.length} ${plain.length === 1 ? 'shot is' : 'shots are'} in the project, as a file of Intake; Checks holds them against the design.`,
    );
    if (ok) shots.value = [];
    return ok;
  }

  const quality = computed(() => (fix.value ? `fixed ${Math.round(1000 * fix.value.sd)} mm` : 'no fix yet'));
  return {
    place,
    heading,
    surface,
    point,
    line,
    fix,
    shots,
    counting,
    isWalking,
    quality,
    measure,
    step,
    go,
    walkAlong,
    stop,
    shoot,
    bring,
  };
}
