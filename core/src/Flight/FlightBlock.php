<?php

declare(strict_types=1);

namespace Mensura\Flight;

use Mensura\Fault\UnusableInput;
use Mensura\Image\Approximation;
use Mensura\Image\Block;
use Mensura\Image\BlockAdjustment;
use Mensura\Image\Lens;
use Mensura\Image\UsedRays;

/**
 * The images of a flight as a block: positions as the mission says them, tie points as they were found, marks of control in the images.
 * Adjusted first without control, then with it; what contradicts all others is left out, a few rays at a time (data snooping, Baarda
 * 1968). Metres, pixels.
 *
 * @phpstan-type Known array{
 *     id: string, role: string, place: array{float, float, float}, sd: ?array{float, float, float}, marks: array<int, array{float, float}>,
 * }
 */
final class FlightBlock
{
    public const TIE_SD = 0.5;
    public const TIE_SD_OF_GROUP = 0.3;
    public const MARK_SD = 0.7;

    public const ENOUGH = 120;
    /** Few images that look at one wall: what tells its distance is small in each, and wants many. */
    public const ENOUGH_OF_GROUP = 450;
    private const ROUNDS = 10;
    private const FEW = 8;
    private const MOST = 60;
    /** Beyond it a residual over its standard deviation is no chance. */
    private const CRITICAL = 3.9;
    /** Times the residual half of the points have before anything is adjusted, beyond which a point is mistaken. */
    private const GROSS = 4.0;
    /** Radians between the rays of a tie point below which they say nothing of where it is. */
    private const PARALLEL = 0.002;

    /**
     * @param list<float>                                                         $camera    in the order of {@see Lens::NAMES}
     * @param list<int>                                                           $solved    which of them are solved
     * @param list<string>                                                        $images    names
     * @param list<array{float, float, float}>                                    $positions
     * @param array{float, float, float}                                          $sd        of them
     * @param list<?list<float>>                                                  $rotations approximations; null where nothing is known
     * @param list<array<int, array{float, float}>>                               $tracks    pixels of tie points, by image
     * @param list<Known>                                                         $known     control and check points
     * @param ?array{float, float}                                                $turnSd    of the rotations, tilt and heading, degrees;
     *                                                                                       null where they are approximations
     * @param int                                                                 $enough    rays an image has at least before further
     *                                                                                       tie points are left out
     * @param float                                                               $tieSd     of their pixels
     */
    public function __construct(
        private readonly array $camera, private readonly array $solved, private readonly array $images, private readonly array $positions,
        private readonly array $sd, private readonly array $rotations, private readonly array $tracks, private readonly array $known,
        private readonly ?array $turnSd = null, private readonly int $enough = self::ENOUGH, private readonly float $tieSd = self::TIE_SD,
    ) {
    }

    /**
     * @param bool                          $hasControl without it, check points and control are both only looked at
     * @param ?FlightAdjusted               $begin      of a run before: where it begins, and what is left out already
     * @param ?\Closure(string, float): void $progress
     *
     * @throws UnusableInput where something is not determined, naming it
     */
    public function adjust(bool $hasControl, ?FlightAdjusted $begin, ?\Closure $progress = null): FlightAdjusted
    {
        $left = $begin->left ?? $this->gross($this->block($hasControl, [], null));
        $round = 0;
        $isClean = $isLast = false;
        do {
            $block = $this->block($hasControl, $left, $begin);
            $used = UsedRays::of($block);
            $adjustment = new BlockAdjustment($block, $used);
            // While something contradicts the rest, the end of the way does not matter.
            try {
                $result = $adjustment->run($isClean ? self::MOST : self::FEW);
            } catch (UnusableInput $e) {
                $left += self::tie($block, $adjustment->undetermined ?? throw $e) ?? throw $e;
                continue;
            }
            $begin = new FlightAdjusted($block, $used, $adjustment, $result, $left);
            $more = $this->worst($block, $begin);
            $left += $more;
            $isLast = $isClean || $result->converged && [] === $more;
            $isClean = [] === $more || $round > self::ROUNDS - 3;
            ++$round;
            if (null !== $progress) {
                $progress($hasControl ? 'with control' : 'without control', min(0.95, $round / self::ROUNDS));
            }
        } while (!$isLast && $round < self::ROUNDS);

        return $begin ?? throw new \LogicException('Left without a block that is solved.');
    }

