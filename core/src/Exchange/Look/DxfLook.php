<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Exchange\Dxf\DxfGeometry;
use Mensura\Exchange\Dxf\DxfPlacement;
use Mensura\Exchange\Dxf\DxfRecord;
use Mensura\Exchange\Dxf\DxfRecords;
use Mensura\Fault\UnusableInput;

/**
 * ASCII DXF: entities of model space by what they are, blocks not taken apart; the extent holds what placed blocks hold. Group
 * codes after the published DXF reference.
 */
final class DxfLook
{
    private const MODEL = "\0model";
    private const DEEPEST = 32;
    private const PLAIN = ['TEXT', 'MTEXT', 'ATTDEF', 'DIMENSION', 'LEADER', 'VIEWPORT'];
    private const WITHIN = ['VERTEX', 'SEQEND', 'ATTRIB'];
    private const PAGES = [
        'ansi_1250' => 'Windows-1250', 'ansi_1251' => 'Windows-1251', 'ansi_1252' => 'Windows-1252', 'ansi_1253' => 'ISO-8859-7',
    ];
    private const OF_INSERT = [
        2 => 0, 10 => 0, 20 => 0, 30 => 0, 41 => 0, 42 => 0, 43 => 0, 44 => 0, 45 => 0, 50 => 0, 70 => 0, 71 => 0,
        210 => 0, 220 => 0, 230 => 0,
    ];
    /** Places of a block that are kept; of more the corners of its box stand for it. */
    private const MOST_IN_BLOCK = 20_000;
    /** Blocks that are placed within blocks, however deep. */
    private const MOST_PLACED = 200_000;

    private const MOST_TEXTS = 1_000;

    private string $block = self::MODEL;
    private string $page = 'Windows-1252';
    private bool $isUtf8 = true;
    private int $placed = 0;

    /** @var array<string, string> decoded, by their bytes */
    private array $texts = [];

    /** @var array<string, list<float>> x, y, z, ... by block */
    private array $places = [];

    /** @var array<string, list<array<int, string>>> groups of INSERTs by block */
    private array $inserts = [self::MODEL => []];

    /** @var array<string, array{float, float, float}> */
    private array $base = [];

    /** @var ?array{counts: bool, flags: int, groups: array<int, string>, vertices: list<array<int, string>>, line: int} */
    private ?array $polyline = null;

    private function __construct(private readonly Looked $l)
    {
    }

    /** @param resource $stream */
    public static function read(Looked $l, $stream, string $name, ?Tap $tap = null): void
    {
        $self = new self($l);
        try {
            foreach (DxfRecords::of($stream) as $record) {
                $tap?->record($record);
                if ('HEADER' === $record->section) {
                    $self->header($record->groups());
                } elseif ('BLOCKS' === $record->section || 'ENTITIES' === $record->section) {
                    $self->record($record);
                }
            }
        } catch (UnusableInput $e) {
            throw new UnusableInput(trim($name.' '.$e->where), $e->reason);
        }
        $self->finish($name);
    }

    /** @param list<array{int, string}> $groups */
    private function header(array $groups): void
    {
        $variable = '';
        foreach ($groups as [$code, $value]) {
            if (9 === $code) {
                $variable = trim($value);
            } elseif ('$INSUNITS' === $variable && 70 === $code && isset(DxfGeometry::UNITS[(int) $value])) {
                $this->l->unit = Systems::unitOf(DxfGeometry::UNITS[(int) $value]);
            } elseif ('$ACADVER' === $variable && 1 === $code) {
                $this->isUtf8 = strcmp(trim($value), 'AC1021') >= 0;
            } elseif ('$DWGCODEPAGE' === $variable && 3 === $code) {
                $this->page = self::PAGES[strtolower(trim($value))] ?? $this->page;
            }
        }
    }

