<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Project\Project;
use App\Survey\Point;
use Mensura\Cloud\PointBlock;
use Mensura\Cloud\TargetFit;
use Mensura\Fault\UnusableInput;

/** A cloud brought to where control points are that it shows; check points among them take no part. Metres. */
final readonly class CloudTargets
{
    /** @param list<array{target: string, role: string, off: array{float, float, float}}> $off given minus seen and moved */
    private function __construct(private TargetFit $fit, private array $off)
    {
    }

    /**
     * @param non-empty-list<array{target: string, e: float, n: float, h: float}> $targets as the cloud shows them
     *
     * @throws UnusableInput naming a target that cannot be used
     */
    public static function of(Project $project, KnownPoints $points, array $targets): self
    {
        $known = $points->of($project);
        $seen = $given = $names = $checks = [];
        foreach ($targets as $i => $t) {
            $p = $known[$t['target']] ?? throw new UnusableInput("/targets/$i/target", \sprintf(
                '%s is no control or check point with given easting, northing and height', $t['target'],
            ));
            if (isset($checks[$p['name']]) || \in_array($p['name'], $names, true)) {
                throw new UnusableInput("/targets/$i/target", $p['name'].' is there twice');
            }
            if (Point::CHECK === $p['role']) {
                $checks[$p['name']] = [$t, $p];
                continue;
            }
            $names[] = $p['name'];
            $seen[] = [$t['e'], $t['n'], $t['h']];
            $given[] = [$p['e'], $p['n'], $p['h']];
        }
        if ([] === $seen || [] === $given) {
            throw new UnusableInput('/targets', 'hold no control point; check points alone move nothing');
        }
        $swapped = TargetFit::exchanged($seen, $given);
        if (null !== $swapped) {
            $words = 'show %s and %s exchanged: with the two names the other way round they fit';
            throw new UnusableInput('/targets', \sprintf($words, $names[$swapped[0]], $names[$swapped[1]]));
        }
        $fit = TargetFit::of($seen, $given);
        $off = array_map(static fn (string $name, array $o): array => [
            'target' => $name, 'role' => Point::CONTROL, 'off' => $o,
        ], $names, $fit->off);
        foreach ($checks as $name => [$t, $p]) {
            [[$e], [$n], [$h]] = $fit->apply([$t['e']], [$t['n']], [$t['h']]);
            $off[] = ['target' => $name, 'role' => Point::CHECK, 'off' => [$p['e'] - $e, $p['n'] - $n, $p['h'] - $h]];
        }

        return new self($fit, $off);
    }

    public function apply(PointBlock $points): PointBlock
    {
        return new PointBlock(...[
            ...$this->fit->apply($points->x, $points->y, $points->z), $points->classes, $points->records, $points->looks,
        ]);
    }

    /**
     * @return array{
     *     off: list<array{target: string, role: string, off: array{float, float, float}}>, rms: float,
     *     shift: array{float, float, float}, turn: float, isTilted: bool,
     * }
     */
    public function summary(): array
    {
        return [
            'off' => $this->off, 'rms' => $this->fit->rms, 'shift' => $this->fit->shift, 'turn' => $this->fit->turn(),
            'isTilted' => $this->fit->isTilted,
        ];
    }
}
