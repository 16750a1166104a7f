<?php

declare(strict_types=1);

namespace App\Clouds;

use Mensura\Cloud\PointBlock;
use Mensura\Deviation\CloudReference;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Fault\UnusableInput;

/** Colours of points by when they were measured, or by how far they lie over something else. Seconds, metres. */
final readonly class CloudPaint
{
    public const TIME = 'time';
    public const DEVIATION = 'deviation';

    /** From low to high; of deviations the middle is none. The page shows the same ones beside the cloud. */
    private const TIMES = [[47, 95, 158], [58, 140, 140], [106, 148, 78], [190, 150, 60], [168, 96, 42]];
    private const DEVIATIONS = [[47, 95, 158], [225, 222, 214], [168, 96, 42]];
    private const UNKNOWN = "\x96\x96\x92";
    private const SHADES = 255;

    /** @param list<string> $shades red, green, blue */
    private function __construct(
        private string $by, private string $against, private float $from, private float $to, private array $shades,
        private ?CloudReference $reference,
    ) {
    }

    /**
     * @param list<array{CloudReader, ?\Closure(PointBlock): PointBlock}> $sources
     *
     * @throws UnusableInput for points without times
     */
    public static function byTime(array $sources): self
    {
        [$from, $to] = [\INF, -\INF];
        foreach ($sources as [$reader]) {
            foreach ($reader->blocks() as $block) {
                $times = self::times($block, $reader);
                if ([] !== $times) {
                    $from = min($from, min($times));
                    $to = max($to, max($times));
                }
            }
        }

        if ($from > $to) {
            throw new UnusableInput('/files', 'hold no points');
        }

        return new self(self::TIME, '', $from, $to, self::shades(self::TIMES), null);
    }

    /**
     * @param array{list<float>, list<float>, list<float>, string} $reference points, and what they are
     * @param float                                                $range     deviation at which colours end
     *
     * @throws UnusableInput
     */
    public static function byDeviation(array $reference, float $range): self
    {
        [$x, $y, $z, $words] = $reference;

        return new self(self::DEVIATION, $words, -$range, $range, self::shades(self::DEVIATIONS), new CloudReference($x, $y, $z));
    }

    /** @throws UnusableInput for points without times */
    public function of(PointBlock $points, CloudReader $reader): PointBlock
    {
        $values = null === $this->reference ? self::times($points, $reader) : $this->deviations($points, $this->reference);
        $by = self::SHADES / max(1e-9, $this->to - $this->from);
        $looks = [];
        foreach ($values as $i => $v) {
            $colour = is_nan($v) ? self::UNKNOWN : $this->shades[(int) max(0, min(self::SHADES, round(($v - $this->from) * $by)))];
            $looks[] = substr(str_pad($points->looks[$i] ?? '', 2, "\0"), 0, 2).$colour;
        }

        return new PointBlock($points->x, $points->y, $points->z, $points->classes, $points->records, $looks);
    }

    /** @return array{by: string, against: string, from: float, to: float} */
    public function summary(): array
    {
        return ['by' => $this->by, 'against' => $this->against, 'from' => $this->from, 'to' => $this->to];
    }

    /** @return list<float> */
    private static function times(PointBlock $points, CloudReader $reader): array
    {
        $words = 'holds points without GPS time; colour it by something else, or export it with times';

        return $reader->las?->times(implode('', $points->records)) ?? throw new UnusableInput($reader->name, $words);
    }

    /** @return list<float> heights over planes of the other; NAN where it says nothing */
    private function deviations(PointBlock $points, CloudReference $reference): array
    {
        $values = [];
        foreach ($points->x as $i => $e) {
            $values[] = $points->z[$i] - $reference->plane($e, $points->y[$i])[0];
        }

        return $values;
    }

    /**
     * @param non-empty-list<array{int, int, int}> $colours
     *
     * @return list<string>
     */
    private static function shades(array $colours): array
    {
        $shades = [];
        for ($k = 0; $k <= self::SHADES; ++$k) {
            $at = min(0.9999, $k / self::SHADES) * (\count($colours) - 1);
            $i = (int) $at;
            $shade = '';
            foreach ([0, 1, 2] as $c) {
                $shade .= \chr((int) round($colours[$i][$c] + ($at - $i) * ($colours[$i + 1][$c] - $colours[$i][$c])));
            }
            $shades[] = $shade;
        }

        return $shades;
    }
}
