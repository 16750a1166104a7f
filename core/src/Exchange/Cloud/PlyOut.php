<?php

declare(strict_types=1);

namespace Mensura\Exchange\Cloud;

use Mensura\Cloud\PointBlock;
use Mensura\Fault\UnusableInput;

/** PLY 1.0, binary, doubles, the class of every point beside. */
final class PlyOut implements CloudOut
{
    private const DIGITS = 12;

    /** @var resource */
    private $file;

    private int $count = 0;

    public function __construct(private readonly string $path)
    {
        $this->file = fopen($path, 'w') ?: throw new UnusableInput($path, 'cannot be written');
        fwrite($this->file, self::head(0));
    }

    public function write(PointBlock $points): void
    {
        $bytes = '';
        foreach ($points->x as $i => $x) {
            $bytes .= pack('e3C', $x, $points->y[$i], $points->z[$i], $points->classes[$i] & 255);
        }
        if (\strlen($bytes) !== fwrite($this->file, $bytes)) {
            throw new UnusableInput($this->path, 'cannot be written whole; is the disk full?');
        }
        $this->count += $points->count();
    }

    public function finish(): void
    {
        fseek($this->file, 0);
        fwrite($this->file, self::head($this->count));
        fclose($this->file);
    }

    /** As long whatever the count: readers take numbers with zeros before them. */
    private static function head(int $count): string
    {
        return "ply\nformat binary_little_endian 1.0\nelement vertex ".str_pad((string) $count, self::DIGITS, '0', \STR_PAD_LEFT)
            ."\nproperty double x\nproperty double y\nproperty double z\nproperty uchar classification\nend_header\n";
    }
}
