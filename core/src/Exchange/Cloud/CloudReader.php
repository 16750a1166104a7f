<?php

declare(strict_types=1);

namespace Mensura\Exchange\Cloud;

use Mensura\Cloud\PointBlock;
use Mensura\Exchange\Las\LasReader;
use Mensura\Exchange\Las\LazFile;
use Mensura\Exchange\Look\E57Look;
use Mensura\Exchange\Look\FileLook;
use Mensura\Exchange\Look\LasLook;
use Mensura\Exchange\Look\Looked;
use Mensura\Exchange\Look\Systems;
use Mensura\Exchange\Points\PointFile;
use Mensura\Fault\UnusableInput;

/** Points of a cloud of any kind, told by its contents, some thousands at once. LAS is not held; E57, PLY and text are. */
final class CloudReader
{
    private const KINDS = ['ply', 'xyz', 'csv', 'e57'];
    private const AT_ONCE = 8_000;

    /** @param ?LasReader $las of a LAS file, or of what a LAZ file was unpacked to */
    private function __construct(
        private readonly string $path, public readonly string $name, public readonly Looked $look, public readonly ?LasReader $las,
    ) {
    }

    /**
     * @param string $name for messages
     *
     * @throws UnusableInput
     */
    public static function open(string $path, string $name): self
    {
        if (is_file($path) && 'LASF' === file_get_contents($path, length: 4)) {
            $look = new Looked('las');
            $las = LasLook::header($look, $path, new Systems(), $name);
            if ($las->isPacked) {
                $stream = fopen(LazFile::unpacked($path, $name), 'r') ?: throw new UnusableInput($name, 'cannot be unpacked');
                $las = new LasReader($stream, $name);
            }

            return new self($path, $name, $look, $las);
        }
        $look = FileLook::of($path, $name);
        if (!\in_array($look->kind, self::KINDS, true)) {
            throw new UnusableInput($name, 'is no point cloud: bring LAS, LAZ, E57, PLY, or text of coordinates');
        }

        return new self($path, $name, $look, null);
    }

    /** Points it says it holds. */
    public function count(): int
    {
        return $this->las->count ?? $this->look->counted(Looked::POINT);
    }

    public function hasColours(): bool
    {
        return null !== $this->las && $this->las->hasColours();
    }

    /** The header of a LAS file. */
    public function head(): string
    {
        return (string) file_get_contents($this->path, length: 375);
    }

    /** Header records that say the system the points are in, as a LAS file holds them. */
    public function projection(): string
    {
        if (null === $this->las) {
            return '';
        }
        $head = (string) file_get_contents($this->path, length: 375);
        [$at, $begin, $count] = array_map(intval(...), array_values((array) unpack('vsize/Vstart/Vblocks', $head, 94)));
        $all = (string) file_get_contents($this->path, offset: 0, length: max(0, min($begin, 1 << 24)));
        $kept = '';
        for ($k = 0; $k < $count && $at + 54 <= \strlen($all); ++$k) {
            $length = (int) ((array) unpack('v', $all, $at + 20))[1];
            if (str_starts_with(substr($all, $at + 2, 16), 'LASF_Projection')) {
                $kept .= substr($all, $at, 54 + $length);
            }
            $at += 54 + $length;
        }

        return $kept;
    }

    /**
     * @param bool $withLooks whether intensities and colours are wanted
     *
     * @return \Generator<PointBlock>
     *
     * @throws UnusableInput
     */
    public function blocks(bool $withLooks = false): \Generator
    {
        if (null !== $this->las) {
            $isWide = false;
            foreach ($this->las->records() as $bytes) {
                [$x, $y, $z, $classes] = $this->las->unpacked($bytes);
                $isWide = $withLooks && ($isWide || $this->las->isWide($bytes));
                $looks = $withLooks ? $this->las->looks($bytes, $isWide) : [];
                yield new PointBlock($x, $y, $z, $classes, str_split($bytes, max(1, $this->las->size)), $looks);
            }

            return;
        }
        [$x, $y, $z] = $this->whole();
        foreach ($x as $i => $e) {
            if (!is_finite($e) || !is_finite($y[$i]) || !is_finite($z[$i])) {
                throw new UnusableInput($this->name, \sprintf('point %d has a coordinate that is no number', $i + 1));
            }
        }
        for ($from = 0, $n = \count($x); $from < $n; $from += self::AT_ONCE) {
            $part = \array_slice($x, $from, self::AT_ONCE);
            yield new PointBlock(
                $part, \array_slice($y, $from, self::AT_ONCE), \array_slice($z, $from, self::AT_ONCE), array_fill(0, \count($part), 0),
                [], $withLooks ? array_fill(0, \count($part), "\0\0\0\0\0") : [],
            );
        }
    }

    /** @return array{list<float>, list<float>, list<float>} */
    private function whole(): array
    {
        if ('e57' !== $this->look->kind) {
            $points = PointFile::read($this->path, $this->name);

            return [$points->x, $points->y, $points->z];
        }
        $x = $y = $z = [];
        $each = static function (string $scan, array $place) use (&$x, &$y, &$z): void {
            [$x[], $y[], $z[]] = $place;
        };
        E57Look::read(new Looked('e57'), $this->path, new Systems(), $this->name, $each);

        return [$x, $y, $z];
    }
}
