<?php

declare(strict_types=1);

namespace App\Survey;

/** Where a point and what is given about it come to lie, metres, and how it is known there. */
final readonly class MovedPoint
{
    public function __construct(
        public ?float $e,
        public ?float $n,
        public ?float $h,
        public ?float $givenE,
        public ?float $givenN,
        public ?float $givenH,
        public string $known,
    ) {
    }

    public static function staying(PointRow $p, string $known): self
    {
        return new self($p->e, $p->n, $p->h, $p->givenE, $p->givenN, $p->givenH, $known);
    }

    /**
     * Both places of a point by one way; a height given alone follows where the point itself lies, and stays without one.
     *
     * @param \Closure(float, float, ?float): array{float, float, ?float} $way
     */
    public static function along(PointRow $p, string $known, \Closure $way): self
    {
        $place = self::follow($p->e, $p->n, $p->h, $p, $way);
        $given = self::follow($p->givenE, $p->givenN, $p->givenH, $p, $way);

        return new self($place[0], $place[1], $place[2], $given[0], $given[1], $given[2], $known);
    }

    /**
     * @param \Closure(float, float, ?float): array{float, float, ?float} $way
     *
     * @return array{?float, ?float, ?float}
     */
    private static function follow(?float $e, ?float $n, ?float $h, PointRow $p, \Closure $way): array
    {
        if (null !== $e && null !== $n) {
            return $way($e, $n, $h);
        }
        if (null !== $h && null !== $p->e && null !== $p->n) {
            $h = $way($p->e, $p->n, $h)[2];
        }

        return [$e, $n, $h];
    }
}
