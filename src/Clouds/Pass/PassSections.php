<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Project\Project;
use App\Result\Result;
use Mensura\Fault\UnusableInput;
use Mensura\Passes\Correction;
use Mensura\Passes\CrossSection;

/** What is seen across the way of a pass. */
final class PassSections
{
    private const HALF = 12.0;
    private const THICK = 1.0;
    /** Points of each drive in a section; of more, as many evenly. */
    private const MOST = 4_000;

    public function __construct(private readonly MadePasses $made, private readonly DriveFiles $drives, private readonly ScanCells $scans)
    {
    }

    /**
     * Both scans across the way of the pass, the pass as it is corrected; of a pass registered to control, its own alone.
     *
     * @return array{
     *     ends: array{float, float, float, float}, pass: array{list<float>, list<float>}, reference: array{list<float>, list<float>},
     * }
     *
     * @throws UnusableInput
     */
    public function at(Project $project, Result $pass, float $along): array
    {
        $section = $this->section($project, $pass, $along);
        $own = PassSettings::fromArray($pass->settings);
        $there = null === $own->referencePass ? $own : $this->of($project, $own->referencePass);
        $cloud = null === $own->referencePass ? $own->referenceCloud : $there->cloud;
        $seen = $this->seenBy($project, $section, $own->cloud, $this->made->correction($pass), '/cloud');
        $reference = null === $cloud ? [[], []]
            : $this->seenBy($project, $section, $cloud, $this->made->ofWhatStays($pass), '/referenceCloud');

        return [
            'ends' => $section->ends(), 'pass' => self::some(...$seen), 'reference' => self::some(...$reference),
        ];
    }

    private function section(Project $project, Result $pass, float $along): CrossSection
    {
        $s = PassSettings::fromArray($pass->settings);
        $way = $this->drives->trajectory($project, $s->trajectory, '/trajectory')->corrected($this->made->correction($pass));

        return CrossSection::at($way, $along, self::HALF, self::THICK);
    }

    private function of(Project $project, int $number): PassSettings
    {
        $pass = $this->made->of($project)[$number] ?? throw new UnusableInput('/referencePass', 'there is no such pass');

        return PassSettings::fromArray($pass->settings);
    }

    /** @return array{list<float>, list<float>} offset and height of each point */
    private function seenBy(Project $project, CrossSection $section, int $cloud, Correction $by, string $pointer): array
    {
        [$t, $x, $y, $z] = $this->scans->near($project, $cloud, $by->back($section->box()), $pointer);

        return $section->of(...$by->apply($t, $x, $y, $z));
    }

    /**
     * @param list<float> $offsets
     * @param list<float> $heights
     *
     * @return array{list<float>, list<float>}
     */
    private static function some(array $offsets, array $heights): array
    {
        $step = max(1, (int) ceil(\count($offsets) / self::MOST));
        $kept = static fn (array $axis): array => array_values(array_map(
            static fn (float $v): float => round($v, 4),
            array_filter($axis, static fn (int $i): bool => 0 === $i % $step, \ARRAY_FILTER_USE_KEY),
        ));

        return [$kept($offsets), $kept($heights)];
    }
}
