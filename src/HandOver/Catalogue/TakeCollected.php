<?php

declare(strict_types=1);

namespace App\HandOver\Catalogue;

use App\Account\User;
use App\HandOver\Field\TakeShots;
use App\HandOver\Kept\Given;
use App\HandOver\Request\CollectedRequest;
use App\Project\Project;
use App\Survey\FileIntake;
use App\Survey\PointRepository;
use Mensura\Exchange\FeatureCatalogue\FeatureCatalogue;
use Mensura\Exchange\FeatureCatalogue\FeatureType;
use Mensura\Fault\UnusableInput;
use Psr\Clock\ClockInterface;

/** Features that were collected in the field, held against the version of the catalogue they were collected with, then taken in. */
final class TakeCollected
{
    private const SHOWN = 8;

    public function __construct(
        private readonly FileIntake $intake, private readonly PointRepository $points, private readonly ClockInterface $clock,
    ) {
    }

    /**
     * @param string $of the catalogue, with its version
     *
     * @return array{file: int, names: list<string>, features: int}
     *
     * @throws UnusableInput naming what is wrong with which feature; nothing is taken then
     */
    public function take(Project $project, User $author, CollectedRequest $request, FeatureCatalogue $catalogue, string $of): array
    {
        $faults = $rows = $names = [];
        $taken = [];
        foreach ($this->points->onGrid($project) as $p) {
            $taken[$p->name] = true;
        }
        $columns = $this->columns($catalogue);
        $number = 0;
        // It is brought back from a simulated field, as it is collected.
        $now = $this->clock->now()->format(\DATE_ATOM);
        foreach ((new Given((array) $request))->items('features') as $i => $f) {
            $code = $f->text('code', 40);
            $type = $catalogue->type($code);
            $which = \sprintf('feature %d (%s)', $i + 1, $code);
            if (null === $type) {
                $faults[] = "$which: the catalogue has no type $code";
                continue;
            }
            $places = $f->items('places');
            $attributes = $request->features[$i]['attributes'] ?? [];
            $attributes = \is_array($attributes) ? $attributes : [];
            $sd = $fewest = null;
            foreach ($places as $place) {
                $sd = max($sd ?? 0.0, $place->number('sd', 0.0, 1e4));
                $fewest = min($fewest ?? \PHP_INT_MAX, $place->whole('positions', 1));
            }
            $solution = $f->oneOf('solution', FeatureType::SOLUTIONS, 'any');
            foreach ($type->faults(\count($places), $fewest ?? 0, $solution, $sd ?? 0.0, $attributes) as $fault) {
                $faults[] = "$which: $fault";
            }
            $values = array_map(static fn (string $c): string => self::text($attributes[$c] ?? ''), $columns);
            foreach ($places as $k => $place) {
                do {
                    $name = $code.'-'.++$number;
                } while (isset($taken[$name]));
                $words = self::linework($type->kind, $i + 1, $k, \count($places));
                $names[] = $name;
                $rows[] = [
                    $name, \sprintf('%.4F', $place->number('e', -1e8, 1e8)), \sprintf('%.4F', $place->number('n', -1e8, 1e8)),
                    \sprintf('%.4F', $place->number('h', -1e5, 1e5)), $code, (string) ($i + 1), $words,
                    \sprintf('%.4F', $place->number('sd', 0.0, 1e4)), (string) $place->whole('positions', 1), $now, $solution, ...$values,
                ];
            }
        }
        if ([] !== $faults) {
            $more = \count($faults) - self::SHOWN;
            $said = implode('; ', \array_slice($faults, 0, self::SHOWN));
            throw new UnusableInput('/features', $said.($more > 0 ? "; and $more more" : ''));
        }
        if ([] === $rows) {
            throw new UnusableInput('/features', 'nothing was collected');
        }
        $height = TakeShots::heightHeading($project);
        $head = ['point', 'easting [m]', 'northing [m]', $height, 'code', 'feature', 'line', 'sd plan [m]', 'positions', 'time', 'method'];
        $stream = fopen('php://temp', 'w+') ?: throw new \RuntimeException('No temporary file can be written.');
        fwrite($stream, "# collected with the catalogue $of\n");
        foreach ([[...$head, ...$columns], ...$rows] as $row) {
            fputcsv($stream, $row, ',', '"', '');
        }
        rewind($stream);
        $called = \sprintf('%s-collected-%s.csv', $of, $names[0]);
        $file = $this->intake->take($project, $author, $called, (string) stream_get_contents($stream));

        return ['file' => $file, 'names' => $names, 'features' => \count($request->features)];
    }

    private static function text(mixed $value): string
    {
        return \is_scalar($value) ? (string) $value : '';
    }

    private static function linework(string $kind, int $number, int $k, int $count): string
    {
        return FeatureType::POINT === $kind ? '' : $number.match (true) {
            0 === $k => ' start', $k === $count - 1 => FeatureType::AREA === $kind ? ' close' : ' end', default => '',
        };
    }

    /** @return list<string> names of all attributes, each once */
    private function columns(FeatureCatalogue $catalogue): array
    {
        $names = [];
        foreach ($catalogue->types as $type) {
            foreach ($type->attributes as $a) {
                $names[$a->name] = true;
            }
        }

        return array_map(strval(...), array_keys($names));
    }
}
