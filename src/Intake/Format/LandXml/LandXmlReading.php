<?php

declare(strict_types=1);

namespace App\Intake\Format\LandXml;

use App\Intake\Format\NothingAsked;
use App\Intake\Format\Reading;
use App\Survey\ImportedObservation;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Exchange\Delimited\PointRecord;
use Mensura\Exchange\LandXml\LandXmlSurvey;
use Mensura\Exchange\LandXml\SurveySight;

/** A LandXML file, taken for its observations or for its points. Its units are its own, so nothing is asked about them. */
final readonly class LandXmlReading implements Reading
{
    use NothingAsked;

    public function __construct(private LandXmlSurvey $survey, private FileKind $kind)
    {
    }

    public function kind(): FileKind
    {
        return $this->kind;
    }

    public function counts(): array
    {
        if (!$this->isSurvey()) {
            $points = $this->survey->points;

            return ['points' => \count($points), 'codes' => \count(array_unique(array_column($points, 'code')))];
        }
        $sights = $this->survey->sights;

        return [
            'setups' => \count(array_unique(array_map(static fn (SurveySight $s): string => $s->station."\0".$s->setup, $sights))),
            'pointings' => \count($sights), 'targets' => \count(array_unique(array_column($sights, 'target'))),
            'distances' => \count(array_filter(
                $sights,
                static fn (SurveySight $s): bool => isset($s->values['slope-distance']) || isset($s->values['horizontal-distance']),
            )),
        ];
    }

    public function size(): int
    {
        return \count($this->isSurvey() ? $this->survey->sights : $this->survey->points);
    }

    public function points(): array
    {
        return $this->isSurvey() ? [] : $this->survey->points;
    }

    public function observations(): iterable
    {
        foreach ($this->isSurvey() ? $this->survey->sights : [] as $s) {
            foreach ($s->values as $kind => $value) {
                $isPlan = \in_array($kind, ['direction', 'azimuth'], true);
                yield new ImportedObservation(
                    $s->line, $kind, $s->set, $s->station, $s->target, $value, hi: $isPlan ? 0.0 : $s->hi, ht: $isPlan ? 0.0 : $s->ht,
                    face: $s->face, observedAt: $s->at,
                );
            }
        }
    }

    public function leftOut(): int
    {
        return $this->survey->leftOut;
    }

    public function findings(): array
    {
        $points = \count($this->survey->points);
        if (!$this->isSurvey() || 0 === $points) {
            return $this->survey->findings;
        }
        $words = 'its %d coordinates stay behind; bring the file in once more, read as points or as a control list, to have them';

        return [...$this->survey->findings, new Finding(Finding::WARNING, null, \sprintf($words, $points))];
    }

    public function missing(): ?string
    {
        return 0 < $this->size() ? null : ($this->isSurvey() ? 'it holds no survey observations' : 'it holds no points with coordinates');
    }

    public function hasHeights(): bool
    {
        return [] !== array_filter($this->points(), static fn (PointRecord $p): bool => null !== $p->h);
    }

    public function kept(): array
    {
        return ['kind' => $this->kind->value];
    }

    private function isSurvey(): bool
    {
        return FileKind::TotalStation === $this->kind;
    }
}
