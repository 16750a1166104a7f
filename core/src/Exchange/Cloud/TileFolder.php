<?php

declare(strict_types=1);

namespace Mensura\Exchange\Cloud;

use Mensura\Cloud\PointBlock;
use Mensura\Fault\UnusableInput;

/**
 * Files of a tileset: .pnts of 3D Tiles 1.0 (OGC 22-025r4, section 10.3) with places about a middle of their own,
 * classes, and what else is known of how points look.
 */
final class TileFolder
{
    private int $number = 0;

    /** @param bool $hasColours whether what is said of looks says colours too */
    public function __construct(private readonly string $folder, private readonly bool $hasColours = false)
    {
    }

    /**
     * @param array{float, float, float} $middle
     *
     * @return string name of the file
     */
    public function content(PointBlock $points, array $middle): string
    {
        $places = $classes = $intensities = $colours = '';
        [$x, $y, $z] = $middle;
        foreach ($points->x as $i => $e) {
            $places .= pack('g3', $e - $x, $points->y[$i] - $y, $points->z[$i] - $z);
            $classes .= \chr($points->classes[$i] & 255);
        }
        foreach ($points->looks as $look) {
            $intensities .= $look[0].$look[1];
            $colours .= $this->hasColours ? $look[2].$look[3].$look[4] : '';
        }
        $table = ['POINTS_LENGTH' => $points->count(), 'RTC_CENTER' => $middle, 'POSITION' => ['byteOffset' => 0]];
        if ('' !== $colours) {
            $table['RGB'] = ['byteOffset' => \strlen($places)];
        }
        $feature = self::padded(json_encode($table, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION), ' ', 28);
        $body = self::padded($places.$colours, "\0", 0);
        $of = static fn (int $offset, string $type): array => ['byteOffset' => $offset, 'componentType' => $type, 'type' => 'SCALAR'];
        $batch = ['CLASSIFICATION' => $of(\strlen($intensities), 'UNSIGNED_BYTE')];
        if ('' !== $intensities) {
            $batch['INTENSITY'] = $of(0, 'UNSIGNED_SHORT');
        }
        $batch = self::padded(json_encode($batch, \JSON_THROW_ON_ERROR), ' ', 0);
        $classes = self::padded($intensities.$classes, "\0", 0);
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
