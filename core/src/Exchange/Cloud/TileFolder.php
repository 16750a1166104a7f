<?php

declare(strict_types=1);

namespace Mensura\Exchange\Cloud;

use Mensura\Cloud\PointBlock;
use Mensura\Fault\UnusableInput;

/** Files of a tileset: .pnts of 3D Tiles 1.0 (OGC 22-025r4, section 10.3) with places about a middle of their own, and classes. */
final class TileFolder
{
    private int $number = 0;

    public function __construct(private readonly string $folder)
    {
    }

    /**
     * @param array{float, float, float} $middle
     *
     * @return string name of the file
     */
    public function content(PointBlock $points, array $middle): string
    {
        $places = $classes = '';
        [$x, $y, $z] = $middle;
        foreach ($points->x as $i => $e) {
            $places .= pack('g3', $e - $x, $points->y[$i] - $y, $points->z[$i] - $z);
            $classes .= \chr($points->classes[$i] & 255);
        }
        $table = ['POINTS_LENGTH' => $points->count(), 'RTC_CENTER' => $middle, 'POSITION' => ['byteOffset' => 0]];
        $feature = self::padded(json_encode($table, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION), ' ', 28);
        $body = self::padded($places, "\0", 0);
        $batch = ['CLASSIFICATION' => ['byteOffset' => 0, 'componentType' => 'UNSIGNED_BYTE', 'type' => 'SCALAR']];
        $batch = self::padded(json_encode($batch, \JSON_THROW_ON_ERROR), ' ', 0);
        $classes = self::padded($classes, "\0", 0);
        $lengths = [\strlen($feature), \strlen($body), \strlen($batch), \strlen($classes)];
        $name = ($this->number++).'.pnts';
        $this->put($name, 'pnts'.pack('V6', 1, 28 + array_sum($lengths), ...$lengths).$feature.$body.$batch.$classes);

        return $name;
    }

    public function put(string $name, string $bytes): void
    {
        if (\strlen($bytes) !== @file_put_contents($this->folder.'/'.$name, $bytes)) {
            throw new UnusableInput($this->folder, 'cannot be written to; is the disk full?');
        }
    }

    /** To a multiple of eight bytes, counted from where it begins. */
    private static function padded(string $bytes, string $with, int $begin): string
    {
        return $bytes.str_repeat($with, (8 - ($begin + \strlen($bytes)) % 8) % 8);
    }
}