    /**
     * @param array<string, true> $left rays that are left out, "image track"
     */
    private function block(bool $hasControl, array $left, ?FlightAdjusted $begin): Block
    {
        $b = new Block();
        $b->cameraIds = ['camera'];
        $b->cameras = [$begin?->result->cameras[0] ?? $this->camera];
        $b->cameraSizes = [[]];
        $b->solved = [$this->solved];
        foreach ($this->images as $i => $name) {
            $b->imageIds[] = $name;
            $b->cameraOf[] = 0;
            $b->positions[] = $this->positions[$i];
            $b->rotations[] = $begin?->result->rotations[$i] ?? $this->rotations[$i];
            $b->positionSds[] = $this->sd;
            if (null !== $this->turnSd && null !== $this->rotations[$i]) {
                $b->rotationsGiven[$i] = $this->rotations[$i];
                $b->turnSds[$i] = [$this->turnSd[0], $this->turnSd[0], $this->turnSd[1]];
            }
        }
        $count = array_fill(0, \count($this->images), 0);
        foreach ($this->tracks as $t => $track) {
            $rays = array_filter($track, static fn (int $i): bool => !isset($left["$i $t"]), \ARRAY_FILTER_USE_KEY);
            if (\count($rays) < 2 || min(array_intersect_key($count, $rays)) >= $this->enough) {
                continue;
            }
            $p = self::point($b, "T$t", Block::TIE, null, null);
            foreach ($rays as $i => [$x, $y]) {
                ++$count[$i];
                self::ray($b, $i, $p, $x, $y, $this->tieSd);
            }
        }
        foreach ($this->known as $known) {
            $role = $hasControl && Block::CONTROL === $known['role'] ? Block::CONTROL : Block::CHECK;
            $p = self::point($b, $known['id'], $role, $known['place'], Block::CONTROL === $role ? $known['sd'] : null);
            foreach ($known['marks'] as $i => [$x, $y]) {
                self::ray($b, $i, $p, $x, $y, self::MARK_SD);
            }
        }

        return $b;
    }

    /**
     * Rays of a tie point, that it is left out by: one that is all but in the direction of its images says nothing.
     *
     * @return ?array<string, true> null where it is no tie point
     */
    private static function tie(Block $b, int $point): ?array
    {
        if (Block::TIE !== $b->roles[$point]) {
            return null;
        }
        $left = [];
        foreach (array_keys($b->rayPoint, $point, true) as $r) {
            $left[$b->rayImage[$r].' '.substr($b->pointIds[$point], 1)] = true;
        }

        return $left;
    }

    /**
     * @param ?array{float, float, float} $place
     * @param ?array{float, float, float} $sd
     */
    private static function point(Block $b, string $id, string $role, ?array $place, ?array $sd): int
    {
        $b->pointIds[] = $id;
        $b->roles[] = $role;
        $b->places[] = $place;
        $b->placeSds[] = $sd;

        return \count($b->pointIds) - 1;
    }

    private static function ray(Block $b, int $image, int $point, float $x, float $y, float $sd): void
    {
        $b->rayImage[] = $image;
        $b->rayPoint[] = $point;
        $b->rayX[] = $x;
        $b->rayY[] = $y;
        $b->raySd[] = $sd;
    }

