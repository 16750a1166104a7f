<?php

declare(strict_types=1);

namespace Mensura\Matching;

use Mensura\Fault\UnusableInput;

/**
 * Brightness of an image, 0 to 255, row by row from the top left. Places are as pixels are counted: the middle of the first is
 * (0.5, 0.5).
 */
final class GreyImage
{
    private const MOST_PIXELS = 120_000_000;

    /**
     * @param list<float> $v
     * @param float       $scale pixels of the image as it was taken to one of these
     */
    private function __construct(public readonly int $width, public readonly int $height, public array $v, public readonly float $scale)
    {
    }

    /**
     * @param list<int|float> $v
     */
    public static function of(int $width, int $height, array $v): self
    {
        if (\count($v) !== $width * $height) {
            throw new \InvalidArgumentException('An image has a value for every pixel.');
        }

        return new self($width, $height, array_map(floatval(...), $v), 1.0);
    }

    /**
     * A JPEG image, made smaller where it is wider or higher than so many pixels.
     *
     * @param string $name for messages
     *
     * @throws UnusableInput
     */
    public static function read(string $path, string $name, int $most): self
    {
        $size = @getimagesize($path);
        if (false === $size || $size[0] * $size[1] > self::MOST_PIXELS) {
            throw new UnusableInput($name, 'is no image, or has more than 120 million pixels');
        }
        $image = @imagecreatefromjpeg($path) ?: throw new UnusableInput($name, 'is no whole JPEG image');
        $scale = max(1.0, max($size[0], $size[1]) / $most);
        if ($scale > 1.0) {
            $smaller = imagescale($image, (int) round($size[0] / $scale), (int) round($size[1] / $scale), \IMG_BICUBIC);
            $image = $smaller ?: throw new UnusableInput($name, 'cannot be made smaller');
        }
        [$width, $height] = [imagesx($image), imagesy($image)];
        $v = [];
        for ($y = 0; $y < $height; ++$y) {
            for ($x = 0; $x < $width; ++$x) {
                $c = (int) imagecolorat($image, $x, $y);
                // Luma of ITU-R BT.601.
                $v[] = 0.299 * (($c >> 16) & 255) + 0.587 * (($c >> 8) & 255) + 0.114 * ($c & 255);
            }
        }

        return new self($width, $height, $v, $size[0] / $width);
    }

    /** The same, smoothed by a binomial of five. */
    public function smooth(): self
    {
        [$w, $h] = [$this->width, $this->height];

        return new self($w, $h, self::blurred($this->v, $w, $h), $this->scale);
    }

    /** Half as wide and high: every second pixel of the smoothed image. */
    public function half(): self
    {
        $v = self::blurred($this->v, $this->width, $this->height);
        [$w, $h] = [intdiv($this->width, 2), intdiv($this->height, 2)];
        $out = [];
        for ($y = 0; $y < $h; ++$y) {
            $at = 2 * $y * $this->width;
            for ($x = 0; $x < $w; ++$x) {
                // The mean of the four pixels it stands for keeps places where they are.
                $k = $at + 2 * $x;
                $out[] = 0.25 * ($v[$k] + $v[$k + 1] + $v[$k + $this->width] + $v[$k + $this->width + 1]);
            }
        }

        return new self($w, $h, $out, 2.0 * $this->scale);
    }

    /**
     * @param list<float> $v
     *
     * @return list<float> of a binomial of five in rows and columns; the edge goes on as it ends
     */
    public static function blurred(array $v, int $w, int $h): array
    {
        $rows = [];
        for ($y = 0; $y < $h; ++$y) {
            $at = $y * $w;
            $last = $at + $w - 1;
            for ($x = 0; $x < $w; ++$x) {
                $k = $at + $x;
                $a = $v[$x > 1 ? $k - 2 : $at];
                $b = $v[$x > 0 ? $k - 1 : $at];
                $d = $v[$k < $last ? $k + 1 : $last];
                $e = $v[$k + 1 < $last ? $k + 2 : $last];
                $rows[] = 0.0625 * ($a + $e) + 0.25 * ($b + $d) + 0.375 * $v[$k];
            }
        }
        $out = [];
        for ($y = 0; $y < $h; ++$y) {
            $a = ($y > 1 ? $y - 2 : 0) * $w;
            $b = ($y > 0 ? $y - 1 : 0) * $w;
            $c = $y * $w;
            $d = ($y < $h - 1 ? $y + 1 : $h - 1) * $w;
            $e = ($y < $h - 2 ? $y + 2 : $h - 1) * $w;
            for ($x = 0; $x < $w; ++$x) {
                $out[] = 0.0625 * ($rows[$a + $x] + $rows[$e + $x]) + 0.25 * ($rows[$b + $x] + $rows[$d + $x]) + 0.375 * $rows[$c + $x];
            }
        }

        return $out;
    }

    /** Brightness between the middles of pixels; null outside them. */
    public function at(float $x, float $y): ?float
    {
        [$u, $v] = [$x - 0.5, $y - 0.5];
        if ($u < 0.0 || $v < 0.0 || $u >= $this->width - 1 || $v >= $this->height - 1) {
            return null;
        }
        [$i, $j] = [(int) $u, (int) $v];
        [$u, $v, $k] = [$u - $i, $v - $j, $j * $this->width + $i];
        [$a, $b, $c, $d] = [$this->v[$k], $this->v[$k + 1], $this->v[$k + $this->width], $this->v[$k + $this->width + 1]];

        return $a + $u * ($b - $a) + $v * ($c - $a + $u * ($a - $b - $c + $d));
    }
}
