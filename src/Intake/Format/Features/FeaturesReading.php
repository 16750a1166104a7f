<?php

declare(strict_types=1);

namespace App\Intake\Format\Features;

use App\Intake\Format\NothingAsked;
use App\Intake\Format\Reading;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Exchange\Delimited\Measured;
use Mensura\Exchange\Delimited\PointRecord;
use Mensura\Exchange\Faces\FaceFile;
use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureLines;
use Mensura\Exchange\Features\FeatureReader;

/**
 * A file of features: its points, with the names and codes their properties give them, and its lines and areas as a drawing. A file
 * that holds no points is a drawing alone; places along its lines then show where it lies.
 */
final class FeaturesReading implements Reading
{
    use NothingAsked;

    /** Places along lines that are looked at before they are taken. */
    private const SHOWN = 3000;
    private const LONGEST_NAME = 60;

    /** @var list<PointRecord> */
    private array $points = [];

    /** @var list<Finding> */
    private array $findings = [];

    private readonly FaceFile $drawing;
    private readonly bool $isFlat;
    private readonly bool $isGeographic;
    private readonly ?string $heights;

    public function __construct(FeatureReader $reader, string $name)
    {
        $this->isGeographic = $reader->set->isGeographic();
        // The altitude of a fix is above mean sea level (NMEA 0183, GGA).
        $this->heights = 'nmea' === $reader->look->kind ? 'geoid' : null;
        $this->drawing = FeatureLines::of($reader->set);
        $this->isFlat = FeatureLines::areFlat($reader->set);
        $unnamed = 0;
        $naming = $reader->set->naming();
        $coding = $reader->set->coding();
        $stem = (string) preg_replace('/\.[^.]*$/', '', $name);
        $metre = $reader->set->metre();
        $used = [];
        foreach ($reader->set->features as $i => $f) {
            if (Feature::POINT !== $f->kind) {
                continue;
            }
            foreach ($f->parts as [[[$x, $y, $h]]]) {
                $given = trim((string) ($f->properties[$naming ?? ''] ?? ''));
                $unnamed += '' === $given ? 1 : 0;
                $called = self::apart('' === $given ? $stem.'-'.($i + 1) : $given, $used);
                $code = null === $coding || $coding === $naming ? '' : trim((string) ($f->properties[$coding] ?? ''));
                $plan = $this->isGeographic ? [null, null, $y, $x] : [$x * $metre, $y * $metre, null, null];
                $height = null === $h ? null : $h * ($this->isGeographic ? 1.0 : $metre);
                $measured = Measured::ofProperties($f->properties, $metre);
                $said = [mb_substr($code, 0, 40), '', [null, null, null], $measured];
                $this->points[] = new PointRecord($i + 1, $called, ...[...$plan, $height, ...$said]);
            }
        }
        if ($this->isDrawing() && $this->isFlat) {
            $this->findings[] = new Finding(Finding::WARNING, null, 'its lines say no heights; they lie at 0');
        }
        if ($unnamed > 0) {
            $words = 1 === $unnamed ? '1 of its points has no name; it is' : "$unnamed of its points have no name; they are";
            $this->findings[] = new Finding(Finding::WARNING, null, $words.' called after the file');
        }
        foreach ([...$reader->look->toArray()['warnings'], ...$reader->left] as $words) {
            $this->findings[] = new Finding(Finding::WARNING, null, (string) $words);
        }
    }

    /**
     * A name no other point of the file has.
     *
     * @param array<string, true> $used
     */
    private static function apart(string $name, array &$used): string
    {
        $name = mb_substr($name, 0, self::LONGEST_NAME);
        $own = $name;
        for ($k = 2; isset($used[$own]); ++$k) {
            $own = mb_substr($name, 0, self::LONGEST_NAME - \strlen("-$k"))."-$k";
        }
        $used[$own] = true;

        return $own;
    }

    public function kind(): FileKind
    {
        return $this->isDrawing() ? FileKind::Design : FileKind::Points;
    }

    private function isDrawing(): bool
    {
        return [] === $this->points && [] !== $this->drawing->lines;
    }

    public function counts(): array
    {
        $lines = \count($this->drawing->lines);
        if ($this->isDrawing()) {
            return ['lines' => $lines, 'layers' => \count(array_unique($this->drawing->lineLayers))];
        }
        $counts = ['points' => \count($this->points), 'codes' => \count(array_unique(array_column($this->points, 'code')))];

        return 0 === $lines ? $counts : $counts + ['lines' => $lines];
    }

    public function size(): int
    {
        return \count($this->points) + \count($this->drawing->lines);
    }

    public function points(): array
    {
        return $this->isDrawing() ? $this->along() : $this->points;
    }

    /** @return list<PointRecord> places along the lines, evenly by number */
    private function along(): array
    {
        $d = $this->drawing;
        $step = (int) ceil(\count($d->x) / self::SHOWN);
        $places = [];
        foreach ($d->lines as $k => $corners) {
            foreach ($corners as $c) {
                if (0 === $c % $step) {
                    $plan = $this->isGeographic ? [null, null, $d->y[$c], $d->x[$c]] : [$d->x[$c], $d->y[$c], null, null];
                    $name = \sprintf('%s %d/%d', $d->lineLayers[$k], $k + 1, $c + 1);
                    $height = $this->isFlat ? null : $d->z[$c];
                    $places[] = new PointRecord($k + 1, $name, ...[...$plan, $height, '', '', [null, null, null]]);
                }
            }
        }

        return $places;
    }

    public function observations(): iterable
    {
        return [];
    }

    public function leftOut(): int
    {
        return 0;
    }

    public function findings(): array
    {
        return $this->findings;
    }

    public function missing(): ?string
    {
        return 0 === $this->size() ? 'it holds no points, lines or areas' : null;
    }

    public function isGeographic(): bool
    {
        return $this->isGeographic;
    }

    public function heightsSaid(): ?string
    {
        return $this->heights;
    }

    public function hasHeights(): bool
    {
        return [] !== array_filter($this->points(), static fn (PointRecord $p): bool => null !== $p->h);
    }

    public function kept(): array
    {
        $lines = \count($this->drawing->lines);

        return 0 === $lines ? [] : [
            'features' => true, 'flat' => $this->isFlat, 'lines' => $lines, 'lineLayers' => array_count_values($this->drawing->lineLayers),
        ];
    }
}
