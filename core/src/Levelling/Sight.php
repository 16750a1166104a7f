<?php

declare(strict_types=1);

namespace Mensura\Levelling;

/** A row of a levelling book: a reading of the staff on a point, metres. */
final readonly class Sight
{
    public const BACK = 'back';
    public const FORE = 'fore';
    public const INTERMEDIATE = 'intermediate';

    /**
     * @param self::*  $kind
     * @param ?float   $distance from level to staff, metres
     */
    public function __construct(
        public string $kind,
        public string $point,
        public float $reading,
        public ?float $distance,
    ) {
    }
}
