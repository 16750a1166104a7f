<?php

declare(strict_types=1);

namespace Mensura\Exchange\Dxf;

use Mensura\Fault\UnusableInput;

/**
 * What an ASCII DXF draws in model space, that of placed blocks too. Faces: 3DFACE, polygon meshes, polyface meshes and MESH entities
 * (their coarsest level). Lines: LINE, POLYLINE, LWPOLYLINE with its elevation, ARC and CIRCLE as chords. Points: POINT, and where
 * blocks are placed. Group codes and the arbitrary axis of an extrusion after the published DXF reference. Drawing units.
 */
final class DxfGeometry
{
    private const MODEL = "\0model";
    private const DEEPEST = 16;
    /** Blocks placed in all: blocks in blocks multiply. */
    private const MOST_PLACED = 1_000_000;
    /** Metres of the units of $INSUNITS (DXF reference, header variables). */
    public const UNITS = [
        1 => 0.0254, 2 => 0.3048, 3 => 1609.344, 4 => 0.001, 5 => 0.01, 6 => 1.0, 7 => 1000.0, 10 => 0.9144, 14 => 0.1,
        21 => 1200.0 / 3937.0,
    ];

    /** @var list<float> */
    public array $x = [];
    /** @var list<float> */
    public array $y = [];
    /** @var list<float> */
    public array $z = [];
    /** @var list<int> corners, three a triangle */
    public array $triangles = [];
    /** @var list<int> face of the drawing that each triangle is a part of */
    public array $faceOf = [];
    /** @var list<string> layer of each face */
    public array $layerOf = [];
    /** @var list<list<int>> corners of each line, in order */
    public array $lines = [];
    /** @var list<string> layer of each line */
    public array $lineLayers = [];
    /** @var list<int> corners that are points */
    public array $points = [];
    /** @var list<string> layer of each point */
    public array $pointLayers = [];
    /** Metres of a drawing unit as the header says it ($INSUNITS); null where it says nothing. */
    public ?float $unit = null;
    /** Solids whose geometry the file does not say in numbers. */
    public int $solids = 0;

    /**
     * By block.
     *
     * @var array<string, list<array{kind: string, layer: string, corners: list<array{float, float, float}>, faces: list<list<int>>}>>
     */
    private array $shapes = [self::MODEL => []];

    /** @var array<string, list<array{block: string, layer: string, groups: array<int, string>}>> */
    private array $inserts = [self::MODEL => []];

    /** @var array<string, array{float, float, float}> base points of blocks */
    private array $base = [];

    private int $placed = 0;
    private string $block = self::MODEL;
    private bool $isPaper = false;
    /** Where the record begins that is read now, for messages. */
    private int $line = 0;

    /** @var ?array{flags: int, groups: array<int, string>, vertices: list<array<int, string>>} */
    private ?array $polyline = null;

    /**
     * @param resource $stream
     *
     * @throws UnusableInput naming the line
     */
    public static function read($stream): self
    {
        $self = new self();
        foreach (DxfRecords::of($stream) as $record) {
            if ('ENTITIES' === $record->section) {
                $self->block = self::MODEL;
            } elseif ('HEADER' === $record->section) {
                $self->header($record->groups());
                continue;
            } elseif ('BLOCKS' !== $record->section) {
                continue;
            }
            $self->line = $record->line;
            $self->record($record);
        }
        $self->place(self::MODEL, [1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0], null, 0);

        return $self;
    }

    /** @param list<array{int, string}> $groups */
    private function header(array $groups): void
    {
        foreach ($groups as $k => [$code, $value]) {
            if (9 === $code && '$INSUNITS' === trim($value)) {
                $this->unit = self::UNITS[(int) ($groups[$k + 1][1] ?? 0)] ?? null;
            }
        }
    }

