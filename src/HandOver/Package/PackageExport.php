<?php

declare(strict_types=1);

namespace App\HandOver\Package;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\Project\Project;
use App\Reference\ReferenceContent;
use App\Survey\AcceptedCoordinates;
use Mensura\Alignment\Alignment;
use Mensura\Exchange\Package\HeldItem;
use Mensura\Exchange\Package\Package;
use Mensura\Exchange\Package\PackageReader;
use Mensura\Exchange\Package\PackageWriter;
use Mensura\Fault\UnusableInput;
use Psr\Clock\ClockInterface;

/** A package for field controllers and machines, as one zip of open files. */
final class PackageExport implements OffersChoice
{
    public const KEY = 'package';

    /** Metres: half of the last decimal of points and lines. */
    private const ALLOWED = 0.00001;

    public function __construct(
        private readonly PackageRepository $packages, private readonly PackageParts $parts, private readonly ClockInterface $clock,
    ) {
    }

    public static function key(): string
    {
        return self::KEY;
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Package', 'Write the package', 'package', 'zip', 'application/zip', 'Package',
            'points, lines, surfaces, alignments and what their coordinates mean, for a controller or a machine', 5, 1,
        );
    }

    public function choices(Project $project): array
    {
        $names = [];
        foreach ($this->packages->of($project) as $package) {
            $names[$package->id()] = $package->name();
        }

        return $names;
    }

    public function restsOn(array $chosen): array
    {
        $id = $chosen[0] ?? 0;
        $definition = $this->packages->find($id)?->definition();
        $contents = ['package:'.$id, ReferenceContent::kind()];
        $slots = array_map(static fn (int $s): string => 'surface:'.$s, $definition->surfaces ?? []);
        if ([] !== ($definition->roles ?? [])) {
            $contents[] = 'points';
            $slots[] = AcceptedCoordinates::SLOT;
        }

        return [$contents, $slots];
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        $package = $this->parts->of($project, $this->package($project, $chosen), $this->clock->now()->format(\DATE_ATOM));

        return [...$package->leftOut, ...PackageWriter::write($package, $path)];
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $meant = $this->parts->of($project, $this->package($project, $chosen), '');
        $held = PackageReader::read($path, 'the package');
        $back = $held->package;
        $faces = static fn (Package $p): int => (int) array_sum(
            array_map(static fn (array $s): int => intdiv(\count($s['triangles']), 3), $p->surfaces),
        );
        $faults = array_filter($held->items, static fn (HeldItem $i): bool => '' !== $i->why);
        $texts = static fn (Package $p): int => \count(array_filter([$p->system, $p->localization, $p->geoid]));
        $same = (int) ($meant->system === $back->system) + (int) ($meant->localization === $back->localization)
            + (int) ($meant->geoid === $back->geoid) - (3 - $texts($meant));

        return [
            Check::count('points', \count($meant->points), \count($back->points)),
            Check::count('surfaces', \count($meant->surfaces), \count($back->surfaces)),
            Check::count('triangles', $faces($meant), $faces($back)),
            Check::count('lines', \count($meant->lines), \count($back->lines)),
            Check::count('alignments', \count($meant->alignments), \count($back->alignments)),
            Check::count('system, localization, geoid', $texts($meant), $same),
            Check::count('files unlike the manifest', 0, \count($faults)),
            Check::difference('coordinates', self::difference($meant, $back), self::ALLOWED),
        ];
    }

    /** @param list<int> $chosen */
    private function package(Project $project, array $chosen): KeptPackage
    {
        return $this->packages->in($project, $chosen[0] ?? 0)
            ?? throw new UnusableInput('/surfaces', 'there is no such package in the project');
    }

    private static function difference(Package $meant, Package $back): float
    {
        $largest = 0.0;
        foreach ($meant->points as $i => $p) {
            $b = $back->points[$i] ?? null;
            $largest = null === $b || $b['name'] !== $p['name'] || (null === $b['h']) !== (null === $p['h'])
                ? \INF : max($largest, abs($b['e'] - $p['e']), abs($b['n'] - $p['n']), abs((float) $b['h'] - (float) $p['h']));
        }
        foreach ($meant->surfaces as $k => $s) {
            foreach (['x', 'y', 'z'] as $axis) {
                $largest = max($largest, self::apart($s[$axis], $back->surfaces[$k][$axis] ?? []));
            }
        }
        foreach ([[$meant->lines, $back->lines], [$meant->background, $back->background]] as [$lines, $others]) {
            foreach ($lines as $k => $line) {
                $largest = max($largest, self::apart(array_merge(...$line['vertices']), array_merge(...$others[$k]['vertices'] ?? [])));
            }
        }
        foreach ($meant->alignments as $k => $a) {
            $b = $back->alignments[$k] ?? null;
            $largest = $b instanceof Alignment ? max($largest, self::apart($a->at($a->length), $b->at($b->length))) : \INF;
        }

        return $largest;
    }

    /**
     * @param list<float> $a
     * @param list<float> $b
     */
    private static function apart(array $a, array $b): float
    {
        if (\count($a) !== \count($b)) {
            return \INF;
        }
        $largest = 0.0;
        foreach ($a as $i => $value) {
            $largest = max($largest, abs($value - $b[$i]));
        }

        return $largest;
    }
}
