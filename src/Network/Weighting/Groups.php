<?php

declare(strict_types=1);

namespace App\Network\Weighting;

use Mensura\Observation\Observation;
use Mensura\Observation\ObservationKind;

/** Groups of observations that are weighted alike: a kind, or a kind in one setup or session. */
final class Groups
{
    public const BY_KIND = 'kind';
    public const BY_SETUP = 'setup';

    public static function kind(Observation $o): string
    {
        return $o->kind->value;
    }

    public static function setup(Observation $o): string
    {
        $set = (string) $o->set;

        return $o->kind->value.' '.match (true) {
            ObservationKind::Vector === $o->kind || ObservationKind::HeightDifference === $o->kind => '' === $set ? $o->from : $set,
            default => $o->from.('' === $set ? '' : '/'.$set),
        };
    }

    /** @param array<string, float> $factors of standard deviations by group; those of a setup come on top of those of its kind */
    public static function factor(Observation $o, array $factors): float
    {
        return ($factors[self::kind($o)] ?? 1.0) * ($factors[self::setup($o)] ?? 1.0);
    }
}
