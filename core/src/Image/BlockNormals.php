<?php

declare(strict_types=1);

namespace Mensura\Image;

use Mensura\LinearAlgebra\BlockCholesky;
use Mensura\LinearAlgebra\MinimumDegree;

/**
 * Where the unknowns of a block stand in its normal equations: points first, so that eliminating them leaves the images alone
 * (the Schur complement; Triggs et al. 2000, "Bundle adjustment: a modern synthesis", section 6), then images in an order that
 * fills little, then what is solved of the cameras.
 */
final class BlockNormals
{
    public readonly BlockCholesky $matrix;

    /** @var array<int, int> number of a point's unknowns among the blocks; held points have none */
    public array $ofPoint = [];
    /** @var array<int, int> of an image's position; its rotation is the one after it */
    public array $ofImage = [];
    /** @var array<int, list<array{int, list<int>}>> of a camera: block, and which of its values */
    public array $ofCamera = [];

    /** @var array<int, int> place of position and rotation of an image */
    public array $crossOf = [];
    /** @var array<int, array<int, int>> places of point and position (rows of the image), by image and point; rotation likewise */
    public array $position = [];
    /** @var array<int, array<int, int>> */
    public array $rotation = [];
    /** @var array<int, array<int, int>> of a camera's block with any block before it */
    public array $camera = [];

    public function __construct(Block $b, UsedRays $used)
    {
        $n = 0;
        foreach ($used->points as $p => $_) {
            if (!$b->isHeld($p)) {
                $this->ofPoint[$p] = $n++;
            }
        }
        $pointsOf = $imagesOf = [];
        foreach ($used->rays as $r) {
            [$i, $p] = [$b->rayImage[$r], $b->rayPoint[$r]];
            if (isset($this->ofPoint[$p])) {
                $pointsOf[$i][$p] = true;
                $imagesOf[$p][$i] = true;
            }
        }
        foreach (self::order(array_keys($used->images), $imagesOf) as $i) {
            $this->ofImage[$i] = $n;
            $n += 2;
        }
        $widths = array_fill(0, $n, 3);
        foreach ($b->solved as $c => $which) {
            foreach (array_chunk($which, 3) as $values) {
                $this->ofCamera[$c][] = [$n++, $values];
                $widths[] = \count($values);
            }
        }
        $rows = array_fill(0, max(1, $n), []);
        foreach ($this->ofImage as $i => $k) {
            foreach ($pointsOf[$i] ?? [] as $p => $_) {
                $rows[$k][] = $this->ofPoint[$p];
                $rows[$k + 1][] = $this->ofPoint[$p];
            }
            $rows[$k + 1][] = $k;
        }
        foreach ($this->ofCamera as $c => $blocks) {
            $before = [];
            foreach ($this->ofImage as $i => $k) {
                if ($b->cameraOf[$i] === $c) {
                    $before += [$k => true, $k + 1 => true];
                    foreach ($pointsOf[$i] ?? [] as $p => $_) {
                        $before[$this->ofPoint[$p]] = true;
                    }
                }
            }
            foreach ($blocks as [$k]) {
                $rows[$k] = array_keys($before);
                $before[$k] = true;
            }
        }
        $start = [0];
        $flat = [];
        for ($k = 0; $k < $n; ++$k) {
            array_push($flat, ...$rows[$k]);
            $start[] = \count($flat);
        }
        $this->matrix = new BlockCholesky($widths, $start, $flat);
        foreach ($this->ofImage as $i => $k) {
            $at = $start[$k];
            foreach ($pointsOf[$i] ?? [] as $p => $_) {
                $this->position[$i][$p] = $this->matrix->upperAt[$at++];
            }
            $at = $start[$k + 1];
            foreach ($pointsOf[$i] ?? [] as $p => $_) {
                $this->rotation[$i][$p] = $this->matrix->upperAt[$at++];
            }
            $this->crossOf[$i] = $this->matrix->upperAt[$at];
        }
        foreach ($this->ofCamera as $blocks) {
            foreach ($blocks as [$k]) {
                foreach ($rows[$k] as $j => $row) {
                    $this->camera[$k][$row] = $this->matrix->upperAt[$start[$k] + $j];
                }
            }
        }
    }

    /**
     * @param list<int>                        $images
     * @param array<int, array<int, true>>     $imagesOf by point
     *
     * @return list<int>
     */
    private static function order(array $images, array $imagesOf): array
    {
        $number = array_flip($images);
        $near = array_fill(0, max(1, \count($images)), []);
        foreach ($imagesOf as $of) {
            foreach ($of as $i => $_) {
                foreach ($of as $j => $_) {
                    if ($i !== $j) {
                        $near[$number[$i]][$number[$j]] = true;
                    }
                }
            }
        }
        $neighbours = array_map(array_keys(...), \array_slice($near, 0, \count($images)));
        $order = MinimumDegree::order($neighbours, array_fill(0, \count($images), 6));

        return array_map(static fn (int $k): int => $images[$k], $order);
    }
}
