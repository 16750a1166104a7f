<?php

declare(strict_types=1);

namespace App\HandOver\Package;

use App\Store\FileStore;
use Mensura\Exchange\MeshBytes\MeshCodec;
use Mensura\Exchange\Package\HeldItem;
use Mensura\Exchange\Package\HeldPackage;
use Mensura\Exchange\Package\LayerColour;
use Mensura\Exchange\Package\PackageReader;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\Tin;
use Psr\Cache\CacheItemPoolInterface;

/**
 * What packages hold, read from their zips; in the pieces a page or a controller asks for. A zip is named by its hash, so what was
 * read of it once stays true.
 *
 * @phpstan-type Line array{layer: string, vertices: list<array{float, float, float}>}
 * @phpstan-type Axis array{name: string, start: float, length: float, e: list<float>, n: list<float>, stations: list<float>}
 * @phpstan-type Drawing array{
 *     points: list<array{name: string, e: float, n: float, h: ?float, code: string}>, lines: list<Line>, background: list<Line>,
 *     alignments: list<Axis>,
 * }
 * @phpstan-type About array{
 *     name: string, project: string, made: string, system: string, heights: string, checked: string, leftOut: list<string>,
 *     items: list<array{kind: string, name: string, count: int, file: string, from: string, why: string}>,
 *     layers: list<array{name: string, colour: string, lines: int}>,
 *     surfaces: list<array{name: string, faces: int, low: float, high: float, box: array{float, float, float, float}}>,
 * }
 */
final class HeldPackages
{
    /** Of what is kept: another form of it is read anew. */
    private const FORM = 1;

    public function __construct(private readonly FileStore $store, private readonly CacheItemPoolInterface $cache)
    {
    }

    /** @return About */
    public function about(string $sha256): array
    {
        return $this->piece($sha256, 'about');
    }

    /** @return Drawing */
    public function drawing(string $sha256): array
    {
        return $this->piece($sha256, 'drawing');
    }

    /**
     * @return string bytes of {@see MeshCodec}
     *
     * @throws UnusableInput
     */
    public function mesh(string $sha256, int $surface): string
    {
        if (!isset($this->about($sha256)['surfaces'][$surface])) {
            throw new UnusableInput('/surface', 'the package holds no such surface');
        }

        return $this->piece($sha256, 'surface'.$surface);
    }

    private function piece(string $sha256, string $piece): mixed
    {
        $key = static fn (string $piece): string => \sprintf('package.%d.%s.%s', self::FORM, $sha256, $piece);
        $item = $this->cache->getItem($key($piece));
        if ($item->isHit()) {
            return $item->get();
        }
        $held = PackageReader::read($this->store->localPath($sha256), 'the package');
        $pieces = ['about' => self::said($held), 'drawing' => self::drawn($held)];
        foreach ($held->package->surfaces as $k => $s) {
            $pieces['surface'.$k] = MeshCodec::encode(new Tin($s['x'], $s['y'], $s['z'], $s['triangles'], []));
        }
        foreach ($pieces as $name => $value) {
            $this->cache->save($this->cache->getItem($key($name))->set($value)->expiresAfter(7 * 86400));
        }

        return $pieces[$piece] ?? throw new UnusableInput('/surface', 'the package holds no such surface');
    }

    /** @return About */
    private static function said(HeldPackage $held): array
    {
        $p = $held->package;
        $count = array_count_values(array_column($p->lines, 'layer'));
        $layers = $surfaces = [];
        foreach ($p->layers as $name => $colour) {
            $layers[] = ['name' => (string) $name, 'colour' => LayerColour::css($colour), 'lines' => $count[$name] ?? 0];
        }
        foreach ($p->surfaces as $s) {
            $box = [min($s['x']), min($s['y']), max($s['x']), max($s['y'])];
            $surfaces[] = [
                'name' => $s['name'], 'faces' => intdiv(\count($s['triangles']), 3), 'low' => min($s['z']), 'high' => max($s['z']),
                'box' => $box,
            ];
        }

        return [
            'name' => $p->name, 'project' => $p->project, 'made' => $p->made, 'system' => $p->systemName, 'heights' => $p->heights,
            'checked' => $p->checked, 'leftOut' => $p->leftOut,
            'items' => array_map(static fn (HeldItem $i): array => (array) $i, $held->items), 'layers' => $layers, 'surfaces' => $surfaces,
        ];
    }

    /** @return Drawing */
    private static function drawn(HeldPackage $held): array
    {
        $p = $held->package;
        $alignments = [];
        foreach ($p->alignments as $a) {
            $chords = $a->chords();
            $alignments[] = [
                'name' => $a->name, 'start' => $a->start, 'length' => $a->length, 'e' => $chords->x, 'n' => $chords->y,
                'stations' => array_map(static fn (float $s): float => $a->start + $s, $chords->stations),
            ];
        }

        return ['points' => $p->points, 'lines' => $p->lines, 'background' => $p->background, 'alignments' => $alignments];
    }
}
