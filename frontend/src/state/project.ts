import { defineStore } from 'pinia';
import { markRaw } from 'vue';
import { get, news, post, Problem, put } from '../api/client';
import { conflictOf, type Conflict } from '../api/conflict';
import type { JobView, Overview, PointView, PointsView, UnitsRequest, UnitsView } from '../api/types';

/** The answer of something that takes too long for the page to wait at the server. */
export function isJob(answer: unknown): answer is { job: string } {
  return typeof answer === 'object' && answer !== null && typeof (answer as { job?: unknown }).job === 'string';
}

/** Points as they were, and what changed of them; oldest first. */
function merged(points: PointView[], changes: PointsView): PointView[] {
  if (changes.points.length === 0 && changes.gone.length === 0) return points;
  const changed = new Map(changes.points.map((p) => [p.id, p]));
  const gone = new Set(changes.gone);
  const kept: PointView[] = [];
  for (const p of points) {
    const now = changed.get(p.id);
    changed.delete(p.id);
    if (!gone.has(p.id)) kept.push(now ?? p);
  }
  return changed.size === 0 ? kept : [...kept, ...changed.values()].sort((a, b) => a.id - b.id);
}

const POLL_BUSY = 400;
const POLL_CALM = 8000;

/** What was done or went wrong. */
export interface Note {
  tone: 'good' | 'bad' | 'doubt';
  text: string;
}

/** A job that ended without its result; the page it belongs to may show it in place. */
export class JobFailed extends Problem {
  constructor(readonly job: JobView) {
    super(422, `${job.title} failed.`, job.error ?? '');
  }
}

/** The open project: its overview, points, jobs, and what is selected on both pages. */
export const useProject = defineStore('project', {
  state: () => ({
    id: 0,
    overview: null as Overview | null,
    points: [] as PointView[],
    note: null as Note | null,
    panel: null as null | 'ledger' | 'search' | 'units' | 'keys' | 'jobs' | 'people' | 'archive',
    full: null as null | 'figures' | 'sketch',
    figuresShare: Number(localStorage.getItem('figuresShare') ?? 52),
    slipOpen: true,
    /** Counts changes of the project's data, so that stages know when to load again. */
    version: 0,
    /** The ledger's entry whose points are loaded. */
    pointsSeq: null as number | null,
    /** The revision whose data is loaded. */
    seen: -1,
    dropped: [] as File[],
    timer: 0 as number,
    noteTimer: 0 as number,
  }),
  getters: {
    units: (s): UnitsView => s.overview?.units ?? { length: 'm', angle: 'dms', decimals: 3, heights: 3, angles: 1, small: 1, areas: 1 },
    mayChange: (s): boolean => s.overview?.mayChange ?? false,
    busyJobs: (s): JobView[] => (s.overview?.jobs ?? []).filter((j) => j.state === 'queued' || j.state === 'running'),
  },
  actions: {
    path(rest: string) {
      return `/api/projects/${this.id}${rest}`;
    },
    async open(id: number) {
      if (this.id !== id) {
        this.$reset();
        this.id = id;
      }
      await this.refresh();
      this.schedule();
    },
    close() {
      window.clearTimeout(this.timer);
      this.id = 0;
      this.overview = null;
    },
    schedule() {
      window.clearTimeout(this.timer);
      if (this.id === 0) return;
      this.timer = window.setTimeout(
        async () => {
          await this.refresh(this.busyJobs.length > 0, true).catch(() => undefined);
          this.schedule();
        },
        this.busyJobs.length > 0 ? POLL_BUSY : POLL_CALM,
      );
    },
    /** A quiet refresh, while a job runs, shows its progress and leaves loading the data to its end. */
    async refresh(quiet = false, byItself = false) {
      const overview = await (byItself ? news : get)<Overview>(this.path(''));
      this.overview = overview;
      if (!quiet && this.seen !== overview.revision) {
        this.seen = overview.revision;
        await this.loadPoints();
        this.version += 1;
      }
    },
    /** All points once, then what changed. */
    async loadPoints() {
      const { id, pointsSeq } = this;
      const answer = await get<PointsView>(this.path(pointsSeq === null ? '/points' : `/points?since=${pointsSeq}`));
      // Two may be under way: what comes late and knows less is not taken.
      if (this.id !== id || answer.seq < (this.pointsSeq ?? 0)) return;
      this.points = markRaw(answer.whole ? answer.points : merged(this.points, answer));
      this.pointsSeq = answer.seq;
    },
    say(tone: Note['tone'], text: string) {
      window.clearTimeout(this.noteTimer);
      this.note = { tone, text };
      if (tone === 'good') this.noteTimer = window.setTimeout(() => (this.note = null), 8000);
    },
    /** Does something and says what went wrong, in place; true when it went well. */
    async attempt(
      action: () => Promise<unknown>,
      done = '',
      onConflict?: (theirs: Conflict) => void,
      onFailed?: (job: JobView) => void,
    ): Promise<boolean> {
      try {
        this.note = null;
        const answer = await action();
        // What takes long is answered with a job; it is waited for in the same way.
        if (isJob(answer)) await this.job(Promise.resolve(answer));
        await this.refresh();
        if (done !== '') this.say('good', done);
        return true;
      } catch (e) {
        const conflict = conflictOf(e);
        if (conflict && onConflict) {
          onConflict(conflict);
          return false;
        }
        if (e instanceof JobFailed && onFailed) {
          onFailed(e.job);
          return false;
        }
        this.say('bad', e instanceof Problem ? e.message : `This failed in the page itself: ${String(e)}`);
        return false;
      }
    },
    /** Starts a job and waits for its end; the page stays usable meanwhile. */
    async job(start: Promise<{ job: string }>): Promise<JobView> {
      const { job } = await start;
      await this.refresh(true);
      this.schedule();
      for (;;) {
        const view = await get<JobView>(this.path(`/jobs/${job}`));
        if (view.state !== 'queued' && view.state !== 'running') {
          await this.refresh();
          if (view.state === 'failed') throw new JobFailed(view);
          if (view.state === 'cancelled') throw new Problem(409, `${view.title} was cancelled.`, '');
          return view;
        }
        await new Promise((r) => setTimeout(r, 150));
      }
    },
    async recompute() {
      await this.attempt(() => this.job(post(this.path('/recompute'))), 'Everything is fresh again.');
    },
    async undo() {
      const seq = this.overview?.undo;
      if (seq) await this.attempt(() => post(this.path(`/ledger/${seq}/undo`)), `Undid entry ${seq}.`);
    },
    async redo() {
      const seq = this.overview?.redo;
      if (seq) await this.attempt(() => post(this.path(`/ledger/${seq}/undo`)), 'Did it again.');
    },
    async setUnits(units: UnitsView) {
      await this.attempt(() => put(this.path('/units'), units satisfies UnitsRequest));
    },
    share(percent: number) {
      this.figuresShare = Math.min(80, Math.max(25, percent));
      localStorage.setItem('figuresShare', String(this.figuresShare));
    },
  },
});