    private function record(DxfRecord $record): void
    {
        $type = $record->type;
        $first = $record->first();
        $layer = $this->text($first[8] ?? '0');
        $counts = self::MODEL === $this->block && 1 !== (int) ($first[67] ?? 0);
        if ('BLOCK' === $type) {
            $this->block = strtoupper(trim($first[2] ?? ''));
            $this->base[$this->block] = self::place($first, 10);
            $this->places[$this->block] ??= [];
            $this->inserts[$this->block] = [];

            return;
        }
        if ('ENDBLK' === $type) {
            $this->block = self::MODEL;

            return;
        }
        if ('ATTRIB' === $type && isset($first[2])) {
            $this->l->attribute($this->text($first[2]));
        }
        if ('VERTEX' === $type && null !== $this->polyline) {
            $this->polyline['vertices'][] = $first;
        } elseif ('SEQEND' === $type && null !== $this->polyline) {
            $this->polyline();
        }
        if (\in_array($type, self::WITHIN, true)) {
            return;
        }
        if ($counts) {
            $this->l->layer($layer);
        }
        if (1 === (int) ($first[67] ?? 0) || \in_array($type, self::PLAIN, true)) {
            return;
        }
        $frame = DxfPlacement::ofExtrusion($first);
        switch ($type) {
            case 'POINT':
                $this->add($counts, Looked::POINT);
                $this->reach(...self::place($first, 10));
                break;
            case 'INSERT':
                $this->add($counts, Looked::POINT);
                $this->inserts[$this->block][] = array_intersect_key($first, self::OF_INSERT);
                break;
            case 'LINE':
                $this->add($counts, Looked::LINE);
                $this->reach(...self::place($first, 10));
                $this->reach(...self::place($first, 11));
                break;
            case '3DFACE':
                $this->add($counts, Looked::FACE);
                foreach ([10, 11, 12, isset($first[13]) ? 13 : 12] as $k) {
                    $this->reach(...self::place($first, $k));
                }
                break;
            case 'CIRCLE':
            case 'ARC':
                $this->add($counts, 'ARC' === $type ? Looked::LINE : Looked::POLYGON);
                [$x, $y, $z] = self::place($first, 10);
                $from = 'ARC' === $type ? deg2rad((float) ($first[50] ?? 0)) : 0.0;
                $to = 'ARC' === $type ? deg2rad((float) ($first[51] ?? 360)) : 2.0 * \M_PI;
                $this->arc($x, $y, $z, (float) ($first[40] ?? 0), $from, $to, $frame);
                break;
            case 'ELLIPSE':
                $this->add($counts, Looked::LINE);
                $this->ellipse($first);
                break;
            case 'SPLINE':
                $this->add($counts, Looked::LINE);
                $this->spline($record->groups());
                break;
            case 'LWPOLYLINE':
                $this->light($record->groups(), $first, $counts, $frame);
                break;
            case 'POLYLINE':
                $this->polyline = [
                    'counts' => $counts, 'flags' => (int) ($first[70] ?? 0), 'groups' => $first, 'vertices' => [], 'line' => $record->line,
                ];
                break;
            case 'HATCH':
                $this->add($counts, Looked::POLYGON);
                $this->hatch($record->groups(), $first, $frame);
                break;
            case 'MESH':
                $this->mesh($record->groups(), $counts);
                break;
        }
    }

    private function add(bool $counts, string $what, int $by = 1): void
    {
        if ($counts) {
            $this->l->count($what, $by);
        }
    }

    private function reach(float $x, float $y, float $z): void
    {
        if (self::MODEL === $this->block) {
            $this->l->reach($x, $y, $z);

            return;
        }
        $kept = &$this->places[$this->block];
        $kept ??= [];
        array_push($kept, $x, $y, $z);
        if (\count($kept) > 3 * self::MOST_IN_BLOCK) {
            $kept = self::corners($kept);
        }
    }

    /**
     * @param list<float> $places
     *
     * @return list<float> the corners of their box
     */
    private static function corners(array $places): array
    {
        $low = [\INF, \INF, \INF];
        $high = [-\INF, -\INF, -\INF];
        foreach ($places as $i => $v) {
            $low[$i % 3] = min($low[$i % 3], $v);
            $high[$i % 3] = max($high[$i % 3], $v);
        }
        $corners = [];
        foreach ([$low[0], $high[0]] as $x) {
            foreach ([$low[1], $high[1]] as $y) {
                array_push($corners, $x, $y, $low[2], $x, $y, $high[2]);
            }
        }

        return $corners;
    }

