<?php

declare(strict_types=1);

namespace Mensura\Flight;

use Mensura\Fault\UnusableInput;
use Mensura\Matching\Features;
use Mensura\Matching\GreyImage;
use Mensura\Matching\TiePoints;

/** Tie points of a flight: features of every image, pairs that may show the same ground, what agrees in each, points through all. */
final class FlightImages
{
    /** Pixels an image is looked at with, the longer side. */
    public const LOOKED_AT = 1600;
    /** Features of an image, and of all together as many as memory holds. */
    private const FEATURES = 1000;
    private const LEAST_FEATURES = 300;
    private const ALL_FEATURES = 120_000;
    /** Pairs an image is part of at most: the nearest. */
    private const NEIGHBOURS = 14;
    /** Share of the diagonal of what an image shows within which another is taken to overlap. */
    private const REACH = 0.8;
    /** Matches that join two images. */
    private const JOINED = 16;

    /** @var list<array<int, array{float, float}>> pixels by image */
    public array $tracks = [];

    /** @var array<string, int> matches that agree, by pair "a b" */
    public array $pairs = [];

    /** @var list<int> images that nothing joins to the others */
    public array $alone = [];

    /** @var list<int> features of each */
    public array $features = [];

    /**
     * @param list<string>                            $paths
     * @param list<string>                            $names     for messages
     * @param list<float>                             $camera
     * @param list<array{float, float, float}>        $positions
     * @param ?\Closure(string, float): void          $progress
     *
     * @throws UnusableInput naming an image that is not as the mission says
     */
    public static function of(
        array $paths, array $names, array $camera, int $width, int $height, array $positions, float $above, ?\Closure $progress = null,
    ): self {
        $flight = new self();
        $report = $progress ?? static function (string $stage, float $fraction): void {};
        $features = [];
        $most = max(self::LEAST_FEATURES, min(self::FEATURES, intdiv(self::ALL_FEATURES, max(1, \count($paths)))));
        foreach ($paths as $i => $path) {
            $size = @getimagesize($path) ?: [0, 0];
            if ($size[0] !== $width || $size[1] !== $height) {
                $words = 'has %d × %d pixels, the mission says %d × %d';
                throw new UnusableInput($names[$i], \sprintf($words, $size[0], $size[1], $width, $height));
            }
            $features[] = $found = Features::of(GreyImage::read($path, $names[$i], self::LOOKED_AT), $most);
            $flight->features[] = $found->count();
            $report('features', ($i + 1) / \count($paths));
        }
        $points = new TiePoints($features);
        $pairs = self::pairs($positions, self::REACH * $above * hypot($width, $height) / $camera[0]);
        foreach ($pairs as $k => [$a, $b]) {
            $points->join($a, $b, $camera, $camera);
            $report('matching', ($k + 1) / \count($pairs));
        }
        $flight->pairs = $points->agreed;
        $flight->tracks = $points->tracks();
        $flight->alone = $flight->apart(\count($paths));

        return $flight;
    }

    /**
     * @param list<array{float, float, float}> $positions
     *
     * @return list<array{int, int}>
     */
    private static function pairs(array $positions, float $reach): array
    {
        $pairs = [];
        foreach ($positions as $i => [$e, $n]) {
            $near = [];
            foreach ($positions as $j => [$x, $y]) {
                $apart = hypot($x - $e, $y - $n);
                if ($j !== $i && $apart < $reach) {
                    $near[$j] = $apart;
                }
            }
            asort($near);
            foreach (\array_slice(array_keys($near), 0, self::NEIGHBOURS) as $j) {
                $pairs[min($i, $j).' '.max($i, $j)] = [min($i, $j), max($i, $j)];
            }
        }
        ksort($pairs);

        return array_values($pairs);
    }

    /** @return list<int> all but the greatest part that holds together */
    private function apart(int $count): array
    {
        $next = [];
        foreach ($this->pairs as $pair => $agreed) {
            if ($agreed >= self::JOINED) {
                [$a, $b] = array_map(intval(...), explode(' ', $pair));
                $next[$a][] = $b;
                $next[$b][] = $a;
            }
        }
        $best = $seen = [];
        for ($start = 0; $start < $count; ++$start) {
            $part = [];
            $open = isset($seen[$start]) ? [] : [$start];
            $seen[$start] = true;
            while ([] !== $open) {
                $part[] = $k = array_pop($open);
                foreach ($next[$k] ?? [] as $to) {
                    if (!isset($seen[$to])) {
                        $seen[$to] = true;
                        $open[] = $to;
                    }
                }
            }
            $best = \count($part) > \count($best) ? $part : $best;
        }

        return array_values(array_diff(range(0, $count - 1), $best));
    }
}