    private function record(DxfRecord $record): void
    {
        $type = $record->type;
        $first = $record->first();
        $layer = $first[8] ?? '0';
        $isPaper = 1 === (int) ($first[67] ?? 0);
        switch ($type) {
            case 'BLOCK':
                $this->block = strtoupper(trim($first[2] ?? ''));
                $this->base[$this->block] = $this->place3($first);
                $this->shapes[$this->block] = $this->inserts[$this->block] = [];
                break;
            case 'ENDBLK':
                $this->block = self::MODEL;
                break;
            case '3DFACE':
                if (!$isPaper) {
                    $this->face($first, $layer);
                }
                break;
            case 'LINE':
            case 'POINT':
            case 'ARC':
            case 'CIRCLE':
            case 'LWPOLYLINE':
                if (!$isPaper) {
                    $this->drawn($record, $first, $layer);
                }
                break;
            case 'POLYLINE':
                $this->isPaper = $isPaper;
                $this->polyline = ['flags' => (int) ($first[70] ?? 0), 'groups' => $first, 'vertices' => []];
                break;
            case 'VERTEX':
                if (null !== $this->polyline) {
                    $this->polyline['vertices'][] = $first;
                }
                break;
            case 'SEQEND':
                if (null !== $this->polyline && !$this->isPaper) {
                    $this->mesh($this->polyline, $record->line);
                }
                $this->polyline = null;
                break;
            case 'MESH':
                if (!$isPaper) {
                    $this->subdivision($record->groups(), $layer, $record->line);
                }
                break;
            case 'INSERT':
                if (!$isPaper) {
                    $this->inserts[$this->block][] = ['block' => strtoupper(trim($first[2] ?? '')), 'layer' => $layer, 'groups' => $first];
                }
                break;
            case '3DSOLID':
            case 'BODY':
            case 'REGION':
                ++$this->solids;
                break;
        }
    }

    /** @param array<int, string> $first */
    private function face(array $first, string $layer): void
    {
        $corners = [];
        for ($k = 0; $k < 4; ++$k) {
            $corners[] = isset($first[10 + $k]) ? $this->place3($first, $k) : ($corners[$k - 1] ?? [0.0, 0.0, 0.0]);
        }
        $face = $corners[3] === $corners[2] ? [0, 1, 2] : [0, 1, 2, 3];
        $this->shapes[$this->block][] = ['kind' => 'face', 'layer' => $layer, 'corners' => $corners, 'faces' => [$face]];
    }

    /** @param array<int, string> $first */
    private function drawn(DxfRecord $record, array $first, string $layer): void
    {
        $type = $record->type;
        if ('LINE' === $type) {
            $this->line([$this->place3($first), $this->place3($first, 1)], $layer, null);

            return;
        }
        if ('POINT' === $type) {
            $this->shapes[$this->block][] = ['kind' => 'point', 'layer' => $layer, 'corners' => [$this->place3($first)], 'faces' => []];

            return;
        }
        if ('LWPOLYLINE' === $type) {
            $this->line($this->lightPolyline($first, $record->groups()), $layer, DxfPlacement::ofExtrusion($first));

            return;
        }
        [$x, $y, $z] = $this->place3($first);
        $from = 'ARC' === $type ? deg2rad($this->number($first[50] ?? '0')) : 0.0;
        $turn = 'ARC' === $type ? fmod(deg2rad($this->number($first[51] ?? '360')) - $from + 4.0 * \M_PI, 2.0 * \M_PI) : 2.0 * \M_PI;
        $corners = DxfCurves::arc($x, $y, $z, $this->number($first[40] ?? '0'), $from, $turn);
        $this->line($corners, $layer, DxfPlacement::ofExtrusion($first));
    }

    /**
     * @param array<int, string>       $first
     * @param list<array{int, string}> $groups
     *
     * @return list<array{float, float, float}>
     */
    private function lightPolyline(array $first, array $groups): array
    {
        $z = $this->number($first[38] ?? '0');
        $vertices = [];
        foreach ($groups as [$code, $value]) {
            $last = \count($vertices) - 1;
            if (10 === $code) {
                $vertices[] = [$this->number($value), 0.0, $z, 0.0];
            } elseif (20 === $code && $last >= 0) {
                $vertices[$last][1] = $this->number($value);
            } elseif (42 === $code && $last >= 0) {
                $vertices[$last][3] = $this->number($value);
            }
        }

        return DxfCurves::polyline($vertices, 0 !== ((int) ($first[70] ?? 0) & 1));
    }

    /** @param array{flags: int, groups: array<int, string>, vertices: list<array<int, string>>} $polyline in plan or in space */
    private function polyline(array $polyline, string $layer): void
    {
        $isIn3d = 0 !== ($polyline['flags'] & 8);
        $z = $this->place3($polyline['groups'])[2];
        $vertices = [];
        foreach ($polyline['vertices'] as $v) {
            // The frame of a spline is not on the line.
            if (0 === ((int) ($v[70] ?? 0) & 16)) {
                [$px, $py, $pz] = $this->place3($v);
                $vertices[] = [$px, $py, $isIn3d ? $pz : $z, $isIn3d ? 0.0 : $this->number($v[42] ?? '0')];
            }
        }
        $corners = DxfCurves::polyline($vertices, 0 !== ($polyline['flags'] & 1));
        $this->line($corners, $layer, $isIn3d ? null : DxfPlacement::ofExtrusion($polyline['groups']));
    }

