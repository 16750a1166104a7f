<?php

declare(strict_types=1);

namespace Mensura\Exchange\Cloud;

use Mensura\Cloud\PointBlock;
use Mensura\Exchange\Las\LasReader;
use Mensura\Fault\UnusableInput;

/**
 * LAS as it is written point by point (ASPRS LAS specification 1.4 R15). Records of LAS files go over with all they say, under
 * the header's version and format; other points as format 0 of version 1.2.
 */
final class LasOut implements CloudOut
{
    /** Units of the file, of coordinates that come from elsewhere. */
    private const SCALE = 0.0001;
    private const DEGREES = 1e-9;
    private const MOST = 2_000_000_000;

    /** @var resource */
    private $file;

    private int $count = 0;

    /** @var list<float> */
    private array $low = [\INF, \INF, \INF];

    /** @var list<float> */
    private array $high = [-\INF, -\INF, -\INF];

    /** @var array<int, int> points by number of their return */
    private array $returns = [];

    /** @var array{float, float, float} */
    private array $scale;

    /** @var ?array{float, float, float} known with the first points */
    private ?array $offset = null;

    /**
     * @param ?LasReader $like       whose records come, all of one format
     * @param string     $head       the header of its file
     * @param bool       $asTheyAre  whether coordinates of records are kept, under its scale and offset
     * @param string     $projection header records that say the system
     * @param bool       $hasColours whether points that have no record say their intensities and colours: format 2
     */
    public function __construct(
        private readonly string $path, private readonly ?LasReader $like, private readonly string $head, private readonly bool $asTheyAre,
        private readonly string $projection, bool $isGeographic, private readonly bool $hasColours = false,
    ) {
        $this->file = fopen($path, 'w+') ?: throw new UnusableInput($path, 'cannot be written');
        $plan = $isGeographic ? self::DEGREES : self::SCALE;
        $this->scale = [$plan, $plan, self::SCALE];
        if (null !== $like) {
            $this->scale = $asTheyAre || !$isGeographic ? $like->scale : $this->scale;
            $this->offset = $asTheyAre ? $like->offset : null;
        }
        fwrite($this->file, str_repeat("\0", $this->size()).$projection);
    }

    /**
     * For points that come of files: their records go over with all they say where all are of one format.
     *
     * @param non-empty-list<CloudReader> $sources
     * @param bool                        $isMoved    whether coordinates are others than in the files
     * @param string                      $projection header records that say the system
     */
    public static function of(string $path, array $sources, bool $isMoved, string $projection, bool $isGeographic = false): self
    {
        $first = $sources[0]->las;
        $isAlike = self::isAlike($sources);
        $same = static fn (CloudReader $s): bool => $s->las?->scale === $first?->scale && $s->las?->offset === $first?->offset;
        $asTheyAre = !$isMoved && \count($sources) === \count(array_filter($sources, $same));

        return new self($path, $isAlike ? $first : null, $isAlike ? $sources[0]->head() : '', $asTheyAre, $projection, $isGeographic);
    }

    /** For points in metres with intensities and colours that come of no file. */
    public static function coloured(string $path): self
    {
        return new self($path, null, '', false, '', false, true);
    }

    /**
     * Whether all of them are LAS files of one point format.
     *
     * @param non-empty-list<CloudReader> $sources
     */
    public static function isAlike(array $sources): bool
    {
        $first = $sources[0]->las;
        $of = static fn (CloudReader $s): array => [$s->las?->format, $s->las?->size];
        $like = static fn (CloudReader $s): bool => null !== $first && $of($s) === [$first->format, $first->size];

        return \count($sources) === \count(array_filter($sources, $like));
    }

    public function write(PointBlock $points): void
    {
        if (0 === $points->count()) {
            return;
        }
        foreach ([$points->x, $points->y, $points->z] as $k => $axis) {
            $this->low[$k] = min($this->low[$k], min($axis));
            $this->high[$k] = max($this->high[$k], max($axis));
        }
        $this->offset ??= [floor($points->x[0]), floor($points->y[0]), 0.0];
        $format = $this->format();
        [$classAt, $bits] = $format > 5 ? [16, 255] : [15, 31];
        $mask = $format > 5 ? 15 : 7;
        $bytes = '';
        foreach ($points->x as $i => $x) {
            $record = $points->records[$i] ?? '';
            $class = $points->classes[$i] & $bits;
            if (null === $this->like || '' === $record) {
                $record = $this->place($x, $points->y[$i], $points->z[$i]).$this->plain($class, $points->looks[$i] ?? '');
            } else {
                if (!$this->asTheyAre) {
                    $record = $this->place($x, $points->y[$i], $points->z[$i]).substr($record, 12);
                }
                $old = \ord($record[$classAt]);
                if (($old & $bits) !== $class) {
                    $record[$classAt] = \chr($old & ~$bits | $class);
                }
            }
            $return = \ord($record[14]) & $mask;
            $this->returns[$return] = ($this->returns[$return] ?? 0) + 1;
            $bytes .= $record;
        }
        if (\strlen($bytes) !== fwrite($this->file, $bytes)) {
            throw new UnusableInput($this->path, 'cannot be written whole; is the disk full?');
        }
        $this->count += $points->count();
    }

