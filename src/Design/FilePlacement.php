<?php

declare(strict_types=1);

namespace App\Design;

use App\Project\Project;
use App\Reference\FollowsReference;
use App\Reference\Step;
use App\Reference\Steps;
use App\Survey\Point;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Fault\UnusableInput;

/**
 * Drawings, clouds, trajectories and flights stay as they were received; where the project went since then is kept with them and gone when
 * they are read.
 */
final class FilePlacement implements FollowsReference
{
    private const KINDS = [
        FileKind::Design->value, FileKind::Cloud->value, FileKind::Trajectory->value, FileKind::Flight->value,
    ];

    public function __construct(private readonly SurveyFileRepository $files, private readonly Steps $steps)
    {
    }

    public function moved(Project $project, \Closure $place, Step $step): void
    {
        foreach ($this->files->of($project) as $file) {
            $mapping = $file->mapping();
            if ($file->isWaiting() || !isset($mapping['features']) && !\in_array($file->kind(), self::KINDS, true)) {
                continue;
            }
            // What is known only locally stays, until a localization brings it onto a grid.
            if (Point::LOCALLY !== ($mapping['known'] ?? '') || 0 !== $step->localization) {
                $mapping = (isset($mapping['known']) ? ['known' => Point::GLOBALLY] : []) + $mapping;
                $mapping['steps'] = [...(array) ($mapping['steps'] ?? []), (array) $step];
                $file->read($file->kind(), $mapping);
            }
        }
    }

    /**
     * Coordinates of a file as they are in the project now; metres.
     *
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     *
     * @return array{list<float>, list<float>, list<float>}
     *
     * @throws UnusableInput
     */
    public function placed(Project $project, SurveyFile $file, array $x, array $y, array $z): array
    {
        $way = $this->way($project, $file);

        return null === $way ? [$x, $y, $z] : self::along($way, $x, $y, $z);
    }

    /**
     * @param \Closure(float, float, float): array{float, float, float} $way
     * @param list<float>                                                $x
     * @param list<float>                                                $y
     * @param list<float>                                                $z
     *
     * @return array{list<float>, list<float>, list<float>}
     */
    public static function along(\Closure $way, array $x, array $y, array $z): array
    {
        $placed = [[], [], []];
        foreach ($x as $i => $e) {
            [$placed[0][], $placed[1][], $placed[2][]] = $way($e, $y[$i], $z[$i]);
        }

        return $placed;
    }

    /**
     * How a place of a file comes to where it is in the project now; null where it has not moved.
     *
     * @return ?\Closure(float, float, float): array{float, float, float}
     *
     * @throws UnusableInput
     */
    public function way(Project $project, SurveyFile $file): ?\Closure
    {
        $steps = array_values(array_map(Step::fromArray(...), (array) ($file->mapping()['steps'] ?? [])));

        return $this->steps->way($project, $steps, $file->name());
    }

    /**
     * Where a file's curves would not be curves any more; other heights leave them where they are in plan.
     *
     * @throws UnusableInput
     */
    public static function refuseMoved(SurveyFile $file): void
    {
        $steps = array_map(Step::fromArray(...), (array) ($file->mapping()['steps'] ?? []));
        if ([] !== array_filter($steps, static fn (Step $s): bool => $s->isInPlan())) {
            $words = 'came in before the project changed its system; arcs and clothoids do not follow: bring the alignment in again';
            throw new UnusableInput($file->name(), $words);
        }
    }
}
