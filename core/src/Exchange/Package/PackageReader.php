<?php

declare(strict_types=1);

namespace Mensura\Exchange\Package;

use Mensura\Exchange\Dxf\DxfReader;
use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureReader;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\LandXml\LandXmlAlignments;
use Mensura\Exchange\LandXml\LandXmlSurface;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Grid\Gtx;
use Mensura\Reference\Grid\UnreadableGrid;

/**
 * A package as its files hold it, not as its manifest says: everything is read from the zip, and what the manifest says of it is
 * held against that.
 */
final class PackageReader
{
    private const MOST_FILES = 50;
    private const LARGEST = 400_000_000;
    private const SHRINKS = 200;
    private const LARGE = 10_000_000;

    /**
     * @param string $name for messages
     *
     * @throws UnusableInput
     */
    public static function read(string $path, string $name): HeldPackage
    {
        // Never beside the file: where it is kept nothing else belongs.
        $folder = sys_get_temp_dir().'/package-held-'.bin2hex(random_bytes(8));
        if (!@mkdir($folder, 0700)) {
            throw new \RuntimeException($folder.' cannot be made.');
        }
        try {
            self::unpack($path, $name, $folder);

            return self::held($folder, $name);
        } finally {
            array_map(unlink(...), glob("$folder/*") ?: []);
            rmdir($folder);
        }
    }

    private static function unpack(string $path, string $name, string $folder): void
    {
        $zip = new \ZipArchive();
        if (true !== $zip->open($path, \ZipArchive::RDONLY)) {
            throw new UnusableInput($name, 'is a zip that cannot be opened: it is cut off or damaged');
        }
        if ($zip->numFiles > self::MOST_FILES) {
            throw new UnusableInput($name, \sprintf('holds %d files; a package has %d at most', $zip->numFiles, self::MOST_FILES));
        }
        for ($i = 0; $i < $zip->numFiles; ++$i) {
            $stat = $zip->statIndex($i);
            $member = \is_array($stat) ? $stat['name'] : '';
            if (!\is_array($stat) || 1 !== preg_match('/^[A-Za-z0-9][A-Za-z0-9._-]{0,100}$/', $member)) {
                throw new UnusableInput($name, \sprintf('"%s" in it is no name of a file of a package', mb_scrub($member)));
            }
            if ($stat['size'] > self::LARGEST || $stat['size'] > self::LARGE && $stat['size'] > self::SHRINKS * $stat['comp_size']) {
                throw new UnusableInput($name, \sprintf('"%s" is too large unpacked; nothing of it is read', $member));
            }
            $from = $zip->getStream($member);
            $to = fopen("$folder/$member", 'w');
            if (false === $from || false === $to || false === stream_copy_to_stream($from, $to, self::LARGEST)) {
                throw new UnusableInput($name, \sprintf('"%s" cannot be unpacked', $member));
            }
            fclose($to);
        }
        $zip->close();
    }

    private static function held(string $folder, string $name): HeldPackage
    {
        $manifest = json_decode((string) @file_get_contents("$folder/".PackageWriter::MANIFEST), true, 16);
        if (!\is_array($manifest) || PackageWriter::FORMAT !== ($manifest['format'] ?? null)) {
            throw new UnusableInput($name, 'is no package: it has no manifest.json of the format '.PackageWriter::FORMAT);
        }
        $p = new Package(self::text($manifest['name'] ?? ''), self::text($manifest['project'] ?? ''), self::text($manifest['made'] ?? ''));
        $system = (array) ($manifest['system'] ?? []);
        [$p->systemName, $p->heights] = [self::text($system['name'] ?? ''), self::text($system['heights'] ?? '')];
        $p->systemCode = '' === self::text($system['code'] ?? '') ? null : self::text($system['code']);
        $p->checked = self::text($manifest['checked'] ?? '');
        $p->leftOut = array_map(self::text(...), array_values((array) ($manifest['leftOut'] ?? [])));
        $called = [];
        foreach ((array) ($manifest['layers'] ?? []) as $layer) {
            $p->layers[self::text($layer['name'] ?? '')] = self::text($layer['colour'] ?? '');
            $called[self::text($layer['drawn'] ?? '')] = self::text($layer['name'] ?? '');
        }
        $faults = [];
        foreach (self::readers($called) as $file => $read) {
            if (is_file("$folder/$file")) {
                try {
                    $read($p, "$folder/$file");
                } catch (UnusableInput|UnreadableGrid $e) {
                    $faults[$file] = str_replace("$folder/", '', $e->getMessage());
                }
            }
        }

        return new HeldPackage($p, self::items($manifest, $p, $folder, $faults));
    }

    /**
     * @param array<string, string> $called layers by their names in the drawing
     *
     * @return array<string, \Closure(Package, string): void> by file
     */
    private static function readers(array $called): array
    {
        return [
            PackageWriter::DESIGN => self::design(...), PackageWriter::POINTS => self::points(...),
            PackageWriter::LINES => static fn (Package $p, string $path) => self::lines($p, $path, $called),
            PackageWriter::BACKGROUND => self::background(...), PackageWriter::SYSTEM => self::system(...),
            PackageWriter::SITE => self::site(...), PackageWriter::GEOID => self::geoid(...),
        ];
    }

