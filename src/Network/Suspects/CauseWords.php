<?php

declare(strict_types=1);

namespace App\Network\Suspects;

use Mensura\Network\Suspects\Suspect;

/** What a suspect is about, in a surveyor's words. */
final class CauseWords
{
    public static function of(Suspect $s): string
    {
        $at = self::setup($s);
        $to = (string) ($s->names['to'] ?? '');
        $other = (string) ($s->names['other'] ?? '');
        $from = (string) ($s->names['from'] ?? '');

        return match ($s->cause) {
            'target-height' => "target height of $to in setup $at",
            'instrument-height' => "instrument height of setup $at",
            'setup-centring' => "setup $at stood beside its mark",
            'orientation-slip' => "circle of setup $at turned from $to on",
            'prism-constant' => "prism constant of setup $at",
            'distance-scale' => "scale of the distances of setup $at",
            'swapped-targets' => "targets $to and $other exchanged in setup $at",
            'wrong-target' => "sights to $to in setup $at were to $other",
            'direction', 'azimuth', 'zenith', 'distance' => "one {$s->cause} $at to $to",
            'angle' => \sprintf('one angle at %s from %s to %s', $at, $s->names['back'] ?? '', $to),
            'digits' => "digits of one distance $at to $to",
            'height-difference' => "height difference $from to $to",
            'height-difference-sign' => "sign of the height difference $from to $to",
            'vector' => "vector $from to $to",
            'antenna-height' => \sprintf('antenna height at %s of the vector %s to %s', $s->names['end'] ?? '', $from, $to),
            'control' => \sprintf('given coordinates of %s', $s->names['station'] ?? ''),
            default => $s->cause,
        };
    }

    private static function setup(Suspect $s): string
    {
        $set = (string) ($s->names['set'] ?? '');

        return ($s->names['from'] ?? '').('' === $set ? '' : '/'.$set);
    }

    /** Of the estimate. */
    public static function quantity(string $cause): string
    {
        return match ($cause) {
            'direction', 'azimuth', 'angle', 'zenith', 'orientation-slip' => 'angle',
            'distance-scale' => 'ppm',
            default => 'length',
        };
    }
}
