<?php

declare(strict_types=1);

namespace App\Network\Report;

use App\Network\View\RowView;
use App\Network\View\SettingsView;
use App\Project\Shown;

/** What every form of the adjustment report says alike, in the units of the project. */
final class ReportWords
{
    private const ANGULAR = ['direction', 'zenith', 'azimuth', 'angle'];

    /** The a-priori precision as one or two sentences. */
    public static function precision(SettingsView $s, Shown $as): string
    {
        $small = static fn (float $metres): string => $as->small($metres).' '.$as->smallUnit();
        $factors = array_map(
            static fn (string $group, float $f): string => \sprintf('%s times %.2f', $group, $f),
            array_keys($s->factors),
            $s->factors,
        );

        return \sprintf(
            'Directions %s, zenith angles %s, distances %s + %s ppm, centring %s instrument, %s target, %s heights; '
                .'refraction coefficient %s%s.%s',
            $as->smallAngle($s->directionSd / 3600.0), $as->smallAngle($s->zenithSd / 3600.0),
            $small($s->distanceConstant), $s->distancePpm,
            $small($s->instrumentCentring), $small($s->targetCentring), $small($s->heightCentring), $s->refraction,
            match ($s->deflections) {
                'geoid' => '; plumb line by the slope of the geoid',
                'measured' => \sprintf('; plumb line turned by %s" north, %s" east', $s->xi, $s->eta),
                default => '',
            },
            [] === $factors ? '' : ' Standard deviations of groups: '.implode(', ', $factors).'.',
        );
    }

    /** @return list<string> kind, at, to, observed, residual, standardized */
    public static function measured(RowView $r, Shown $as): array
    {
        return [
            $r->kind.(null === $r->component ? '' : ' '.$r->component),
            $r->at.('' === $r->set || 'vector' === $r->kind ? '' : '/'.$r->set), $r->to,
            self::isAngular($r) ? $as->angle($r->observed) : $as->length($r->observed),
            self::small($r, $r->residual, $as, true),
            null === $r->standardized ? '' : \sprintf('%+.2f', $r->standardized),
        ];
    }

    /** The smallest bias of this observation that would be found; empty when nothing checks it. */
    public static function detectable(RowView $r, Shown $as): string
    {
        return self::small($r, $r->detectable, $as);
    }

    private static function small(RowView $r, ?float $value, Shown $as, bool $isSigned = false): string
    {
        return match (true) {
            null === $value => '',
            self::isAngular($r) => $as->smallAngle($value, $isSigned),
            default => $as->small($value, $isSigned).' '.$as->smallUnit(),
        };
    }

    private static function isAngular(RowView $r): bool
    {
        return \in_array($r->kind, self::ANGULAR, true);
    }
}
