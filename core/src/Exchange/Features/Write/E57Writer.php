<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Write;

use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Reference\Registry\Registry;
use Mensura\Reference\Text\Wkt1Writer;

/** E57 (ASTM E2807-11): a scan a layer, Cartesian coordinates as doubles, pages with their checksums. */
final class E57Writer implements FeatureWriter
{
    private const PAGE = 1024;
    private const USABLE = 1020;
    private const HEADER = 48;

    /** Points in a packet: three streams of it fill less than the 64 kB a packet has. */
    private const IN_PACKET = 2000;

    public function write(FeatureSet $set, string $path): array
    {
        $lost = new Lost();
        $points = $lost->only($set, [Feature::POINT], 'E57');
        $lost->properties($set, []);
        $by = [];
        foreach ($points as $f) {
            foreach ($f->parts as [[[$x, $y, $h]]]) {
                if (null === $h) {
                    $lost->count('missing heights, written as 0');
                }
                $by[$f->layer][0][] = $x;
                $by[$f->layer][1][] = $y;
                $by[$f->layer][2][] = $h ?? 0.0;
            }
        }
        self::file($path, $by, $set->crs);

        return $lost->all();
    }

    /**
     * @param array<int|string, array{list<float>, list<float>, list<float>}> $by  coordinates by scan, metres
     * @param ?string                                                         $crs "EPSG:n"
     */
    public static function file(string $path, array $by, ?string $crs): void
    {
        // Logical bytes: pages and their sums are laid over them at the end.
        $bytes = str_repeat("\0", self::HEADER);
        $scans = '';
        foreach ($by as $layer => $places) {
            $at = self::physical(\strlen($bytes));
            $section = self::section($places, \strlen($bytes));
            $bytes .= $section;
            $scans .= self::scan((string) $layer, $places, $at, hash('sha256', $section));
        }
        $xml = self::description($scans, $crs);
        $from = self::physical(\strlen($bytes));
        $bytes .= $xml;
        $bytes .= str_repeat("\0", (self::USABLE - \strlen($bytes) % self::USABLE) % self::USABLE);
        $length = intdiv(\strlen($bytes), self::USABLE) * self::PAGE;
        $head = 'ASTM-E57'.pack('VVPPPP', 1, 0, $length, $from, \strlen($xml), self::PAGE);
        $bytes = $head.substr($bytes, self::HEADER);
        $file = fopen($path, 'w') ?: throw new \RuntimeException($path.' cannot be written.');
        foreach (str_split($bytes, self::USABLE) as $page) {
            fwrite($file, $page.hash('crc32c', $page, true));
        }
        fclose($file);
    }

    private static function physical(int $logical): int
    {
        return intdiv($logical, self::USABLE) * self::PAGE + $logical % self::USABLE;
    }

    /**
     * A section of packets, the first of them an index of the others.
     *
     * @param array{list<float>, list<float>, list<float>} $places
     * @param int                                          $at     logical place it will have
     */
    private static function section(array $places, int $at): string
    {
        $data = '';
        $chunks = [];
        for ($first = 0, $n = \count($places[0]); $first < $n; $first += self::IN_PACKET) {
            $chunks[] = [$first, \strlen($data)];
            $streams = array_map(static fn (array $axis): string => pack('e*', ...\array_slice($axis, $first, self::IN_PACKET)), $places);
            $packet = pack('v4', 3, ...array_map(\strlen(...), $streams)).implode('', $streams);
            $packet .= str_repeat("\0", (4 - (\strlen($packet) + 4) % 4) % 4);
            $data .= pack('CCv', 1, 0, \strlen($packet) + 3).$packet;
        }
        // Entries beyond what an index holds are left to be walked to.
        $chunks = \array_slice($chunks, 0, 2048);
        $index = 16 + 16 * \count($chunks);
        $begin = $at + 32 + $index;
        $entries = '';
        foreach ($chunks as [$record, $offset]) {
            $entries .= pack('PP', $record, self::physical($begin + $offset));
        }
        $head = pack('CCvvC', 0, 0, $index - 1, \count($chunks), 0).str_repeat("\0", 9);
        $length = 32 + $index + \strlen($data);

        return "\x01".str_repeat("\0", 7).pack('PPP', $length, self::physical($begin), self::physical($at + 32)).$head.$entries.$data;
    }

    /** @param array{list<float>, list<float>, list<float>} $places */
    private static function scan(string $name, array $places, int $at, string $hash): string
    {
        $bounds = '';
        foreach (['x', 'y', 'z'] as $k => $axis) {
            $values = $places[$k];
            $bounds .= \sprintf(
                '<%1$sMinimum type="Float">%2$s</%1$sMinimum><%1$sMaximum type="Float">%3$s</%1$sMaximum>', $axis,
                Plain::number([] === $values ? 0.0 : min($values)), Plain::number([] === $values ? 0.0 : max($values)),
            );
        }
        $count = \count($places[0]);

        return '<vectorChild type="Structure">'.self::text('guid', self::guid($name.$hash)).self::text('name', $name)
            ."<cartesianBounds type=\"Structure\">$bounds</cartesianBounds>"
            ."<points type=\"CompressedVector\" fileOffset=\"$at\" recordCount=\"$count\"><prototype type=\"Structure\">"
            .'<cartesianX type="Float"/><cartesianY type="Float"/><cartesianZ type="Float"/></prototype>'
            .'<codecs type="Vector" allowHeterogeneousChildren="1"/></points></vectorChild>';
    }

    private static function description(string $scans, ?string $crs): string
    {
        $system = null === $crs ? null : Wkt1Writer::write(Registry::open()->system($crs)->horizontal);

        return '<?xml version="1.0" encoding="UTF-8"?>'."\n"
            .'<e57Root type="Structure" xmlns="http://www.astm.org/COMMIT/E57/2010-e57-v1.0">'
            .self::text('formatName', 'ASTM E57 3D Imaging Data File').self::text('guid', self::guid($scans))
            .'<versionMajor type="Integer">1</versionMajor><versionMinor type="Integer">0</versionMinor>'
            .self::text('e57LibraryVersion', 'mensura').(null === $system ? '' : self::text('coordinateMetadata', $system))
            ."<data3D type=\"Vector\" allowHeterogeneousChildren=\"1\">$scans</data3D>"
            .'<images2D type="Vector" allowHeterogeneousChildren="1"/></e57Root>';
    }

    private static function text(string $element, string $text): string
    {
        return "<$element type=\"String\">".Plain::xml($text)."</$element>";
    }

    /** The same file has the same: it is made of what it holds. */
    private static function guid(string $of): string
    {
        $h = hash('sha256', $of);

        return \sprintf('{%s-%s-%s-%s-%s}', ...array_map(static fn (array $p): string => substr($h, ...$p), [
            [0, 8], [8, 4], [12, 4], [16, 4], [20, 12],
        ]));
    }
}