    /**
     * @param list<array{float, float, float}> $corners
     * @param ?list<float>                     $plane   that they are drawn in
     */
    private function line(array $corners, string $layer, ?array $plane): void
    {
        if (null !== $plane) {
            $corners = array_map(static fn (array $c): array => DxfPlacement::apply($plane, ...$c), $corners);
        }
        if (\count($corners) > 1) {
            $this->shapes[$this->block][] = ['kind' => 'line', 'layer' => $layer, 'corners' => $corners, 'faces' => []];
        }
    }

    /** @param array{flags: int, groups: array<int, string>, vertices: list<array<int, string>>} $polyline */
    private function mesh(array $polyline, int $line): void
    {
        $layer = $polyline['groups'][8] ?? '0';
        if (0 === ($polyline['flags'] & 80)) {
            $this->polyline($polyline, $layer);

            return;
        }
        $corners = $faces = [];
        if (0 !== ($polyline['flags'] & 64)) {
            foreach ($polyline['vertices'] as $v) {
                $flags = (int) ($v[70] ?? 0);
                if (0 !== ($flags & 64)) {
                    $corners[] = $this->place3($v);
                } elseif (0 !== ($flags & 128)) {
                    $face = [];
                    foreach ([71, 72, 73, 74] as $code) {
                        if (0 !== $number = abs((int) ($v[$code] ?? 0))) {
                            $face[] = $number - 1; // a minus only hides the edge
                        }
                    }
                    $faces[] = $face;
                }
            }
        } elseif (0 !== ($polyline['flags'] & 16)) {
            // A smoothed mesh holds its control points beside the fitted ones.
            $smooth = 0 !== (int) ($polyline['groups'][75] ?? 0);
            $m = (int) ($polyline['groups'][$smooth ? 73 : 71] ?? 0);
            $n = (int) ($polyline['groups'][$smooth ? 74 : 72] ?? 0);
            foreach ($polyline['vertices'] as $v) {
                if (!$smooth || 0 === ((int) ($v[70] ?? 0) & 16)) {
                    $corners[] = $this->place3($v);
                }
            }
            if ($m < 2 || $n < 2 || \count($corners) < $m * $n) {
                throw new UnusableInput("line $line", \sprintf('a mesh of %d by %d has %d vertices', $m, $n, \count($corners)));
            }
            $rows = 0 !== ($polyline['flags'] & 1) ? $m : $m - 1;
            $columns = 0 !== ($polyline['flags'] & 32) ? $n : $n - 1;
            for ($i = 0; $i < $rows; ++$i) {
                for ($j = 0; $j < $columns; ++$j) {
                    $right = ($j + 1) % $n;
                    $down = ($i + 1) % $m;
                    $faces[] = [$i * $n + $j, $i * $n + $right, $down * $n + $right, $down * $n + $j];
                }
            }
        }
        $this->add($layer, $corners, $faces, $line);
    }

    /** @param list<array{int, string}> $groups */
    private function subdivision(array $groups, string $layer, int $line): void
    {
        $corners = $faces = $place = [];
        $isList = false;
        $left = $wanted = 0;
        $face = [];
        foreach ($groups as [$code, $value]) {
            if (!$isList && (10 === $code || 20 === $code || 30 === $code)) {
                $place[] = $this->number($value);
                if (30 === $code) {
                    $corners[] = [$place[0], $place[1] ?? 0.0, $place[2] ?? 0.0];
                    $place = [];
                }
            } elseif (93 === $code) {
                $isList = true;
                $left = (int) $value;
            } elseif (90 === $code && $isList && $left > 0) {
                --$left;
                if (0 === $wanted) {
                    $wanted = (int) $value;
                    $face = [];
                } else {
                    $face[] = (int) $value;
                    if (0 === --$wanted) {
                        $faces[] = $face;
                    }
                }
            } elseif (94 === $code) {
                break; // edges and creases follow
            }
        }
        $this->add($layer, $corners, $faces, $line);
    }

