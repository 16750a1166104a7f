<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** A loop of baselines, or a baseline measured twice, and what it misses by. Metres. */
final readonly class ClosureView
{
    /**
     * @param string       $kind      loop or repeat
     * @param list<string> $marks     in order
     * @param list<string> $baselines keys of those it is made of
     * @param list<string> $sessions
     * @param list<float>  $closure   east, north, up
     * @param bool         $independent false where all were recorded at once: such a loop closes by itself
     */
    public function __construct(
        public string $key,
        public string $kind,
        public array $marks,
        public array $baselines,
        public array $sessions,
        public float $length,
        public array $closure,
        public float $size,
        public float $allowed,
        public bool $independent,
    ) {
    }
}