    public function finish(): void
    {
        [$scale, $offset] = [$this->scale, $this->offset ?? [0.0, 0.0, 0.0]];
        $none = 0 === $this->count;
        $box = [];
        foreach ([0, 1, 2] as $k) {
            array_push($box, $none ? 0.0 : $this->high[$k], $none ? 0.0 : $this->low[$k]);
        }
        $size = $this->size();
        $blocks = 0;
        for ($at = 0; $at + 54 <= \strlen($this->projection); ++$blocks) {
            $at += 54 + (int) ((array) unpack('v', $this->projection, $at + 20))[1];
        }
        $format = $this->format();
        $legacy = $format < 6 && $this->count <= self::MOST;
        $of = fn (int $k): int => $this->returns[$k] ?? 0;
        $by = static fn (bool $is, array $numbers): string => pack('V5', ...($is ? $numbers : [0, 0, 0, 0, 0]));
        if (null === $this->like) {
            $head = 'LASF'.str_repeat("\0", 20).pack('CC', 1, 2).str_pad('mensura', 32, "\0").str_pad('mensura', 32, "\0")
                .pack('vvv', 1, 2000, $size).str_repeat("\0", $size - 96);
            $head[104] = \chr($format);
            $head = substr_replace($head, pack('v', $this->hasColours ? 26 : 20), 105, 2);
        } else {
            $head = str_pad(substr($this->head, 0, $size), $size, "\0");
            $head[104] = \chr($format);
        }
        $head = substr_replace($head, pack('VV', $size + \strlen($this->projection), $blocks), 96, 8);
        $head = substr_replace($head, pack('V', $legacy ? $this->count : 0).$by($legacy, array_map($of, [1, 2, 3, 4, 5])), 107, 24);
        $head = substr_replace($head, pack('e3', ...$scale).pack('e3', ...$offset).pack('e6', ...$box), 131, 96);
        if (\ord($head[25]) >= 3 && $size >= 235) {
            $head = substr_replace($head, pack('P', 0), 227, 8);
        }
        if (\ord($head[25]) >= 4 && $size >= 375) {
            $all = array_map($of, range(1, 15));
            $head = substr_replace($head, pack('PV', 0, 0).pack('P', $this->count).pack('P15', ...$all), 235, 140);
        }
        fseek($this->file, 0);
        fwrite($this->file, $head);
        if (!fclose($this->file)) {
            throw new UnusableInput($this->path, 'cannot be written whole; is the disk full?');
        }
    }

    private function format(): int
    {
        return $this->like->format ?? ($this->hasColours ? 2 : 0);
    }

    /** Bytes of the header. */
    private function size(): int
    {
        return null === $this->like ? 227 : (int) ((array) unpack('v', $this->head, 94))[1];
    }

    private function place(float $x, float $y, float $z): string
    {
        $whole = [];
        foreach ([$x, $y, $z] as $k => $v) {
            $n = round(($v - ($this->offset[$k] ?? 0.0)) / $this->scale[$k]);
            if (abs($n) > 2_147_483_647.0) {
                throw new UnusableInput($this->path, 'its points lie too far apart for the units of a LAS file; crop them first');
            }
            $whole[] = (int) $n & 0xFFFFFFFF;
        }

        return pack('V3', ...$whole);
    }

    /** What a record says beyond its place where nothing is known but a class: one return of one. */
    private function plain(int $class, string $look): string
    {
        if (null === $this->like && $this->hasColours) {
            $look = str_pad($look, 5, "\0");
            // A byte of colour fills both of two: 255 is as bright as it gets.
            $colour = $look[2].$look[2].$look[3].$look[3].$look[4].$look[4];

            return substr($look, 0, 2).pack('CCcCv', 9, $class, 0, 0, 0).$colour;
        }
        $format = $this->format();
        $short = $format > 5 ? pack('vCCCCvv', 0, 17, 0, $class, 0, 0, 0) : pack('vCCcCv', 0, 9, $class, 0, 0, 0);

        return str_pad($short, null === $this->like ? 8 : $this->like->size - 12, "\0");
    }
}