    /**
     * @param list<array{float, float, float}> $corners
     * @param list<list<int>>                  $faces
     */
    private function add(string $layer, array $corners, array $faces, int $line): void
    {
        $kept = [];
        foreach ($faces as $face) {
            foreach ($face as $c) {
                if (!isset($corners[$c])) {
                    throw new UnusableInput("line $line", \sprintf('a face names vertex %d; there are %d', $c + 1, \count($corners)));
                }
            }
            if (\count($face) > 2) {
                $kept[] = $face;
            }
        }
        if ([] !== $kept) {
            $this->shapes[$this->block][] = ['kind' => 'face', 'layer' => $layer, 'corners' => $corners, 'faces' => $kept];
        }
    }

    /**
     * Places the faces of a block and of the blocks in it.
     *
     * @param list<float> $m     rows of three by four
     * @param ?string     $layer of the placed block, which faces on layer 0 take on
     */
    private function place(string $block, array $m, ?string $layer, int $depth): void
    {
        if ($depth > self::DEEPEST) {
            throw new UnusableInput('', \sprintf('block "%s" holds itself', $block));
        }
        foreach ($this->shapes[$block] ?? [] as $shape) {
            $first = \count($this->x);
            foreach ($shape['corners'] as [$x, $y, $z]) {
                $this->x[] = $m[0] * $x + $m[1] * $y + $m[2] * $z + $m[3];
                $this->y[] = $m[4] * $x + $m[5] * $y + $m[6] * $z + $m[7];
                $this->z[] = $m[8] * $x + $m[9] * $y + $m[10] * $z + $m[11];
            }
            $own = null !== $layer && '0' === $shape['layer'] ? $layer : $shape['layer'];
            if ('line' === $shape['kind']) {
                $this->lines[] = range($first, \count($this->x) - 1);
                $this->lineLayers[] = $own;
            } elseif ('point' === $shape['kind']) {
                $this->points[] = $first;
                $this->pointLayers[] = $own;
            }
            foreach ($shape['faces'] as $face) {
                for ($i = 2, $n = \count($face); $i < $n; ++$i) {
                    array_push($this->triangles, $first + $face[0], $first + $face[$i - 1], $first + $face[$i]);
                    $this->faceOf[] = \count($this->layerOf);
                }
                $this->layerOf[] = $own;
            }
        }
        foreach ($this->inserts[$block] ?? [] as $insert) {
            $g = $insert['groups'];
            $this->insertion($m, $insert, $layer);
            for ($r = 0, $rows = max(1, (int) ($g[71] ?? 1)); $r < $rows; ++$r) {
                for ($c = 0, $columns = max(1, (int) ($g[70] ?? 1)); $c < $columns; ++$c) {
                    if (++$this->placed > self::MOST_PLACED) {
                        throw new UnusableInput('', \sprintf('places more than %d blocks within one another', self::MOST_PLACED));
                    }
                    $base = $this->base[$insert['block']] ?? [0.0, 0.0, 0.0];
                    $local = DxfPlacement::ofInsert($g, $this->place3($g), $base, $c, $r);
                    $own = null !== $layer && '0' === $insert['layer'] ? $layer : $insert['layer'];
                    $this->place($insert['block'], DxfPlacement::times($m, $local), $own, $depth + 1);
                }
            }
        }
    }

    /**
     * Where a block is placed is a point of the drawing.
     *
     * @param list<float>                                                     $m
     * @param array{block: string, layer: string, groups: array<int, string>} $insert
     */
    private function insertion(array $m, array $insert, ?string $layer): void
    {
        $at = $this->place3($insert['groups']);
        $plane = DxfPlacement::ofExtrusion($insert['groups']);
        [$x, $y, $z] = DxfPlacement::apply($m, ...(null === $plane ? $at : DxfPlacement::apply($plane, ...$at)));
        $this->points[] = \count($this->x);
        $this->pointLayers[] = null !== $layer && '0' === $insert['layer'] ? $layer : $insert['layer'];
        [$this->x[], $this->y[], $this->z[]] = [$x, $y, $z];
    }

    /**
     * @param array<int, string> $first
     *
     * @return array{float, float, float}
     */
    private function place3(array $first, int $k = 0): array
    {
        return [$this->number($first[10 + $k] ?? '0'), $this->number($first[20 + $k] ?? '0'), $this->number($first[30 + $k] ?? '0')];
    }

    /** @throws UnusableInput for what is no number */
    private function number(string $text): float
    {
        $text = trim($text);
        if (!is_numeric($text) || !is_finite((float) $text)) {
            throw new UnusableInput('line '.$this->line, \sprintf('"%s" is not a coordinate', mb_scrub(substr($text, 0, 30))));
        }

        return (float) $text;
    }
}
