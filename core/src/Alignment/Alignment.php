<?php

declare(strict_types=1);

namespace Mensura\Alignment;

use Mensura\Fault\UnusableInput;
use Mensura\Section\SectionLine;

/** A line in plan of lines, arcs and clothoids, with stations from a stated begin. Metres. */
final readonly class Alignment
{
    public float $length;

    /** @var list<float> stations from the begin at which elements begin */
    private array $begins;

    /**
     * @param list<Element> $elements
     * @param float         $start    station of the begin
     */
    public function __construct(public string $name, public array $elements, public float $start = 0.0)
    {
        $begins = [];
        $length = 0.0;
        foreach ($elements as $element) {
            $begins[] = $length;
            $length += $element->length;
        }
        if (!($length > 0.0)) {
            throw new UnusableInput($name, 'this alignment has no length');
        }
        $this->begins = $begins;
        $this->length = $length;
    }

    /** @return array{float, float, float} easting, northing and bearing at a length from the begin */
    public function at(float $s): array
    {
        $i = 0;
        while ($i + 1 < \count($this->begins) && $this->begins[$i + 1] <= $s) {
            ++$i;
        }

        return $this->elements[$i]->at($s - $this->begins[$i]);
    }

    /**
     * Chords that leave the curve by no more than this, with the stations of the curve itself.
     *
     * @param float $sag metres
     */
    public function chords(float $sag = 0.0002): SectionLine
    {
        $x = $y = $stations = [];
        foreach ($this->elements as $i => $element) {
            $sharpest = max(abs($element->from), abs($element->to));
            // The sag of a chord of length c on a curve of curvature k is k c² / 8.
            $parts = $sharpest > 0.0 ? max(1, (int) ceil($element->length / sqrt(8.0 * $sag / $sharpest))) : 1;
            for ($k = 0 === $i ? 0 : 1; $k <= $parts; ++$k) {
                $s = $element->length * $k / $parts;
                [$x[], $y[]] = $element->at($s);
                $stations[] = $this->begins[$i] + $s;
            }
        }

        return new SectionLine($x, $y, $stations);
    }
}
