<?php

declare(strict_types=1);

namespace App\Network;

use App\Network\View\SettingsView;
use App\Project\Project;
use App\Result\ContentVersions;
use Mensura\Network\Deflection;
use Mensura\Network\Settings;

/** A project's network settings with the defaults of a good one-second instrument. */
final class NetworkSettings
{
    public const DEFAULTS = [
        'directionSd' => 1.5, 'zenithSd' => 2.0, 'distanceConstant' => 0.0015, 'distancePpm' => 2.0, 'instrumentCentring' => 0.001,
        'targetCentring' => 0.001, 'heightCentring' => 0.001, 'refraction' => 0.13, 'confidence' => 0.95, 'free' => false, 'factors' => [],
        'deflections' => 'none', 'xi' => 0.0, 'eta' => 0.0,
    ];

    public static function of(Project $project): SettingsView
    {
        $s = $project->networkSettings() + self::DEFAULTS;
        $number = static fn (string $key): float => (float) $s[$key];

        return new SettingsView(
            $number('directionSd'), $number('zenithSd'), $number('distanceConstant'), $number('distancePpm'), $number('instrumentCentring'),
            $number('targetCentring'), $number('heightCentring'), $number('refraction'), $number('confidence'), (bool) $s['free'],
            array_map(floatval(...), \is_array($s['factors']) ? $s['factors'] : []), (string) $s['deflections'],
            $number('xi'), $number('eta'),
        );
    }

    /** Changes with the settings, and only with them. */
    public static function version(Project $project): string
    {
        return ContentVersions::hash($project->networkSettings());
    }

    public static function deflection(SettingsView $v): Deflection
    {
        return match ($v->deflections) {
            'geoid' => Deflection::ofGeoid(),
            'measured' => Deflection::measured($v->xi, $v->eta),
            default => Deflection::none(),
        };
    }

    public static function core(SettingsView $v): Settings
    {
        return new Settings(
            confidence: $v->confidence, refraction: $v->refraction, directionSd: $v->directionSd / 3600.0, zenithSd: $v->zenithSd / 3600.0,
            distanceSd: [$v->distanceConstant, $v->distancePpm], instrumentCentring: $v->instrumentCentring,
            targetCentring: $v->targetCentring,
            heightCentring: $v->heightCentring,
        );
    }
}