    /** @param ?list<float> $frame */
    private function framed(?array $frame, float $x, float $y, float $z): void
    {
        if (null === $frame) {
            $this->reach($x, $y, $z);
        } else {
            $this->reach(...DxfPlacement::apply($frame, $x, $y, $z));
        }
    }

    /** @param ?list<float> $frame */
    private function arc(float $x, float $y, float $z, float $radius, float $from, float $to, ?array $frame): void
    {
        while ($to <= $from) {
            $to += 2.0 * \M_PI;
        }
        $angles = [$from, $to];
        if (null === $frame && self::MODEL === $this->block) {
            for ($k = (int) ceil($from / (0.5 * \M_PI)); $k * 0.5 * \M_PI < $to; ++$k) {
                $angles[] = $k * 0.5 * \M_PI;
            }
        } else {
            // Turned in space, or with its block later: so fine that its edge is not missed.
            for ($k = 1; $k < 720; ++$k) {
                $angles[] = $from + $k * ($to - $from) / 720.0;
            }
        }
        foreach ($angles as $a) {
            $this->framed($frame, $x + $radius * cos($a), $y + $radius * sin($a), $z);
        }
    }

    /** @param array<int, string> $g */
    private function ellipse(array $g): void
    {
        $c = self::place($g, 10);
        $major = self::place($g, 11);
        $n = [(float) ($g[210] ?? 0), (float) ($g[220] ?? 0), (float) ($g[230] ?? 1)];
        $ratio = (float) ($g[40] ?? 1);
        $minor = [
            $ratio * ($n[1] * $major[2] - $n[2] * $major[1]), $ratio * ($n[2] * $major[0] - $n[0] * $major[2]),
            $ratio * ($n[0] * $major[1] - $n[1] * $major[0]),
        ];
        $from = (float) ($g[41] ?? 0);
        $to = (float) ($g[42] ?? 2.0 * \M_PI);
        while ($to <= $from) {
            $to += 2.0 * \M_PI;
        }
        $angles = [$from, $to];
        foreach ([0, 1, 2] as $axis) {
            // Where the coordinate is greatest or least.
            for ($a = atan2($minor[$axis], $major[$axis]) - 4.0 * \M_PI; $a < $to; $a += \M_PI) {
                if ($a > $from) {
                    $angles[] = $a;
                }
            }
        }
        for ($k = 1; self::MODEL !== $this->block && $k < 360; ++$k) {
            $angles[] = $from + $k * ($to - $from) / 360.0;
        }
        foreach ($angles as $a) {
            [$u, $v] = [cos($a), sin($a)];
            $at = [];
            foreach ([0, 1, 2] as $axis) {
                $at[] = $c[$axis] + $u * $major[$axis] + $v * $minor[$axis];
            }
            $this->reach(...$at);
        }
    }

    /**
     * The curve by de Boor's algorithm, as fine as its extent needs; where there are only fit points, those.
     *
     * @param list<array{int, string}> $groups
     */
    private function spline(array $groups): void
    {
        $degree = 3;
        $knots = $weights = $control = $fit = [];
        foreach ($groups as [$code, $value]) {
            match ($code) {
                71 => $degree = (int) $value, 40 => $knots[] = (float) $value, 41 => $weights[] = (float) $value,
                10 => $control[] = [(float) $value, 0.0, 0.0], 11 => $fit[] = [(float) $value, 0.0, 0.0],
                20 => $control[\count($control) - 1][1] = (float) $value, 30 => $control[\count($control) - 1][2] = (float) $value,
                21 => $fit[\count($fit) - 1][1] = (float) $value, 31 => $fit[\count($fit) - 1][2] = (float) $value,
                default => null,
            };
        }
        $n = \count($control);
        if ($degree < 1 || $degree > 20 || $n <= $degree || \count($knots) !== $n + $degree + 1) {
            foreach ([] !== $fit ? $fit : $control as $p) {
                $this->reach($p[0] ?? 0.0, $p[1] ?? 0.0, $p[2] ?? 0.0);
            }

            return;
        }
        for ($i = $degree; $i < $n; ++$i) {
            [$from, $to] = [$knots[$i], $knots[$i + 1]];
            for ($k = 0; $to > $from && $k <= 64; ++$k) {
                $this->reach(...self::deBoor($degree, $knots, $control, $weights, $i, $from + $k * ($to - $from) / 64.0));
            }
        }
    }

