<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Project\Project;
use App\Survey\Point;
use App\Survey\PointRepository;

/** Whether the marker of an occupation is the mark it lies on: files are named by hand, in the field. */
final class MarkerQuestion
{
    /** A receiver by itself knows where it is to some metres. */
    private const NEAR = 25.0;

    /** Beyond this it is not on the mark it names. */
    private const FAR = 100.0;

    /** @var ?array<string, array{float, float}> */
    private ?array $marks = null;

    public function __construct(private readonly PointRepository $points, private readonly MarkPlace $places)
    {
    }

    /** @return array{string, ?string} what is odd, in words, and the mark it may be; an empty question where nothing is */
    public function of(Project $project, Occupation $occupation): array
    {
        $stated = $occupation->recorded()->place;
        $place = null === $stated ? null : $this->places->inProject($project, $stated);
        $marker = $occupation->marker;
        $marks = $this->marks($project);
        $nearest = null === $place ? null : self::nearest($marks, $place[0], $place[1]);
        $near = null !== $nearest && $nearest[1] < self::NEAR ? $nearest[0] : null;
        if ('' === $marker) {
            return ['the file names no marker'.(null === $near ? '' : "; it lies near $near"), $near];
        }
        if (!isset($marks[$marker])) {
            $like = array_values(
                array_filter(
                    array_map(strval(...), array_keys($marks)), static fn (string $m): bool => self::plain($m) === self::plain($marker),
                ),
            );
            $suggested = 1 === \count($like) ? $like[0] : $near;

            return null === $suggested ? ['', null] : [
                \sprintf('%s is no mark of the project; is it %s?', $marker, $suggested), $suggested,
            ];
        }
        $away = null === $place ? 0.0 : hypot($place[0] - $marks[$marker][0], $place[1] - $marks[$marker][1]);
        if ($away > self::FAR) {
            $words = \sprintf('it was recorded %.0f m from %s%s', $away, $marker, null === $near ? '' : ", near $near");

            return [$words, $near];
        }

        return ['', null];
    }

    /** @return array<string, array{float, float}> control and adjusted marks with their plan places */
    private function marks(Project $project): array
    {
        if (null === $this->marks) {
            $this->marks = [];
            foreach ($this->points->marks($project) as $p) {
                if (null !== $p->e && null !== $p->n && Point::GLOBALLY === $p->known) {
                    $this->marks[$p->name] = [$p->e, $p->n];
                }
            }
        }

        return $this->marks;
    }

    /**
     * @param array<string, array{float, float}> $marks
     *
     * @return ?array{string, float}
     */
    private static function nearest(array $marks, float $e, float $n): ?array
    {
        $best = null;
        foreach ($marks as $name => [$x, $y]) {
            $d = hypot($x - $e, $y - $n);
            if (null === $best || $d < $best[1]) {
                $best = [(string) $name, $d];
            }
        }

        return $best;
    }

    /** Letters and digits only, without leading noughts: KT1, kt-01 and KT 001 are one. */
    private static function plain(string $name): string
    {
        return (string) preg_replace('/(?<![0-9])0+(?=[0-9])/', '', (string) preg_replace('/[^\p{L}0-9]+/u', '', mb_strtolower($name)));
    }
}
