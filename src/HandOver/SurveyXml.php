<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\ExportKind;
use App\Export\ProjectPoints;
use App\Project\Project;
use App\Reference\ProjectReference;
use App\Survey\AcceptedCoordinates;
use App\Survey\Observation;
use App\Survey\ObservationRepository;
use App\Survey\ObservationRow;
use App\Survey\ObservationsContent;
use Mensura\Exchange\LandXml\LandXmlDesign;
use Mensura\Exchange\LandXml\LandXmlSurvey;
use Mensura\Exchange\LandXml\SurveySight;
use Mensura\Fault\UnusableInput;
use Psr\Clock\ClockInterface;

/** Sights of total stations with the points they go between, as LandXML 1.2: corrected, without what is set aside. */
final class SurveyXml implements ExportKind
{
    /** Degrees and metres: written to the last figure. */
    private const ALLOWED = 1e-9;
    private const KINDS = ['direction', 'azimuth', 'zenith', 'slope-distance', 'horizontal-distance'];

    public function __construct(
        private readonly ObservationRepository $observations, private readonly ProjectPoints $points,
        private readonly ProjectReference $references, private readonly ClockInterface $clock,
    ) {
    }

    public static function key(): string
    {
        return 'survey';
    }

    public function about(): ExportAbout
    {
        $holds = 'directions, zenith angles and distances by setup, and the points';

        return new ExportAbout(
            'Survey observations as LandXML', 'Write the observations', 'observations', 'xml', 'application/xml', 'Observations', $holds,
            22, format: 'LandXML',
        );
    }

    public function restsOn(array $chosen): array
    {
        return [['points', ObservationsContent::kind()], [AcceptedCoordinates::SLOT]];
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        [$sights, $lost] = $this->sights($project);
        if ([] === $sights) {
            throw new UnusableInput('', 'the project has no sights of a total station in use');
        }
        $xml = new LandXmlDesign($path, $project->name(), $this->clock->now());
        $system = $this->references->of($project);
        if (null !== $system) {
            // Coordinates are in metres here; a system in feet has a code for feet.
            $xml->system($system->name, 1.0 === $system->unit ? $system->code : null);
        }
        $xml->points((function () use ($project): \Generator {
            foreach ($this->points->of($project) as $p) {
                yield ['name' => $p->name, 'e' => (float) $p->e, 'n' => (float) $p->n, 'h' => $p->h, 'code' => $p->code];
            }
        })());
        $xml->sights($sights);
        $xml->close();

        return [...$this->points->leftOut($project), ...$lost];
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        [$meant] = $this->sights($project);
        $back = LandXmlSurvey::read((string) file_get_contents($path));
        $key = static fn (SurveySight $s): string => json_encode([$s->station, $s->target, $s->face, $s->at, array_keys($s->values)]) ?: '';
        $left = [];
        foreach ($back->sights as $s) {
            $left[$key($s)][] = $s;
        }
        $largest = 0.0;
        foreach ($meant as $s) {
            $found = isset($left[$key($s)]) ? array_shift($left[$key($s)]) : null;
            foreach ($s->values as $kind => $value) {
                $largest = null === $found ? \INF : max($largest, abs($value - $found->values[$kind]));
            }
        }
        $values = static fn (array $sights): int => array_sum(array_map(static fn (SurveySight $s): int => \count($s->values), $sights));

        return [
            Check::count('sights', \count($meant), \count($back->sights)), Check::count('values', $values($meant), $values($back->sights)),
            Check::difference('values', $largest, self::ALLOWED),
        ];
    }

    /**
     * Values of one line of a file, measured to one target in one face, are one sight.
     *
     * @return array{list<SurveySight>, list<string>} and what stays out
     */
    private function sights(Project $project): array
    {
        $sights = $open = $stay = [];
        $aside = $others = 0;
        foreach ($this->observations->rows($project) as $o) {
            if (Observation::ALL !== $o->used) {
                ++$aside;
            } elseif (!\in_array($o->kind, self::KINDS, true)) {
                $stay[$o->kind] = ($stay[$o->kind] ?? 0) + 1;
            } else {
                $others += null === $o->weather && null === $o->sd ? 0 : 1;
                $of = json_encode([$o->fileId, $o->line, $o->set, $o->from, $o->to, $o->face, $o->round, $o->observedAt]) ?: '';
                $k = $open[$of] ?? null;
                // The horizontal angle and the azimuth of one sight are not both read back.
                $bars = ['direction' => 'azimuth', 'azimuth' => 'direction'][$o->kind] ?? $o->kind;
                if (null === $k || isset($sights[$k]->values[$o->kind]) || isset($sights[$k]->values[$bars])) {
                    $k = $open[$of] = \count($sights);
                    $sights[] = self::sight($o, []);
                }
                $sights[$k] = self::sight($o, $sights[$k]->values, $sights[$k]);
            }
        }
        $lost = array_map(
            static fn (string $kind, int $n): string => \sprintf('%d of kind %s, which it is not written for', $n, $kind),
            array_keys($stay), $stay,
        );
        if ($aside > 0) {
            $lost[] = \sprintf('%d observations that are set aside', $aside);
        }
        if ($others > 0) {
            $lost[] = \sprintf('standard deviations or weather stated for %d observations', $others);
        }

        return [array_values($sights), $lost];
    }

    /** @param array<string, float> $values those of the sight so far */
    private static function sight(ObservationRow $o, array $values, ?SurveySight $so = null): SurveySight
    {
        $isSpatial = \in_array($o->kind, ['zenith', 'slope-distance'], true);
        $at = null === $o->observedAt ? null : new \DateTimeImmutable($o->observedAt, new \DateTimeZone('UTC'));

        return new SurveySight(
            0, $o->from, '', $o->set, $o->to, $isSpatial || null === $so ? $o->hi : $so->hi, $isSpatial || null === $so ? $o->ht : $so->ht,
            $o->face, $values + ($so instanceof SurveySight ? [$o->kind => $o->v1] : []), $at,
        );
    }
}