    /**
     * Tie points that are far from agreeing where the images are said to be, mistaken somewhere, and those all but in one direction from
     * all of their images: no solution begins with them.
     *
     * @return array<string, true>
     */
    private function gross(Block $b): array
    {
        $used = UsedRays::of($b);
        $begin = new Approximation($b, $used);
        $worst = [];
        foreach ($used->rays as $r) {
            $p = $b->rayPoint[$r];
            if (Block::TIE === $b->roles[$p]) {
                $i = $b->rayImage[$r];
                $off = self::off($b, $begin->rotations[$i], $i, $begin->places[$p], $r);
                $worst[$p] = max($worst[$p] ?? 0.0, $off);
            }
        }
        if ([] === $worst) {
            return [];
        }
        $sorted = array_values($worst);
        sort($sorted);
        $most = self::GROSS * $sorted[intdiv(\count($sorted), 2)];
        $parallel = self::parallel($b, $used, $begin->places);
        $left = [];
        foreach ($b->rayPoint as $r => $p) {
            if (($worst[$p] ?? 0.0) > $most || isset($parallel[$p])) {
                $left[$b->rayImage[$r].' '.substr($b->pointIds[$p], 1)] = true;
            }
        }

        return $left;
    }

    /**
     * @param array<int, array{float, float, float}> $places
     *
     * @return array<int, true> tie points
     */
    private static function parallel(Block $b, UsedRays $used, array $places): array
    {
        $first = $apart = [];
        foreach ($used->rays as $r) {
            $p = $b->rayPoint[$r];
            if (Block::TIE !== $b->roles[$p]) {
                continue;
            }
            $at = $b->positions[$b->rayImage[$r]];
            [$x, $y, $z] = [$places[$p][0] - $at[0], $places[$p][1] - $at[1], $places[$p][2] - $at[2]];
            $length = sqrt($x * $x + $y * $y + $z * $z);
            $ray = $length > 0.0 ? [$x / $length, $y / $length, $z / $length] : [0.0, 0.0, 0.0];
            $u = $first[$p] ??= $ray;
            $chord = sqrt(($ray[0] - $u[0]) ** 2 + ($ray[1] - $u[1]) ** 2 + ($ray[2] - $u[2]) ** 2);
            $apart[$p] = max($apart[$p] ?? 0.0, $chord);
        }

        return array_fill_keys(array_keys(array_filter($apart, static fn (float $a): bool => $a < self::PARALLEL)), true);
    }

    /**
     * @param list<float>                $m
     * @param array{float, float, float} $place
     */
    private static function off(Block $b, array $m, int $i, array $place, int $r): float
    {
        [$e, $n, $h] = [$place[0] - $b->positions[$i][0], $place[1] - $b->positions[$i][1], $place[2] - $b->positions[$i][2]];
        $z = $m[2] * $e + $m[5] * $n + $m[8] * $h;
        if ($z > -1e-9) {
            return \INF;
        }
        [$x, $y] = Lens::pixel(
            $b->cameras[$b->cameraOf[$i]], -($m[0] * $e + $m[3] * $n + $m[6] * $h) / $z, ($m[1] * $e + $m[4] * $n + $m[7] * $h) / $z,
        );

        return hypot($x - $b->rayX[$r], $y - $b->rayY[$r]);
    }

    /**
     * Of every image the ray that is farthest out, of every tie point one at most. Marks stay: they were set by hand, and are shown.
     *
     * @return array<string, true>
     */
    private function worst(Block $b, FlightAdjusted $adjusted): array
    {
        $worst = [];
        // What the measurements are worth shows in themselves; better than assumed they are not taken for.
        $unit = max(1.0, $adjusted->result->sigma0 ?? 1.0);
        foreach ($adjusted->result->rays as $r => [, , $standardized]) {
            $off = abs($standardized ?? 0.0) / $unit;
            if ($off > self::CRITICAL && Block::TIE === $b->roles[$b->rayPoint[$r]]) {
                $worst[$r] = $off;
            }
        }
        arsort($worst);
        $taken = $points = [];
        foreach ($worst as $r => $off) {
            $p = $b->rayPoint[$r];
            if (!isset($points[$p])) {
                $points[$p] = true;
                $taken[$b->rayImage[$r].' '.substr($b->pointIds[$p], 1)] = true;
            }
        }

        return $taken;
    }
}
