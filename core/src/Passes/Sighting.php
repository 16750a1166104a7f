<?php

declare(strict_types=1);

namespace Mensura\Passes;

/** A target as a pass measured it, and as it is given. Seconds, metres. */
final readonly class Sighting
{
    /**
     * @param array{float, float, float} $seen
     * @param array{float, float, float} $given
     */
    public function __construct(
        public string $target, public bool $isControl, public int $pass, public float $time, public array $seen, public array $given,
    ) {
    }

    /** @return array{float, float, float} given - seen */
    public function before(): array
    {
        return $this->off([0.0, 0.0, 0.0]);
    }

    /**
     * @param array{float, float, float} $shift
     *
     * @return array{float, float, float} given - (seen + shift)
     */
    public function off(array $shift): array
    {
        [$e, $n, $h] = $this->given;

        return [$e - $this->seen[0] - $shift[0], $n - $this->seen[1] - $shift[1], $h - $this->seen[2] - $shift[2]];
    }
}
