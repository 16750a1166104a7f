<?php

declare(strict_types=1);

namespace Mensura\Observation;

/**
 * A station of a network: coordinates in the network's frame (metres), any of which may be missing,
 * held exactly, or known with a standard deviation.
 */
final readonly class Station
{
    /**
     * @param array{bool, bool, bool}       $fixed e, n, h held
     * @param array{?float, ?float, ?float} $sd    e, n, h in metres
     */
    public function __construct(
        public string $id,
        public ?float $e,
        public ?float $n,
        public ?float $h,
        public array $fixed = [false, false, false],
        public array $sd = [null, null, null],
    ) {
    }
}