    private static function design(Package $p, string $path): void
    {
        foreach (LandXmlSurface::all($path) as [$name, $x, $y, $z, $triangles]) {
            $p->surfaces[] = ['name' => $name, 'from' => '', 'x' => $x, 'y' => $y, 'z' => $z, 'triangles' => $triangles];
        }
        $p->alignments = LandXmlAlignments::read($path, basename($path));
    }

    /** @param array<string, string> $called layers by their names in the drawing */
    private static function lines(Package $p, string $path, array $called): void
    {
        foreach (DxfReader::entities($path) as $entity) {
            if ('line' === $entity->kind) {
                $p->lines[] = ['layer' => $called[$entity->layer] ?? $entity->layer, 'vertices' => $entity->vertices];
            }
        }
    }

    private static function points(Package $p, string $path): void
    {
        $set = self::features($path);
        [$naming, $coding] = [$set->naming() ?? '', $set->coding() ?? ''];
        foreach ($set->features as $f) {
            [$e, $n, $h] = $f->parts[0][0][0];
            $p->points[] = [
                'name' => (string) ($f->properties[$naming] ?? ''), 'e' => $e, 'n' => $n, 'h' => $h,
                'code' => (string) ($f->properties[$coding] ?? ''),
            ];
        }
    }

    private static function features(string $path): FeatureSet
    {
        return FeatureReader::of($path, basename($path))->set;
    }

    private static function background(Package $p, string $path): void
    {
        foreach (self::features($path)->features as $f) {
            foreach (Feature::LINE === $f->kind ? $f->parts : [] as [$places]) {
                $vertices = array_map(static fn (array $v): array => [$v[0], $v[1], $v[2] ?? 0.0], $places);
                $p->background[] = ['layer' => (string) ($f->properties['drawn'] ?? ''), 'vertices' => $vertices];
            }
        }
    }

    private static function system(Package $p, string $path): void
    {
        $p->system = (string) file_get_contents($path);
    }

    private static function site(Package $p, string $path): void
    {
        $p->localization = (string) file_get_contents($path);
        $p->localizationName = self::text(((array) json_decode($p->localization, true))['name'] ?? '');
    }

    private static function geoid(Package $p, string $path): void
    {
        $bytes = (string) file_get_contents($path);
        Gtx::read(basename($path), $bytes);
        $p->geoid = $bytes;
    }

    /**
     * @param array<mixed>          $manifest
     * @param array<string, string> $faults   by file
     *
     * @return list<HeldItem>
     */
    private static function items(array $manifest, Package $p, string $folder, array $faults): array
    {
        $hashes = [];
        foreach ((array) ($manifest['files'] ?? []) as $file) {
            $hashes[self::text($file['name'] ?? '')] = self::text($file['sha256'] ?? '');
        }
        $found = self::counted($p);
        $items = [];
        foreach ((array) ($manifest['items'] ?? []) as $item) {
            [$kind, $name, $file] = [self::text($item['kind'] ?? ''), self::text($item['name'] ?? ''), self::text($item['file'] ?? '')];
            $meant = (int) ($item['count'] ?? 0);
            $key = \in_array($kind, ['surface', 'alignment', 'lines'], true) ? "$kind $name" : $kind;
            $count = $found[$key] ?? 0;
            $isWhole = is_file("$folder/$file") && hash_file('sha256', "$folder/$file") === ($hashes[$file] ?? '');
            $why = match (true) {
                isset($faults[$file]) => $faults[$file],
                !is_file("$folder/$file") => "$file is missing",
                !$isWhole => "$file is not the file that was written: its hash differs",
                $count !== $meant => "holds $count where the manifest says $meant",
                default => '',
            };
            $items[] = new HeldItem($kind, $name, $count, $file, self::text($item['from'] ?? ''), $why);
        }

        return $items;
    }

    /** @return array<string, int> */
    private static function counted(Package $p): array
    {
        $found = [
            'points' => \count($p->points), 'background' => \count($p->background), 'system' => (int) ('' !== $p->system),
            'localization' => (int) ('' !== $p->localization), 'geoid' => (int) ('' !== $p->geoid),
        ];
        foreach ($p->surfaces as $s) {
            $found['surface '.$s['name']] = intdiv(\count($s['triangles']), 3);
        }
        foreach ($p->alignments as $a) {
            $found['alignment '.$a->name] = \count($a->elements);
        }
        foreach (array_count_values(array_column($p->lines, 'layer')) as $layer => $count) {
            $found['lines '.$layer] = $count;
        }

        return $found;
    }

    private static function text(mixed $value): string
    {
        return \is_string($value) ? mb_substr($value, 0, 400) : '';
    }
}
