<?php

declare(strict_types=1);

namespace Mensura\StakeOut;

/** Where one stands beside a line: its nearest place, station and offset. Metres. */
final readonly class ToLine
{
    /**
     * @param float  $station along the line in plan, from that of its begin
     * @param float  $offset  right of the line as it runs; left negative
     * @param ?float $height  of the line there; null where it has none
     * @param bool   $beyond  whether its end is nearer than any place abeam
     */
    private function __construct(
        public float $station, public float $offset, public float $e, public float $n, public ?float $height, public bool $beyond,
    ) {
    }

    /**
     * The nearest place of a polyline. At a corner that points away the offset is the distance to the corner, on the side it lies.
     *
     * @param list<float>  $x        easting, at least two
     * @param list<float>  $y        northing
     * @param ?list<float> $z        heights
     * @param ?list<float> $stations of the vertices, where they are those of a curve; otherwise lengths in plan
     */
    public static function of(float $e, float $n, array $x, array $y, ?array $z = null, ?array $stations = null): ?self
    {
        $best = null;
        $least = \INF;
        $along = $stations[0] ?? 0.0;
        $last = \count($x) - 1;
        for ($i = 1; $i <= $last; ++$i) {
            [$dx, $dy] = [$x[$i] - $x[$i - 1], $y[$i] - $y[$i - 1]];
            $length = hypot($dx, $dy);
            $next = $stations[$i] ?? $along + $length;
            if ($length > 0.0) {
                $t = (($e - $x[$i - 1]) * $dx + ($n - $y[$i - 1]) * $dy) / ($length * $length);
                $u = max(0.0, min(1.0, $t));
                [$fe, $fn] = [$x[$i - 1] + $u * $dx, $y[$i - 1] + $u * $dy];
                $away = hypot($e - $fe, $n - $fn);
                if ($away < $least) {
                    $least = $away;
                    $side = ($e - $x[$i - 1]) * $dy - ($n - $y[$i - 1]) * $dx;
                    $height = null === $z ? null : $z[$i - 1] + $u * ($z[$i] - $z[$i - 1]);
                    $beyond = 1 === $i && $t < 0.0 || $i === $last && $t > 1.0;
                    $best = new self($along + $u * ($next - $along), $side < 0.0 ? -$away : $away, $fe, $fn, $height, $beyond);
                }
            }
            $along = $next;
        }

        return $best;
    }
}
