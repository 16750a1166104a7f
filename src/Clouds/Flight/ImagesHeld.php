<?php

declare(strict_types=1);

namespace App\Clouds\Flight;

use Mensura\Exchange\FlightJson\Mission;
use Mensura\Fault\UnusableInput;
use Mensura\Flight\FlightImages;
use Mensura\Flight\OrientedImages;
use Mensura\Matching\GreyImage;

/** The oriented images of a flight as they are looked at all at once, and each as it was taken. */
final class ImagesHeld
{
    /** Squares of the longer side of all images that are held at once. */
    private const MOST = 50_000_000;

    /**
     * @param array<int, GreyImage> $grey
     * @param float                 $scale pixels of an image as it was taken to one that is looked at
     * @param list<?string>         $paths
     */
    private function __construct(
        public array $grey, public readonly float $scale, private readonly Mission $mission, private readonly array $paths,
    ) {
    }

    /**
     * @param list<?string>         $paths  where the image of each lies
     * @param \Closure(float): void $report
     *
     * @throws UnusableInput naming an image that is not there, or cannot be read
     */
    public static function of(Mission $mission, OrientedImages $images, array $paths, \Closure $report): self
    {
        // The more there are, the smaller they are looked at.
        $looked = min(FlightImages::LOOKED_AT, (int) sqrt(self::MOST / max(1, \count($images->positions))));
        $grey = [];
        foreach (array_keys($images->positions) as $i) {
            $path = $paths[$i] ?? throw new UnusableInput('/flight', $mission->files[$i].' is not among the photos any more');
            $grey[$i] = GreyImage::read($path, $mission->files[$i], $looked);
            $report(\count($grey) / \count($images->positions));
        }

        return new self($grey, max(1.0, max($mission->width, $mission->height) / $looked), $mission, $paths);
    }

    /** What is looked at all at once takes most of the memory; it is not needed to the end. */
    public function letGo(): void
    {
        $this->grey = [];
    }

    /** In true colour, as it was taken. */
    public function open(int $image): \GdImage
    {
        return imagecreatefromjpeg((string) $this->paths[$image])
            ?: throw new UnusableInput('/flight', $this->mission->files[$image].' cannot be read');
    }
}
