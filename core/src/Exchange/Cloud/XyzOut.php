<?php

declare(strict_types=1);

namespace Mensura\Exchange\Cloud;

use Mensura\Cloud\PointBlock;
use Mensura\Fault\UnusableInput;

/** Lines of three coordinates. */
final class XyzOut implements CloudOut
{
    /** @var resource */
    private $file;

    private readonly string $format;

    public function __construct(private readonly string $path, bool $isGeographic)
    {
        $this->file = fopen($path, 'w') ?: throw new UnusableInput($path, 'cannot be written');
        $this->format = $isGeographic ? "%.9F %.9F %.4F\n" : "%.4F %.4F %.4F\n";
    }

    public function write(PointBlock $points): void
    {
        $text = '';
        foreach ($points->x as $i => $x) {
            $text .= \sprintf($this->format, $x, $points->y[$i], $points->z[$i]);
        }
        if (\strlen($text) !== fwrite($this->file, $text)) {
            throw new UnusableInput($this->path, 'cannot be written whole; is the disk full?');
        }
    }

    public function finish(): void
    {
        fclose($this->file);
    }
}
