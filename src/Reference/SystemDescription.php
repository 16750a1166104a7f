<?php

declare(strict_types=1);

namespace App\Reference;

use App\Reference\View\CandidateView;
use App\Reference\View\SystemDetail;
use Mensura\Quantity\Angle;
use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\Axis;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Method\Methods;
use Mensura\Reference\Operation\Candidate;
use Mensura\Reference\Operation\NoWay;
use Mensura\Reference\Operation\StepDescription;
use Mensura\Reference\Text\ProjStringWriter;
use Mensura\Reference\Text\WktWriter;
use Mensura\Reference\UnsupportedMethod;

/** Says a coordinate system and the ways to it in words and numbers. */
final class SystemDescription
{
    private const SHOWN = 40;

    public function __construct(private readonly ProjectReference $references)
    {
    }

    public function of(int $project, string $reference, HorizontalSystem $s, ?Area $extent): SystemDetail
    {
        $el = $s->ellipsoid();
        $candidates = [];
        $gnss = '';
        try {
            $found = $this->references->finder($project)->candidates(
                $this->references->registry()->horizontalSystem('EPSG:4326'), $s, false,
            );
            $candidates = self::candidates($found, $extent ?? $s->area);
            $gnss = $s->datum->isUnknown() && null === $s->binding
                ? 'names no datum, only an ellipsoid; it is taken to be on the datum it is used with'
                : self::gnss($candidates);
        } catch (NoWay $e) {
            $gnss = $e->getMessage();
        }

        return new SystemDetail(
            $reference, $s->name, $s->kind, $s->datum->name.(0.0 === $s->datum->primeMeridian ? '' : \sprintf(
                ', longitudes from %s (%s)', $s->datum->primeMeridianName, Angle::format($s->datum->primeMeridian, 2),
            )),
            \sprintf(
                '%s, a %s m, 1/f %s',
                $el->name,
                self::plain($el->a),
                is_infinite($el->inverseFlattening) ? 'infinite' : self::plain($el->inverseFlattening),
            ), $s->geodeticName, $s->geodetic ?? '',
            null === $s->conversion ? '' : Methods::METHODS[$s->conversion->method][0] ?? $s->conversion->name,
            self::parameters($s), $s->unitName, $s->unit,
            array_map(static fn (Axis $a): string => $a->abbreviation.' '.$a->direction, $s->axes),
            $s->area->name ?? '', $s->area?->bounds(),
            null === $extent || null === $s->area || $s->area->covers($extent), $s->deprecated, $s->successor, $candidates, $gnss,
            rtrim(WktWriter::write(new CoordinateSystem($s))), self::proj($s),
        );
    }

    /**
     * @param list<Candidate> $candidates
     *
     * @return list<CandidateView> those that reach the area first
     */
    public static function candidates(array $candidates, ?Area $extent): array
    {
        $views = [];
        foreach ($candidates as $c) {
            $covers = null === $extent || null === $c->area || $c->area->covers($extent);
            $meets = $covers || null !== $c->area->intersection($extent);
            $views[] = [$covers ? 0 : ($meets ? 1 : 2), new CandidateView(
                $c->name, $c->accuracy, $c->area->name ?? 'everywhere', $c->area?->bounds(), $covers, $c->isUsable(),
                [...$c->missing, ...$c->unsupported],
                array_map(static fn (StepDescription $d): array => [
                    'method' => $d->method, 'source' => $d->source, 'parameters' => self::lines($d),
                ], $c->descriptions), $c->epoch,
            )];
        }
        usort($views, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return \array_slice(array_column($views, 1), 0, self::SHOWN);
    }

    /** @return list<array{name: string, value: string}> */
    private static function parameters(HorizontalSystem $s): array
    {
        $rows = [];
        foreach ($s->conversion->values ?? [] as $code => $value) {
            $rows[] = ['name' => Methods::PARAMETERS[$code] ?? 'EPSG:'.$code, 'value' => match (true) {
                \in_array($code, Methods::LENGTHS, true) => self::plain($value / $s->unit).' '.(1.0 === $s->unit ? 'm' : $s->unitName),
                \in_array($code, Methods::SCALES, true) => self::plain($value),
                default => Angle::format(rad2deg($value), 5),
            }];
        }

        return $rows;
    }

    public static function proj(HorizontalSystem $s): string
    {
        try {
            return ProjStringWriter::write($s);
        } catch (UnsupportedMethod) {
            return '';
        }
    }

    /** @param list<CandidateView> $candidates */
    private static function gnss(array $candidates): string
    {
        $best = $candidates[0] ?? null;
        if (null === $best) {
            return 'no way from WGS 84 is known';
        }
        $accuracy = static fn (CandidateView $c): string => null === $c->accuracy ? 'accuracy not stated' : \sprintf(
            '%.4g m', $c->accuracy,
        );
        if ($best->usable) {
            return [] === $best->steps ? 'the same datum as WGS 84' : \sprintf('%s from WGS 84 by "%s"', $accuracy($best), $best->name);
        }
        foreach ($candidates as $c) {
            if ($c->usable && $c->covers) {
                return \sprintf(
                    'the best way from WGS 84 (%s) needs the grid %s, which is not installed; the best without it: %s by "%s"',
                    $accuracy($best), implode(' and ', $best->missing), $accuracy($c), $c->name,
                );
            }
        }

        return \sprintf(
            'the way from WGS 84 (%s) needs the grid %s, which is not installed', $accuracy($best),
            implode(' and ', $best->missing),
        );
    }

    /** @return list<string> */
    private static function lines(StepDescription $step): array
    {
        $lines = [];
        foreach ($step->parameters as $name => $value) {
            $lines[] = str_replace('_', ' ', $name).' '.(\is_array($value) ? implode(
                ', ', array_map(self::plain(...), $value),
            ) : (\is_float($value) ? self::plain($value) : $value));
        }

        return $lines;
    }

    private static function plain(float $value): string
    {
        $text = rtrim(rtrim(\sprintf('%.10F', $value), '0'), '.');

        return '-0' === $text ? '0' : $text;
    }
}