    /**
     * @param list<float>              $knots
     * @param array<int, list<float>>  $control
     * @param list<float>              $weights
     *
     * @return array{float, float, float}
     */
    private static function deBoor(int $degree, array $knots, array $control, array $weights, int $span, float $u): array
    {
        $at = [];
        // Each coordinate times the weight, and the weight itself, by the same steps.
        foreach ([0, 1, 2, 3] as $axis) {
            $d = [];
            for ($j = 0; $j <= $degree; ++$j) {
                $w = $weights[$span - $degree + $j] ?? 1.0;
                $d[] = 3 === $axis ? $w : $w * ($control[$span - $degree + $j][$axis] ?? 0.0);
            }
            for ($r = 1; $r <= $degree; ++$r) {
                for ($j = $degree; $j >= $r; --$j) {
                    $low = $knots[$span - $degree + $j];
                    $wide = $knots[$span + 1 + $j - $r] - $low;
                    $f = $wide > 0.0 ? ($u - $low) / $wide : 0.0;
                    $d[$j] = (1.0 - $f) * $d[$j - 1] + $f * $d[$j];
                }
            }
            $at[] = $d[$degree];
        }
        $w = 0.0 === $at[3] ? 1.0 : $at[3];

        return [$at[0] / $w, $at[1] / $w, $at[2] / $w];
    }

    /**
     * @param list<array{int, string}> $groups
     * @param array<int, string>       $first
     * @param ?list<float>             $frame
     */
    private function light(array $groups, array $first, bool $counts, ?array $frame): void
    {
        $x = $y = $bulge = [];
        foreach ($groups as [$code, $value]) {
            if (10 === $code) {
                $x[] = (float) $value;
                $y[] = $bulge[] = 0.0;
            } elseif ([] !== $x && 20 === $code) {
                $y[\count($y) - 1] = (float) $value;
            } elseif ([] !== $x && 42 === $code) {
                $bulge[\count($bulge) - 1] = (float) $value;
            }
        }
        $vertices = [];
        foreach ($x as $i => $px) {
            $vertices[] = [$px, $y[$i] ?? 0.0, $bulge[$i] ?? 0.0];
        }
        $isClosed = 1 === ((int) ($first[70] ?? 0) & 1);
        $this->add($counts, $isClosed ? Looked::POLYGON : Looked::LINE);
        $this->bulged($vertices, (float) ($first[38] ?? 0), $isClosed, $frame);
    }

    /**
     * @param list<array{float, float, float}> $vertices x, y, bulge
     * @param ?list<float>                     $frame
     */
    private function bulged(array $vertices, float $z, bool $isClosed, ?array $frame): void
    {
        $n = \count($vertices);
        foreach ($vertices as $i => [$x, $y, $bulge]) {
            $this->framed($frame, $x, $y, $z);
            if (0.0 === $bulge || $i + 1 === $n && !$isClosed) {
                continue;
            }
            [$ex, $ey] = $vertices[($i + 1) % $n];
            $chord = hypot($ex - $x, $ey - $y);
            if (0.0 === $chord) {
                continue;
            }
            // The bulge is the tangent of a quarter of the angle (DXF reference).
            $radius = $chord * (1.0 + $bulge * $bulge) / (4.0 * abs($bulge));
            $off = $chord * (1.0 - $bulge * $bulge) / (4.0 * $bulge);
            $cx = 0.5 * ($x + $ex) - $off * ($ey - $y) / $chord;
            $cy = 0.5 * ($y + $ey) + $off * ($ex - $x) / $chord;
            [$a, $b] = [atan2($y - $cy, $x - $cx), atan2($ey - $cy, $ex - $cx)];
            $this->arc($cx, $cy, $z, $radius, $bulge > 0.0 ? $a : $b, $bulge > 0.0 ? $b : $a, $frame);
        }
    }

