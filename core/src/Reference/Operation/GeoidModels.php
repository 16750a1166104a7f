<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Crs\VerticalSystem;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Registry\Registry;

/**
 * The geoid model of each height system of a way: the one given, one asked for by name, else the registry's best.
 *
 * @phpstan-type Entry array{row: array<string, int|float|string|null>, path: ?string, accuracy: float, system: string}
 * @phpstan-type Model array{GeoidGrid, HorizontalSystem, string, ?float}
 */
final class GeoidModels
{
    /** @var list<VerticalSystem> */
    private array $heights = [];

    /** @var array<string, true> paths asked for by name that are in use */
    private array $used = [];

    public function __construct(private readonly Registry $registry, private readonly GridFiles $files)
    {
    }

    /** A way between these height systems is planned from the beginning. */
    public function begin(?VerticalSystem ...$heights): void
    {
        $this->heights = array_values(array_filter($heights));
        $this->used = [];
    }

    /** @return list<string> names of the files asked for by name that no height system uses */
    public function unused(): array
    {
        return array_map(basename(...), array_values(array_diff($this->files->namedGeoids(), array_keys($this->used))));
    }

    /**
     * @param HorizontalSystem $own the three-dimensional system the heights are used with
     *
     * @return Model grid, geodetic system it belongs to, name, accuracy in metres
     *
     * @throws MissingGrid
     * @throws NoWay
     */
    public function of(VerticalSystem $vertical, HorizontalSystem $own, RouteSettings $settings, ?Area $area): array
    {
        $entries = $this->entries($vertical, $area);
        if (null !== $settings->geoid) {
            // The given file is read in the datum its registry entry names, when the registry knows the file; else in the system's own.
            foreach ($entries as $entry) {
                if (null !== $entry['path'] && basename($entry['path']) === $settings->geoid->name) {
                    return [$settings->geoid, $this->registry->horizontalSystem($entry['system']), $settings->geoid->name, null];
                }
            }

            return [$settings->geoid, $own, $settings->geoid->name, null];
        }

        return $this->named($vertical, $own, $entries, $area) ?? $this->registered($vertical, $own, $entries, $settings->fallBack);
    }

    /**
     * @param list<Entry> $entries
     *
     * @return ?Model
     */
    private function named(VerticalSystem $vertical, HorizontalSystem $own, array $entries, ?Area $area): ?array
    {
        $named = $this->files->namedGeoids();
        if ([] === $named) {
            return null;
        }
        foreach ($entries as $entry) {
            if (\in_array($entry['path'], $named, true)) {
                $this->used[$entry['path']] = true;

                return $this->model($entry);
            }
        }
        $stated = null === $vertical->geoidGrid ? null : $this->files->find([$vertical->geoidGrid]);
        $known = array_filter([$stated, ...array_column($entries, 'path')]);
        $elsewhere = [];
        foreach ($this->heights as $other) {
            $elsewhere = [...$elsewhere, ...array_column($this->entries($other, $area), 'path')];
        }
        $free = array_values(array_diff($named, $elsewhere));
        if (\in_array($stated, $free, true)) {
            $free = [$stated];
        } elseif ([] === $free || \count($this->heights) > 1 && [] !== $known) {
            return null; // it is the other height system that needs it
        }
        $this->used[$free[0]] = true;

        return [$this->files->geoid($free[0]), $own, basename($free[0]), null];
    }

    /**
     * @param list<Entry> $entries
     *
     * @return Model
     */
    private function registered(VerticalSystem $vertical, HorizontalSystem $own, array $entries, bool $fallBack): array
    {
        if (null !== $vertical->geoidGrid) {
            $path = $this->files->find([$vertical->geoidGrid]) ?? throw new MissingGrid(\sprintf(
                '%s needs the geoid grid %s, which is not installed', $vertical->label(), $vertical->geoidGrid,
            ));

            return [$this->files->geoid($path), $own, basename($path), null];
        }
        if ([] === $entries) {
            throw new NoWay(\sprintf('the registry knows no geoid model for %s; name one with --geoid', $vertical->label()));
        }
        foreach ($entries as $entry) {
            if (null !== $entry['path']) {
                if ($entry !== $entries[0] && $entries[0]['accuracy'] < $entry['accuracy'] && !$fallBack) {
                    break;
                }

                return $this->model($entry);
            }
        }
        throw new MissingGrid(\sprintf(
            'heights of %s need the geoid grid %s ("%s"), which is not installed; name a file with --geoid',
            $vertical->label(),
            $entries[0]['row']['grid_name'],
            $entries[0]['row']['name'],
        ));
    }

    /**
     * @param Entry $entry
     *
     * @return Model
     */
    private function model(array $entry): array
    {
        return [
            $this->files->geoid((string) $entry['path']), $this->registry->horizontalSystem($entry['system']),
            (string) $entry['row']['name'], is_infinite($entry['accuracy']) ? null : $entry['accuracy'],
        ];
    }

    /**
     * The registry's ways between a height system and ellipsoidal heights, best first; a file asked for by name counts
     * wherever the way is.
     *
     * @return list<Entry>
     */
    private function entries(VerticalSystem $vertical, ?Area $area): array
    {
        $entries = [];
        if (null === $vertical->code) {
            return [];
        }
        foreach ($this->registry->rows(
            "SELECT * FROM grid_transformation WHERE deprecated = 0 AND auth_name = 'EPSG' AND method_name LIKE "
                ."'Geographic3D to %' AND target_crs_auth_name = ? AND target_crs_code = ?",
            Registry::split($vertical->code),
        ) as $row) {
            $names = [(string) $row['grid_name']];
            foreach ($this->registry->rows(
                'SELECT proj_grid_name p, old_proj_grid_name o FROM grid_alternatives WHERE original_grid_name = ?',
                [$row['grid_name']],
            ) as $other) {
                $names[] = (string) $other['p'];
                $names[] = (string) ($other['o'] ?? '');
            }
            $path = $this->files->find($names);
            $extent = $this->registry->area('grid_transformation', $row['auth_name'].':'.$row['code']);
            if (null !== $area
                && null !== $extent
                && null === $extent->intersection($area)
                && !\in_array($path, $this->files->namedGeoids(), true)
            ) {
                continue;
            }
            $entries[] = [
                'row' => $row,
                'path' => $path,
                'accuracy' => null === $row['accuracy'] ? \INF : (float) $row['accuracy'],
                'system' => $row['source_crs_auth_name'].':'.$row['source_crs_code'],
            ];
        }
        usort($entries, static fn (
            array $x, array $y,
        ): int => $x['accuracy'] <=> $y['accuracy'] ?: (null === $x['path'] ? 1 : 0) <=> (null === $y['path'] ? 1 : 0));

        return $entries;
    }
}
