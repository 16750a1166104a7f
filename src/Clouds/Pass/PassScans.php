<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Design\CloudFiles;
use App\Design\FilePlacement;
use App\Project\Project;
use Mensura\Cloud\PointBlock;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Fault\UnusableInput;
use Mensura\Passes\Correction;

/** Scans of passes, made again with the correction that is in use. */
final class PassScans
{
    public function __construct(
        private readonly MadePasses $passes, private readonly CloudFiles $clouds,
    ) {
    }

    public function name(Project $project, int $number): string
    {
        $pass = $this->passes->of($project)[$number] ?? null;

        return null === $pass ? '' : MadePasses::named($pass);
    }

    /**
     * @return array{CloudReader, \Closure(PointBlock): PointBlock} the scan as it came, and how its points come to where they belong
     *
     * @throws UnusableInput where the pass is not there, stale, or not corrected
     */
    public function opened(Project $project, int $number, string $pointer): array
    {
        $pass = $this->passes->fresh($project, $number, $pointer);
        [$reader, $way] = $this->clouds->opened($project, PassSettings::fromArray($pass->settings)->cloud, $pointer);
        $correction = $this->passes->correction($pass);

        return [$reader, static function (PointBlock $b) use ($reader, $way, $correction): PointBlock {
            [$x, $y, $z] = null === $way ? [$b->x, $b->y, $b->z] : FilePlacement::along($way, $b->x, $b->y, $b->z);
            [$x, $y, $z] = self::corrected($reader, $correction, $b, $x, $y, $z);

            return new PointBlock($x, $y, $z, $b->classes, $b->records, $b->looks);
        }];
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     *
     * @return array{list<float>, list<float>, list<float>}
     */
    private static function corrected(CloudReader $reader, Correction $by, PointBlock $points, array $x, array $y, array $z): array
    {
        $times = $reader->las?->times(implode('', $points->records))
            ?? throw new UnusableInput($reader->name, 'holds points without GPS time; export it with times');

        return $by->apply($times, $x, $y, $z);
    }
}
