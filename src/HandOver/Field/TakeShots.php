<?php

declare(strict_types=1);

namespace App\HandOver\Field;

use App\Account\User;
use App\HandOver\Request\ShotsRequest;
use App\Project\Project;
use App\Survey\FileIntake;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;
use Psr\Clock\ClockInterface;

/** As-built shots as a point file, taken into the project like any other. */
final class TakeShots
{
    /** What a shot of the rover is measured by; it is not there. */
    public const METHOD = 'RTK fixed (simulated)';

    public function __construct(
        private readonly FileIntake $intake, private readonly PointRepository $points, private readonly ClockInterface $clock,
    ) {
    }

    /**
     * @param string $of the package, with its run
     *
     * @return array{file: int, names: list<string>} database id of the file, and what the points are called
     *
     * @throws UnusableInput
     */
    public function take(Project $project, User $author, ShotsRequest $request, string $of): array
    {
        $height = self::heightHeading($project);
        $lines = ["# as built, shot with the package $of", "point,easting [m],northing [m],$height,code,sd plan [m],positions,time,method"];
        $now = $this->clock->now()->format(\DATE_ATOM);
        $taken = [];
        foreach ($this->points->onGrid($project) as $p) {
            $taken[$p->name] = true;
        }
        $names = [];
        $number = 0;
        foreach ($request->shots as $i => $s) {
            foreach (['e', 'n', 'h', 'sd'] as $key) {
                if (!\is_int($s[$key] ?? null) && !\is_float($s[$key] ?? null)) {
                    throw new UnusableInput("/shots/$i/$key", 'is a number of metres');
                }
            }
            do {
                $name = $request->prefix.++$number;
            } while (isset($taken[$name]));
            $code = preg_replace('/[^\p{L}\p{N}_.-]+/u', '-', \is_string($s['code'] ?? null) ? mb_substr($s['code'], 0, 60) : '');
            $count = \is_int($s['count'] ?? null) ? $s['count'] : 1;
            $place = \sprintf('%s,%.4F,%.4F,%.4F', $name, $s['e'], $s['n'], $s['h']);
            $lines[] = \sprintf('%s,%s,%.4F,%d,%s,%s', $place, $code, $s['sd'], $count, $now, self::METHOD);
            $names[] = $name;
        }
        $file = $this->intake->take($project, $author, \sprintf('%s-as-built-%s.csv', $of, $names[0]), implode("\n", $lines)."\n");

        return ['file' => $file, 'names' => $names];
    }

    /** Of a column of heights as the project has them. */
    public static function heightHeading(Project $project): string
    {
        return (['geoid' => 'orthometric ', 'local' => ''][$project->heights()] ?? 'ellipsoidal ').'height [m]';
    }
}
