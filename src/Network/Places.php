<?php

declare(strict_types=1);

namespace App\Network;

use Mensura\Network\Frame;
use Mensura\Network\GridFrame;
use Mensura\Observation\Station;
use Mensura\Reference\Ground\LineReduction;

/** Where the marks of a project lie, as far as it is known: easting, northing and height of the project, metres. */
final readonly class Places
{
    /**
     * @param array<string, array{float, float, ?float}> $places
     * @param array<string, array{?float, ?float, ?float}> $control standard deviations of the control of the project, null where held
     */
    public function __construct(private array $places, private array $control, public Frame $frame)
    {
    }

    /** A mark as something leans on it: control held or weighted as the project has it, another mark held where it lies. */
    public function station(string $name): Station
    {
        [$e, $n, $h] = $this->places[$name] ?? [null, null, null];
        $sd = $this->control[$name] ?? [null, null, null];

        return new Station(
            $name, $e, $n, $h, [null !== $e && null === $sd[0], null !== $n && null === $sd[1], null !== $h && null === $sd[2]], $sd,
        );
    }

    /** @return ?array{float, float, ?float} */
    public function at(string $name): ?array
    {
        return $this->places[$name] ?? null;
    }

    public function isControl(string $name): bool
    {
        return isset($this->control[$name]);
    }

    /**
     * How a horizontal distance from one mark comes to the grid; null in a plane, and where nothing has a place. An instrument
     * that has no place yet is taken to stand at its target, or else at a mark of the project: a kilometre changes the scale
     * by a millionth or two, ten metres of height likewise.
     */
    public function reduction(string $from, string $to, float $instrumentHeight): ?LineReduction
    {
        $a = $this->withHeight($from) ?? $this->withHeight($to) ?? $this->any();
        $b = isset($this->places[$from]) ? $this->places[$to] ?? null : null;
        if (!$this->frame instanceof GridFrame || null === $a) {
            return null;
        }
        $h = $a[2] + $instrumentHeight;
        if (null !== $this->frame->geoid) {
            $there = $this->frame->geometry($a[0], $a[1], $h);
            $h += $this->frame->undulation((float) $there['lat'], (float) $there['lon']);
        }

        return LineReduction::of($this->frame->system, [$a[0], $a[1]], $h, null === $b ? null : [$b[0], $b[1]]);
    }

    /** @return ?array{float, float, float} */
    private function withHeight(string $name): ?array
    {
        $place = $this->places[$name] ?? null;

        return null === $place || null === $place[2] ? null : [$place[0], $place[1], $place[2]];
    }

    /** @return ?array{float, float, float} */
    private function any(): ?array
    {
        foreach ($this->places as $name => $place) {
            if (null !== $place[2]) {
                return $this->withHeight((string) $name);
            }
        }

        return null;
    }
}
