<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

use Mensura\Reference\Crs\CoordinateSystem;

/**
 * The whole way from one coordinate system to another, between positions in radians from Greenwich and metres of height.
 *
 * @phpstan-type Stage array{kind: string, description: ?StepDescription, choice: ?ChoiceStep, step: ?Step}
 */
final class Route
{
    /** @var list<Step> */
    private readonly array $steps;

    /**
     * @param list<Stage>  $stages
     * @param list<string> $warnings what a careful person would want said once
     * @param bool         $heights  whether heights are transformed; if not they pass unchanged
     */
    public function __construct(
        public readonly CoordinateSystem $from,
        public readonly CoordinateSystem $to,
        public readonly array $stages,
        public readonly array $warnings,
        public readonly bool $heights,
    ) {
        $steps = [];
        foreach ($stages as $stage) {
            $step = $stage['choice'] ?? $stage['step'];
            if (null !== $step && !($step instanceof ChoiceStep && 1 === \count(
                $step->candidates,
            ) && $step->candidates[0]->isIdentity() && null === $step->candidates[0]->area)) {
                $steps[] = $step;
            }
        }
        $this->steps = $steps;
    }

    /**
     * @return array{float, float, float} latitude, longitude (radians from Greenwich), height in the target's vertical datum, metres
     *
     * @throws \DomainException
     */
    public function apply(float $lat, float $lon, float $h): array
    {
        foreach ($this->steps as $step) {
            [$lat, $lon, $h] = $step->apply($lat, $lon, $h);
        }

        return [$lat, $lon, $h];
    }

    /** Whether positions go through without any step. */
    public function isIdentity(): bool
    {
        return [] === $this->steps;
    }

    /**
     * What is done at a position (or, without one, at the best candidates), for people and the record.
     *
     * @return array{operation: string, accuracy: ?float, area: ?array{float, float, float, float}, steps: list<StepDescription>}
     */
    public function describe(?float $lat = null, ?float $lon = null): array
    {
        $names = [];
        $accuracy = 0.0;
        $area = null;
        $steps = [];
        if (null !== $this->from->horizontal->conversion) {
            $steps[] = ConversionDescription::of($this->from->horizontal, true);
        }
        foreach ($this->stages as $stage) {
            if (null !== $stage['choice']) {
                $at = null !== $lat && null !== $lon ? $stage['choice']->pick($lat, $lon) : self::firstUsable($stage['choice']->candidates);
                // Read after the pick, which may have asked for further ones.
                $candidate = $stage['choice']->candidates[$at];
                if (!$candidate->isIdentity()) {
                    $names[] = $candidate->name;
                }
                $accuracy = null === $accuracy || null === $candidate->accuracy ? null : $accuracy + $candidate->accuracy;
                $area = null === $area
                    ? $candidate->area
                    : (null === $candidate->area ? $area : $area->intersection($candidate->area) ?? $area);
                $steps = [...$steps, ...$candidate->descriptions];
            } elseif (null !== $stage['description']) {
                $names[] = $stage['kind'];
                $steps[] = $stage['description'];
                if (isset($stage['description']->parameters['accuracy_m']) && \is_float($stage['description']->parameters['accuracy_m'])) {
                    $accuracy = null === $accuracy ? null : $accuracy + $stage['description']->parameters['accuracy_m'];
                }
            }
        }
        if (null !== $this->to->horizontal->conversion) {
            $steps[] = ConversionDescription::of($this->to->horizontal, false);
        }
        $area ??= $this->to->horizontal->area ?? $this->from->horizontal->area;

        return [
            'operation' => [] === $names ? \sprintf('%s to %s', $this->from->name(), $this->to->name()) : implode(' + ', $names),
            'accuracy' => $accuracy,
            'area' => $area?->bounds(),
            'steps' => $steps,
        ];
    }

    /** @param list<Candidate> $candidates */
    private static function firstUsable(array $candidates): int
    {
        foreach ($candidates as $i => $candidate) {
            if ($candidate->isUsable()) {
                return $i;
            }
        }

        return 0;
    }
}
