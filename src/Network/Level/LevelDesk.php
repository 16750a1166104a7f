<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Network\View\LevelBookView;
use App\Network\View\LevelDraftView;
use App\Network\View\LevelRunView;
use App\Network\View\LevelSettingsView;
use App\Project\Project;
use App\Survey\Point;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;
use Mensura\Levelling\LevelBook;
use Mensura\Levelling\LevelledBook;
use Mensura\Levelling\LevelledPoint;
use Mensura\Levelling\LevelSettings;
use Mensura\Levelling\Loop;
use Mensura\Levelling\Pattern;
use Mensura\Levelling\Run;
use Mensura\Levelling\RunningBook;
use Mensura\Levelling\RunningRow;
use Mensura\Levelling\Section;
use Mensura\Levelling\Sight;

/**
 * Works out the levelling book of a project from what it keeps.
 *
 * @phpstan-import-type Row from LevelRun
 */
final readonly class LevelDesk
{
    public function __construct(
        private LevelRunRepository $runs,
        private LevelBookSettingsRepository $settings,
        private PointRepository $points,
    ) {
    }

    public function view(Project $project): LevelBookView
    {
        $book = $this->settings->of($project);
        $runs = $this->runs->all($project);
        $fault = null;
        $worked = null;
        try {
            $worked = [] === $runs ? null : $this->work($project);
        } catch (UnusableInput $e) {
            $fault = $e->reason;
        }
        [$perKm, $perSetup] = null === $worked ? [null, null] : self::spread($worked);

        return new LevelBookView(
            self::settingsView($book), (string) $book->version(), $book->benchmarks, $this->known($project),
            array_map(
                static fn (LevelRun $r): LevelRunView => new LevelRunView($r->id(), $r->version(), $r->name, $r->pattern, $r->rows),
                $runs,
            ),
            $fault, array_map(static fn (Section $s): array => $s->toArray(), $worked->sections ?? []),
            array_map(static fn (LevelledPoint $p): array => $p->toArray(), $worked->points ?? []),
            array_map(static fn (Loop $l): array => $l->toArray(), $worked->loops ?? []), $worked->network ?? [], $worked->warnings ?? [],
            $perKm, $perSetup,
        );
    }

    /** @throws UnusableInput naming the run and what is wrong with it */
    public function work(Project $project): LevelledBook
    {
        $runs = [];
        foreach ($this->runs->all($project) as $run) {
            $sights = [];
            foreach ($run->rows as $i => $row) {
                if (null === $row['reading'] || '' === trim($row['point'])) {
                    throw new UnusableInput(
                        '',
                        \sprintf('run %s: row %d has no %s yet', $run->name, $i + 1, null === $row['reading'] ? 'reading' : 'point'),
                    );
                }
                $sights[] = new Sight(self::kind($row['kind']), trim($row['point']), $row['reading'], $row['distance']);
            }
            if ([] !== $sights) {
                $runs[] = new Run($run->name, Pattern::from($run->pattern), $sights);
            }
        }
        $benchmarks = [];
        foreach ($this->benchmarks($project) as $id => $h) {
            $benchmarks[] = [substr($id, 1), $h];
        }

        // A line that leaves another on its way has a height there; in a book of one's own that is how they are levelled.
        return LevelBook::work($this->core($project), $benchmarks, $runs, true);
    }

    /** @param list<Row> $rows */
    public function draft(Project $project, string $pattern, array $rows): LevelDraftView
    {
        $settings = $this->core($project);
        $running = RunningBook::of(Pattern::from($pattern), $rows, $this->benchmarks($project) + $this->levelled($project), $settings);
        $backs = $fores = 0.0;
        $length = 0.0;
        foreach ($rows as $row) {
            if (Sight::INTERMEDIATE === $row['kind'] || null === $row['reading']) {
                continue;
            }
            $backs += Sight::BACK === $row['kind'] ? $row['reading'] : 0.0;
            $fores += Sight::FORE === $row['kind'] ? $row['reading'] : 0.0;
            $length = null === $row['distance'] || null === $length ? null : $length + $row['distance'] / ('BF' === $pattern ? 1.0 : 2.0);
        }
        $last = end($running);

        return new LevelDraftView(
            array_map(static fn (RunningRow $r): array => $r->toArray(), $running), $backs, $fores, false === $last ? 0 : $last->setup,
            [] === $rows ? null : $length,
        );
    }

    /** @return array<string, float> typed and the project's, keyed "p" and their name; a typed one comes first */
    public function benchmarks(Project $project): array
    {
        $known = [];
        foreach ($this->settings->of($project)->benchmarks as $benchmark) {
            $known['p'.$benchmark['id']] = (float) $benchmark['h'];
        }
        foreach ($this->known($project) as $point) {
            $known['p'.$point['id']] ??= $point['h'];
        }

        return $known;
    }

    /** @return list<array{id: string, h: float}> the project's control with a given height */
    private function known(Project $project): array
    {
        $known = [];
        foreach ($this->points->findBy(['project' => $project->id(), 'role' => Point::CONTROL], ['name' => 'ASC']) as $p) {
            if (null !== $p->givenH) {
                $known[] = ['id' => $p->name, 'h' => $p->givenH];
            }
        }

        return $known;
    }

    /** @return array<string, float> ends of runs that the book gives a height, for a run that goes on from there */
    private function levelled(Project $project): array
    {
        try {
            $book = $this->work($project);
        } catch (UnusableInput) {
            return [];
        }
        $ends = [];
        foreach ($book->sections as $section) {
            $ends["p$section->from"] = $ends["p$section->to"] = true;
        }
        $known = [];
        foreach ($book->points as $point) {
            if (isset($ends["p$point->id"])) {
                $known["p$point->id"] = $point->h;
            }
        }

        return $known;
    }

    public function core(Project $project): LevelSettings
    {
        $s = self::settingsView($this->settings->of($project));

        return new LevelSettings(
            $s->k, 'setup' === $s->per ? LevelSettings::PER_SETUP : LevelSettings::PER_KM,
            'setup' === $s->distribute ? LevelSettings::BY_SETUP : LevelSettings::BY_LENGTH, $s->curvature, $s->refraction, 6371000.0,
            $s->repeatLimit, $s->scalePpm, $s->expansion, $s->temperature, $s->referenceTemperature,
        );
    }

    private static function settingsView(LevelBookSettings $book): LevelSettingsView
    {
        $s = $book->settings + LevelBookSettings::DEFAULTS;

        return new LevelSettingsView(
            (float) $s['k'], (string) $s['per'], (string) $s['distribute'], (bool) $s['curvature'], (float) $s['refraction'],
            (float) $s['repeatLimit'], (float) $s['scalePpm'], (float) $s['expansion'], (float) $s['temperature'],
            (float) $s['referenceTemperature'],
        );
    }

    /**
     * Standard deviations from the misclosures of sections and loops: root of the mean of w^2/L, and of w^2/n.
     *
     * @return array{?float, ?float} of a kilometre and of a setup
     */
    public static function spread(LevelledBook $book): array
    {
        $perKm = $perSetup = [];
        $closed = [];
        foreach ($book->sections as $s) {
            if (null !== $s->misclosure) {
                $closed[] = [$s->misclosure, $s->length, $s->setupCount];
            }
        }
        foreach ($book->loops as $l) {
            $closed[] = [$l->misclosure, $l->length, $l->setups];
        }
        foreach ($closed as [$misclosure, $length, $setups]) {
            $perSetup[] = $misclosure ** 2 / $setups;
            if (null !== $length && $length > 0.0) {
                $perKm[] = $misclosure ** 2 / ($length / 1000.0);
            }
        }
        $root = static fn (array $squares): ?float => [] === $squares ? null : sqrt(array_sum($squares) / \count($squares));

        return [$root($perKm), $root($perSetup)];
    }

    /** @return Sight::BACK|Sight::FORE|Sight::INTERMEDIATE */
    private static function kind(string $kind): string
    {
        return match ($kind) {
            Sight::BACK => Sight::BACK,
            Sight::FORE => Sight::FORE,
            default => Sight::INTERMEDIATE,
        };
    }
}
