<?php

declare(strict_types=1);

namespace Mensura\Exchange\Points;

use Mensura\Exchange\Las\LasReader;
use Mensura\Exchange\Las\LazFile;
use Mensura\Exchange\Ply\PlyReader;
use Mensura\Exchange\PointsCsv\PointsCsvReader;
use Mensura\Exchange\Xyz\XyzReader;
use Mensura\Fault\UnusableInput;

/** Points of a file told by its contents: CSV with the columns id,e,n,h, LAS, LAZ, PLY, or lines of numbers. Flat arrays; metres. */
final readonly class PointFile
{
    private const HEAD = 65536;

    /**
     * @param ?list<string> $names null where the format has none
     * @param list<float>   $x
     * @param list<float>   $y
     * @param list<float>   $z
     * @param ?list<int>    $classes of the LAS specification; null where the format has none
     */
    private function __construct(
        public ?array $names, public array $x, public array $y, public array $z, public ?array $classes = null,
    ) {
    }

    /**
     * @param string $name for messages
     *
     * @throws UnusableInput
     */
    public static function read(string $path, string $name): self
    {
        $stream = is_dir($path) ? false : @fopen($path, 'r');
        if (false === $stream) {
            throw new UnusableInput($name, 'cannot be read; is the path right?');
        }
        $head = (string) fread($stream, self::HEAD);
        rewind($stream);
        if (str_starts_with($head, 'LASF')) {
            $las = new LasReader($stream, $name);
            if (!$las->isPacked) {
                return self::las($las);
            }
            $unpacked = fopen(LazFile::unpacked($path, $name), 'r');

            return false !== $unpacked ? self::las(new LasReader($unpacked, $name)) : throw new UnusableInput($name, 'cannot be unpacked');
        }
        if (1 === preg_match('/^ply\s/', $head)) {
            $ply = PlyReader::read($stream, $name);

            return new self(null, $ply->x, $ply->y, $ply->z);
        }
        if (self::isNumbers($head)) {
            return new self(null, ...XyzReader::read($stream, $name));
        }
        ['names' => $names, 'x' => $x, 'y' => $y, 'z' => $z] = PointsCsvReader::read($stream, $name);

        return new self($names, $x, $y, $z);
    }

    /** Whether the first line that is no remark is three or more numbers. */
    public static function isNumbers(string $head): bool
    {
        foreach (preg_split('/\r\n|\n|\r/', $head) ?: [] as $line) {
            $text = trim($line, " \t\xEF\xBB\xBF");
            if ('' !== $text && '#' !== $text[0] && ';' !== $text[0] && !str_starts_with($text, '//')) {
                return null !== XyzReader::numbers($text);
            }
        }

        return false;
    }

    private static function las(LasReader $las): self
    {
        $x = $y = $z = $classes = [];
        foreach ($las->points() as [$bx, $by, $bz, $of]) {
            array_push($x, ...$bx);
            array_push($y, ...$by);
            array_push($z, ...$bz);
            array_push($classes, ...$of);
        }

        return new self(null, $x, $y, $z, $classes);
    }
}
