<?php

declare(strict_types=1);

namespace App\Clouds;

use Mensura\Cloud\HeldPoints;
use Mensura\Cloud\PlaneField;
use Mensura\Cloud\PointBlock;
use Mensura\Cloud\RigidFit;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Fault\UnusableInput;

/** A cloud laid onto another by what both have in common. Metres. */
final readonly class CloudFit
{
    /** Points held of each; of more, one a cube that grows until they fit. */
    private const MOST = 2_000_000;
    private const FIRST_SIDE = 0.02;

    /** @param array{float, float, float} $origin */
    private function __construct(private string $onto, private RigidFit $fit, private array $origin)
    {
    }

    /**
     * @param list<array{CloudReader, ?\Closure(PointBlock): PointBlock}> $sources
     * @param \Closure(string, float): void                                                       $report
     *
     * @throws UnusableInput
     */
    public static function of(CloudReader $onto, array $sources, float $within, \Closure $report): self
    {
        $report('laying onto '.$onto->name, 0.03);
        $there = self::held([[$onto, null]]);
        $here = self::held($sources);
        $origin = [floor($there->x[0] ?? 0.0), floor($there->y[0] ?? 0.0), floor($there->z[0] ?? 0.0)];
        $field = new PlaneField(...[...self::from($there, $origin), $within]);
        try {
            $fit = RigidFit::of($field, ...[...self::from($here, $origin), $within]);
        } catch (UnusableInput $e) {
            throw new UnusableInput('/onto', 'the cloud '.$e->reason);
        }

        return new self($onto->name, $fit, $origin);
    }

    public function apply(PointBlock $points): PointBlock
    {
        return new PointBlock(...[
            ...$this->fit->apply($points->x, $points->y, $points->z, $this->origin), $points->classes, $points->records, $points->looks,
        ]);
    }

    /** @return array{onto: string, overlap: float, rms: float, shift: array{float, float, float}, turn: float} */
    public function summary(): array
    {
        return [
            'onto' => $this->onto, 'overlap' => $this->fit->overlap, 'rms' => $this->fit->rms, 'shift' => $this->fit->shift,
            'turn' => $this->fit->turn(),
        ];
    }

    /**
     * @param array{float, float, float} $origin
     *
     * @return array{list<float>, list<float>, list<float>}
     */
    private static function from(PointBlock $points, array $origin): array
    {
        $less = static fn (array $axis, float $by): array => array_values(array_map(static fn (float $v): float => $v - $by, $axis));

        return [$less($points->x, $origin[0]), $less($points->y, $origin[1]), $less($points->z, $origin[2])];
    }

    /** @param list<array{CloudReader, ?\Closure(PointBlock): PointBlock}> $sources */
    private static function held(array $sources): PointBlock
    {
        $held = new HeldPoints(self::MOST, self::FIRST_SIDE);
        foreach ($sources as [$reader, $way]) {
            foreach ($reader->blocks() as $block) {
                $block = null === $way ? $block : $way($block);
                $held->add(new PointBlock($block->x, $block->y, $block->z, $block->classes));
            }
        }

        return $held->points();
    }
}