    private function polyline(): void
    {
        $p = $this->polyline;
        $this->polyline = null;
        if (null === $p || 1 === (int) ($p['groups'][67] ?? 0)) {
            return;
        }
        $flags = $p['flags'];
        $vertices = $p['vertices'];
        if (0 !== ($flags & 64)) {
            // A polyface: vertices with a place, and faces that name them.
            $places = 0;
            foreach ($vertices as $v) {
                if (0 !== ((int) ($v[70] ?? 0) & 64)) {
                    ++$places;
                    $this->reach(...self::place($v, 10));
                }
            }
            foreach ($vertices as $v) {
                if (128 === ((int) ($v[70] ?? 0) & 192)) {
                    foreach ([71, 72, 73, 74] as $code) {
                        if (abs((int) ($v[$code] ?? 0)) > $places) {
                            $words = \sprintf('a face names corner %d of %d', abs((int) $v[$code]), $places);
                            throw new UnusableInput('line '.$p['line'], $words);
                        }
                    }
                    $this->add($p['counts'], Looked::FACE);
                }
            }

            return;
        }
        if (0 !== ($flags & 16)) {
            [$m, $n] = [(int) ($p['groups'][71] ?? 0), (int) ($p['groups'][72] ?? 0)];
            $this->add($p['counts'], Looked::FACE, max(0, $m - (0 !== ($flags & 1) ? 0 : 1)) * max(0, $n - (0 !== ($flags & 32) ? 0 : 1)));
            foreach ($vertices as $v) {
                $this->reach(...self::place($v, 10));
            }

            return;
        }
        $isClosed = 0 !== ($flags & 1);
        $this->add($p['counts'], $isClosed ? Looked::POLYGON : Looked::LINE);
        // Of a curve that was fitted its frame is no part.
        $shown = array_values(array_filter($vertices, static fn (array $v): bool => 0 === ((int) ($v[70] ?? 0) & 16)));
        if (0 !== ($flags & 8)) {
            foreach ($shown as $v) {
                $this->reach(...self::place($v, 10));
            }

            return;
        }
        $flat = [];
        foreach ($shown as $v) {
            $flat[] = [(float) ($v[10] ?? 0), (float) ($v[20] ?? 0), (float) ($v[42] ?? 0)];
        }
        $this->bulged($flat, (float) ($p['groups'][30] ?? 0), $isClosed, DxfPlacement::ofExtrusion($p['groups']));
    }

    /** @param list<array{int, string}> $groups */
    private function mesh(array $groups, bool $counts): void
    {
        // Group 92 says how many vertices follow, 93 how long the list of faces is, 94 how many edges.
        $left = 0;
        $inFaces = false;
        $faces = $skip = 0;
        $place = [];
        foreach ($groups as [$code, $value]) {
            if (92 === $code) {
                $left = (int) $value;
            } elseif ($left > 0 && \in_array($code, [10, 20, 30], true)) {
                $place[] = (float) $value;
                if (3 === \count($place)) {
                    $this->reach(...$place);
                    $place = [];
                    --$left;
                }
            } elseif (93 === $code) {
                $inFaces = true;
            } elseif (94 === $code) {
                $inFaces = false;
            } elseif (90 === $code && $inFaces) {
                if (0 === $skip) {
                    ++$faces;
                    $skip = (int) $value;
                } else {
                    --$skip;
                }
            }
        }
        $this->add($counts, Looked::FACE, $faces);
    }

    /**
     * @param list<array{int, string}> $groups
     * @param array<int, string>       $first
     * @param ?list<float>             $frame
     */
    private function hatch(array $groups, array $first, ?array $frame): void
    {
        $z = (float) ($first[30] ?? 0);
        $started = $isPolyline = false;
        $edge = 0;
        $x = $r = $from = null;
        $vertices = [];
        $centre = [0.0, 0.0];
        $flush = function () use (&$vertices, $z, $frame): void {
            $this->bulged($vertices, $z, true, $frame);
            $vertices = [];
        };
        foreach ($groups as [$code, $value]) {
            if (91 === $code) {
                $started = true;
                continue;
            }
            if (!$started) {
                continue;
            }
            if (75 === $code || 98 === $code) {
                break; // pattern and seeds follow
            }
            if (92 === $code) {
                $flush();
                $isPolyline = 0 !== ((int) $value & 2);
                $edge = 0;
            } elseif (72 === $code && !$isPolyline) {
                $edge = (int) $value;
            } elseif (10 === $code || 11 === $code) {
                $x = (float) $value;
            } elseif ((20 === $code || 21 === $code) && null !== $x) {
                if ($isPolyline) {
                    $vertices[] = [$x, (float) $value, 0.0];
                } elseif (1 === $edge || 4 === $edge) {
                    $this->framed($frame, $x, (float) $value, $z);
                } elseif (20 === $code) {
                    $centre = [$x, (float) $value];
                }
            } elseif (42 === $code && $isPolyline && [] !== $vertices) {
                $vertices[\count($vertices) - 1][2] = (float) $value;
            } elseif (40 === $code && 2 === $edge) {
                $r = (float) $value;
            } elseif (50 === $code && 2 === $edge) {
                $from = deg2rad((float) $value);
            } elseif (51 === $code && 2 === $edge && null !== $r && null !== $from) {
                $this->arc($centre[0], $centre[1], $z, $r, $from, deg2rad((float) $value), $frame);
            }
        }
        $flush();
    }

