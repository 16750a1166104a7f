<?php

declare(strict_types=1);

namespace App\Project;

use Mensura\Quantity\Angle;

/** Quantities as a project shows them: metres and degrees in, words with the project's units and decimals out. */
final readonly class Shown
{
    private const FEET = ['ft' => 0.3048, 'ftUS' => 1200.0 / 3937.0];

    public string $length;
    private int $areas;
    private string $angle;
    private int $decimals;
    private int $heights;
    private int $angles;
    private int $small;

    public function __construct(Project $project)
    {
        $units = $project->units();
        $this->length = (string) $units['length'];
        $this->angle = (string) $units['angle'];
        $this->decimals = (int) $units['decimals'];
        $this->heights = (int) ($units['heights'] ?? 3);
        $this->angles = (int) ($units['angles'] ?? 1);
        $this->small = (int) ($units['small'] ?? 1);
        $this->areas = (int) ($units['areas'] ?? 1);
    }

    /** The unit of lengths, in full. */
    public function lengthName(): string
    {
        return ['m' => 'metres', 'ft' => 'international feet', 'ftUS' => 'US survey feet'][$this->length] ?? $this->length;
    }

    /** A coordinate or distance; a report carries one decimal more than the screen. */
    public function length(float $metres): string
    {
        return \sprintf('%.*f', $this->decimals + 1, $metres / $this->metres());
    }

    public function height(float $metres): string
    {
        return \sprintf('%.*f', $this->heights + 1, $metres / $this->metres());
    }

    /** A residual or precision: millimetres, or thousandths of a foot. */
    public function small(float $metres, bool $isSigned = false): string
    {
        $isMetric = 'm' === $this->length;

        return \sprintf(
            $isSigned ? '%+.*f' : '%.*f', $this->small + ($isMetric ? 0 : 3),
            $isMetric ? 1000.0 * $metres : $metres / $this->metres(),
        );
    }

    public function smallUnit(): string
    {
        return 'm' === $this->length ? 'mm' : $this->length;
    }

    /** A volume: cubic metres, or cubic yards beside feet. */
    public function volume(float $m3, bool $isNamed = true): string
    {
        $value = 'm' === $this->length ? $m3 : $m3 / $this->metres() ** 3 / 27.0;

        return \sprintf('%.*f', $this->areas, $value).($isNamed ? ' '.$this->volumeUnit() : '');
    }

    public function volumeUnit(): string
    {
        return 'm' === $this->length ? 'm³' : 'yd³';
    }

    public function area(float $m2): string
    {
        return \sprintf('%.*f %s', $this->areas, $m2 / $this->metres() ** 2, 'm' === $this->length ? 'm²' : 'ft²');
    }

    public function angle(float $degrees): string
    {
        return match ($this->angle) {
            'gon' => \sprintf('%.*f', $this->angles + 4, $degrees / 0.9),
            'deg' => \sprintf('%.*f', $this->angles + 5, $degrees),
            default => Angle::format($degrees, $this->angles),
        };
    }

    /** Arc seconds, or milligon, with their sign for the unit. */
    public function smallAngle(float $degrees, bool $isSigned = false): string
    {
        $isGon = 'gon' === $this->angle;
        $value = \sprintf($isSigned ? '%+.*f' : '%.*f', $this->small, $isGon ? 1000.0 * $degrees / 0.9 : 3600.0 * $degrees);

        return $value.($isGon ? ' mgon' : '"');
    }

    private function metres(): float
    {
        return self::FEET[$this->length] ?? 1.0;
    }
}
