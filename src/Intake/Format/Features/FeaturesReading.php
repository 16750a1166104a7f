<?php

declare(strict_types=1);

namespace App\Intake\Format\Features;

use App\Intake\Format\NothingAsked;
use App\Intake\Format\Reading;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Exchange\Delimited\PointRecord;
use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureReader;

/** The points of a file of features, with the names and codes their properties give them; lines and areas stay behind. */
final class FeaturesReading implements Reading
{
    use NothingAsked;

    private const METRES = ['foot' => 0.3048, 'US survey foot' => 1200.0 / 3937.0, 'millimetre' => 0.001];
    private const LONGEST_NAME = 60;

    /** @var list<PointRecord> */
    private array $points = [];

    /** @var list<Finding> */
    private array $findings = [];

    private readonly bool $isGeographic;
    private readonly ?string $heights;

    public function __construct(FeatureReader $reader, string $name)
    {
        $this->isGeographic = $reader->set->isGeographic();
        // The altitude of a fix is above mean sea level (NMEA 0183, GGA).
        $this->heights = 'nmea' === $reader->look->kind ? 'geoid' : null;
        $others = [];
        $unnamed = 0;
        $naming = $reader->set->naming();
        $coding = $reader->set->coding();
        $stem = (string) preg_replace('/\.[^.]*$/', '', $name);
        $metre = self::METRES[$reader->set->unit ?? ''] ?? 1.0;
        $used = [];
        foreach ($reader->set->features as $i => $f) {
            if (Feature::POINT !== $f->kind) {
                $others[$f->kind] = ($others[$f->kind] ?? 0) + 1;
                continue;
            }
            foreach ($f->parts as [[[$x, $y, $h]]]) {
                $given = trim((string) ($f->properties[$naming ?? ''] ?? ''));
                $unnamed += '' === $given ? 1 : 0;
                $called = self::apart('' === $given ? $stem.'-'.($i + 1) : $given, $used);
                $code = null === $coding || $coding === $naming ? '' : trim((string) ($f->properties[$coding] ?? ''));
                $plan = $this->isGeographic ? [null, null, $y, $x] : [$x * $metre, $y * $metre, null, null];
                $height = null === $h ? null : $h * ($this->isGeographic ? 1.0 : $metre);
                $this->points[] = new PointRecord($i + 1, $called, ...[...$plan, $height, mb_substr($code, 0, 40), '', [null, null, null]]);
            }
        }
        foreach ($others as $kind => $n) {
            $words = 1 === $n ? "1 $kind of it stays behind: points are taken" : "$n {$kind}s of it stay behind: points are taken";
            $this->findings[] = new Finding(Finding::WARNING, null, $words);
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
        return FileKind::Points;
    }

    public function counts(): array
    {
        return ['points' => \count($this->points), 'codes' => \count(array_unique(array_column($this->points, 'code')))];
    }

    public function size(): int
    {
        return \count($this->points);
    }

    public function points(): array
    {
        return $this->points;
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
        return [] === $this->points ? 'it holds no points' : null;
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
        return [] !== array_filter($this->points, static fn (PointRecord $p): bool => null !== $p->h);
    }

    public function kept(): array
    {
        return [];
    }
}