    private function finish(string $name): void
    {
        foreach ($this->inserts[self::MODEL] as $insert) {
            $this->put($insert, DxfPlacement::NONE, 0, $name);
        }
    }

    /**
     * @param array<int, string> $g
     * @param list<float>        $m
     */
    private function put(array $g, array $m, int $depth, string $name): void
    {
        if ($depth > self::DEEPEST) {
            throw new UnusableInput($name, \sprintf('block "%s" holds itself', mb_substr($this->text($g[2] ?? ''), 0, 60)));
        }
        $block = strtoupper(trim($g[2] ?? ''));
        $places = $this->places[$block] ?? [];
        $at = self::place($g, 10);
        if ([] === $places && [] === ($this->inserts[$block] ?? [])) {
            $this->l->reach(...DxfPlacement::apply($m, ...$at));

            return;
        }
        $columns = max(1, (int) ($g[70] ?? 1));
        $rows = max(1, (int) ($g[71] ?? 1));
        // The outer ones of an array of blocks hold those between.
        foreach (1 === $columns ? [0] : [0, $columns - 1] as $c) {
            foreach (1 === $rows ? [0] : [0, $rows - 1] as $r) {
                if ($depth > 0 && ++$this->placed > self::MOST_PLACED) {
                    throw new UnusableInput($name, \sprintf('places more than %d blocks within blocks', self::MOST_PLACED));
                }
                $local = DxfPlacement::times($m, DxfPlacement::ofInsert($g, $at, $this->base[$block] ?? [0.0, 0.0, 0.0], $c, $r));
                for ($i = 0, $n = \count($places); $i < $n; $i += 3) {
                    $this->l->reach(...DxfPlacement::apply($local, $places[$i], $places[$i + 1], $places[$i + 2]));
                }
                foreach ($this->inserts[$block] ?? [] as $inner) {
                    $this->put($inner, $local, $depth + 1, $name);
                }
            }
        }
    }

    /**
     * @param array<int, string> $g
     *
     * @return array{float, float, float}
     */
    private static function place(array $g, int $x): array
    {
        $values = [];
        foreach ([$x, $x + 10, $x + 20] as $code) {
            $text = trim($g[$code] ?? '0');
            if (!is_numeric($text) || !is_finite((float) $text)) {
                throw new UnusableInput('', \sprintf('"%s" is not a coordinate', mb_scrub(mb_substr($text, 0, 30))));
            }
            $values[] = (float) $text;
        }

        return $values;
    }

    /** A name as it is meant: in the file's own encoding, or with the numbers of letters written out. */
    private function text(string $bytes): string
    {
        $text = trim($bytes);
        // Most names come again and again.
        if (isset($this->texts[$text])) {
            return $this->texts[$text];
        }
        $given = $text;
        $text = $this->isUtf8 && mb_check_encoding($text, 'UTF-8') ? $text
            : (mb_check_encoding($text, 'ASCII') ? $text : mb_convert_encoding($text, 'UTF-8', $this->page));

        $letter = static fn (array $m): string => mb_chr((int) hexdec($m[1]), 'UTF-8') ?: '';

        $text = (string) preg_replace_callback('/\\\\U\+([0-9A-Fa-f]{4})/', $letter, (string) $text);
        if (\count($this->texts) < self::MOST_TEXTS) {
            $this->texts[$given] = $text;
        }

        return $text;
    }
}
