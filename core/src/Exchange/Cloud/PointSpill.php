<?php

declare(strict_types=1);

namespace Mensura\Exchange\Cloud;

use Mensura\Cloud\PointBlock;
use Mensura\Fault\UnusableInput;

/** Points put aside on the disk, block by block, and read again in the same order. Gone with the object. */
final class PointSpill
{
    /** Points gathered before they are written. */
    private const GATHERED = 4_000;

    private readonly string $path;
    private PointBlock $next;
    public int $count = 0;

    public function __construct()
    {
        $this->path = (string) tempnam(sys_get_temp_dir(), 'cloud');
        $this->next = new PointBlock();
    }

    public function __destruct()
    {
        @unlink($this->path);
    }

    /** @throws UnusableInput when the disk does not take them */
    public function add(PointBlock $points): void
    {
        $this->count += $points->count();
        $this->next->add(new PointBlock($points->x, $points->y, $points->z, $points->classes, [], $points->looks));
        if ($this->next->count() >= self::GATHERED) {
            $this->flush();
        }
    }

    /** @return \Generator<PointBlock> */
    public function blocks(): \Generator
    {
        $this->flush();
        $file = fopen($this->path, 'r') ?: throw new \RuntimeException('A temporary file is gone.');
        while (5 === \strlen($head = (string) fread($file, 5))) {
            [$n, $look] = array_map(intval(...), array_values((array) unpack('V1a/C1b', $head)));
            $bytes = (string) stream_get_contents($file, (25 + $look) * $n);
            $axis = static fn (int $k): array => array_values((array) unpack("e$n", $bytes, 8 * $n * $k));
            $classes = array_values((array) unpack("C$n", $bytes, 24 * $n));
            yield new PointBlock($axis(0), $axis(1), $axis(2), $classes, [], $look < 1 ? [] : str_split(substr($bytes, 25 * $n), $look));
        }
        fclose($file);
    }

    private function flush(): void
    {
        $n = $this->next->count();
        if (0 === $n) {
            return;
        }
        $looks = implode('', $this->next->looks);
        $bytes = pack('VC', $n, intdiv(\strlen($looks), $n)).pack('e*', ...$this->next->x).pack('e*', ...$this->next->y)
            .pack('e*', ...$this->next->z).pack('C*', ...$this->next->classes).$looks;
        if (\strlen($bytes) !== file_put_contents($this->path, $bytes, \FILE_APPEND)) {
            throw new UnusableInput('', 'the disk does not take what has to be put aside; free some space, then try again');
        }
        $this->next = new PointBlock();
    }
}
