<?php

declare(strict_types=1);

namespace Mensura\Exchange\Features\Read;

use Mensura\Exchange\Dxf\DxfCurves;
use Mensura\Exchange\Dxf\DxfGeometry;
use Mensura\Exchange\Dxf\DxfPlacement;
use Mensura\Exchange\Dxf\DxfRecord;
use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Fault\UnusableInput;

/**
 * Model space of an ASCII DXF: points and placed blocks with their attributes, lines, polylines, arcs and circles as chords, faces of
 * every kind. What is closed is a polygon.
 */
final class DxfFeatures
{
    private const LEFT = [
        'ELLIPSE', 'SPLINE', 'HATCH', 'TEXT', 'MTEXT', 'DIMENSION', '3DSOLID', 'REGION', 'BODY', 'SOLID', 'LEADER', 'IMAGE',
    ];

    /** @var array<string, int> */
    private array $left = [];

    /** @var ?array{array<int, string>, list<array<int, string>>} polyline that is open */
    private ?array $polyline = null;

    /** The placed block whose attributes follow. */
    private ?Feature $insert = null;

    private int $line = 0;

    public function __construct(private readonly FeatureSet $set)
    {
    }

    public function take(DxfRecord $record): void
    {
        if ('ENTITIES' === $record->section) {
            $this->line = $record->line;
            $this->record($record);
        }
    }

    /**
     * When all records are taken.
     *
     * @param bool $hasFaces whether there are any; then the drawing is gone through once more for them
     *
     * @return list<string> what was left out
     */
    public function finish(string $path, string $name, bool $hasFaces): array
    {
        if ($hasFaces) {
            $stream = @fopen($path, 'r') ?: throw new UnusableInput($name, 'cannot be read');
            $this->faces(DxfGeometry::read($stream));
            fclose($stream);
        }

        return array_map(static fn (string $what, int $n): string => "$n $what", array_keys($this->left), $this->left);
    }

    private function record(DxfRecord $record): void
    {
        $type = $record->type;
        $first = $record->first();
        if (1 === (int) ($first[67] ?? 0)) {
            return;
        }
        $layer = self::unescaped($first[8] ?? '0');
        switch ($type) {
            case 'POINT':
                $this->add(Feature::POINT, $layer, [$this->place($first)]);
                break;
            case 'INSERT':
                $at = $this->place($first);
                $plane = DxfPlacement::ofExtrusion($first);
                $feature = $this->add(Feature::POINT, $layer, [null === $plane ? $at : DxfPlacement::apply($plane, ...$at)]);
                $this->insert = 1 === (int) ($first[66] ?? 0) ? $feature : null;
                break;
            case 'ATTRIB':
                if (null !== $this->insert) {
                    $this->insert->properties[self::unescaped(trim($first[2] ?? ''))] = self::unescaped($first[1] ?? '');
                }
                break;
            case 'LINE':
                $this->add(Feature::LINE, $layer, [$this->place($first), $this->place($first, 1)]);
                break;
            case 'LWPOLYLINE':
                $isClosed = 0 !== ((int) ($first[70] ?? 0) & 1);
                $this->drawn($layer, self::light($first, $record->groups()), $isClosed, DxfPlacement::ofExtrusion($first));
                break;
            case 'ARC':
            case 'CIRCLE':
                $this->arc($type, $first, $layer);
                break;
            case 'POLYLINE':
                $this->polyline = [$first, []];
                break;
            case 'VERTEX':
                if (null !== $this->polyline) {
                    $this->polyline[1][] = $first;
                }
                break;
            case 'SEQEND':
                if (null !== $this->polyline) {
                    $this->polyline(...$this->polyline);
                }
                $this->polyline = $this->insert = null;
                break;
            default:
                if (\in_array($type, self::LEFT, true)) {
                    $this->left[$type] = ($this->left[$type] ?? 0) + 1;
                }
        }
    }

    /**
     * @param array<int, string>       $polyline
     * @param list<array<int, string>> $vertices
     */
    private function polyline(array $polyline, array $vertices): void
    {
        $flags = (int) ($polyline[70] ?? 0);
        if (0 !== ($flags & (16 | 64))) {
            return; // a mesh: its faces come with the others
        }
        $isIn3d = 0 !== ($flags & 8);
        $z = $this->place($polyline)[2];
        $corners = [];
        foreach ($vertices as $v) {
            if (0 === ((int) ($v[70] ?? 0) & 16)) {
                [$x, $y, $own] = $this->place($v);
                $corners[] = [$x, $y, $isIn3d ? $own : $z, $isIn3d ? 0.0 : (float) ($v[42] ?? 0)];
            }
        }
        $plane = $isIn3d ? null : DxfPlacement::ofExtrusion($polyline);
        $this->drawn(self::unescaped($polyline[8] ?? '0'), $corners, 0 !== ($flags & 1), $plane);
    }

    /**
     * @param list<array{float, float, float, float}> $vertices with bulges
     * @param ?list<float>                            $plane
     */
    private function drawn(string $layer, array $vertices, bool $isClosed, ?array $plane): void
    {
        $corners = DxfCurves::polyline($vertices, $isClosed);
        if (null !== $plane) {
            $corners = array_map(static fn (array $c): array => DxfPlacement::apply($plane, ...$c), $corners);
        }
        if (\count($corners) > 1) {
            $this->add($isClosed ? Feature::POLYGON : Feature::LINE, $layer, $corners);
        }
    }

    /** @param array<int, string> $first */
    private function arc(string $type, array $first, string $layer): void
    {
        [$x, $y, $z] = $this->place($first);
        $from = 'ARC' === $type ? deg2rad((float) ($first[50] ?? 0)) : 0.0;
        $turn = 'ARC' === $type ? fmod(deg2rad((float) ($first[51] ?? 360)) - $from + 4.0 * \M_PI, 2.0 * \M_PI) : 2.0 * \M_PI;
        $corners = DxfCurves::arc($x, $y, $z, (float) ($first[40] ?? 0), $from, $turn);
        $plane = DxfPlacement::ofExtrusion($first);
        if (null !== $plane) {
            $corners = array_map(static fn (array $c): array => DxfPlacement::apply($plane, ...$c), $corners);
        }
        if ('CIRCLE' === $type) {
            $corners[\count($corners) - 1] = $corners[0];
        }
        $this->add('CIRCLE' === $type ? Feature::POLYGON : Feature::LINE, $layer, $corners);
        $words = 'ARC and CIRCLE, as chords';
        $this->left[$words] = ($this->left[$words] ?? 0) + 1;
    }

    private function faces(DxfGeometry $drawing): void
    {
        $rings = [];
        foreach ($drawing->faceOf as $t => $face) {
            [$a, $b, $c] = [$drawing->triangles[3 * $t], $drawing->triangles[3 * $t + 1], $drawing->triangles[3 * $t + 2]];
            // Triangles of a face fan out from its first corner.
            $rings[$face] = isset($rings[$face]) ? [...$rings[$face], $c] : [$a, $b, $c];
        }
        foreach ($rings as $face => $corners) {
            $ring = array_map(static fn (int $c): array => [$drawing->x[$c], $drawing->y[$c], $drawing->z[$c]], [...$corners, $corners[0]]);
            $this->set->features[] = new Feature(Feature::FACE, self::unescaped($drawing->layerOf[$face]), [[$ring]]);
        }
    }

    /** @param list<array{float, float, float}> $places */
    private function add(string $kind, string $layer, array $places): Feature
    {
        return $this->set->features[] = new Feature($kind, $layer, [[$places]]);
    }

    /**
     * @param array<int, string>       $first
     * @param list<array{int, string}> $groups
     *
     * @return list<array{float, float, float, float}>
     */
    private static function light(array $first, array $groups): array
    {
        $z = (float) ($first[38] ?? 0);
        $vertices = [];
        foreach ($groups as [$code, $value]) {
            $last = \count($vertices) - 1;
            if (10 === $code) {
                $vertices[] = [(float) $value, 0.0, $z, 0.0];
            } elseif (20 === $code && $last >= 0) {
                $vertices[$last][1] = (float) $value;
            } elseif (42 === $code && $last >= 0) {
                $vertices[$last][3] = (float) $value;
            }
        }

        return $vertices;
    }

    /**
     * @param array<int, string> $first
     *
     * @return array{float, float, float}
     *
     * @throws UnusableInput for what is no number
     */
    private function place(array $first, int $k = 0): array
    {
        $number = function (string $text): float {
            $text = trim($text);

            return is_numeric($text) && is_finite((float) $text) ? (float) $text
                : throw new UnusableInput('line '.$this->line, \sprintf('"%s" is not a coordinate', mb_scrub(substr($text, 0, 30))));
        };

        return [$number($first[10 + $k] ?? '0'), $number($first[20 + $k] ?? '0'), $number($first[30 + $k] ?? '0')];
    }

    private static function unescaped(string $text): string
    {
        $text = mb_check_encoding($text, 'UTF-8') ? $text : (string) mb_convert_encoding($text, 'UTF-8', 'Windows-1252');
        $character = static fn (array $m): string => (string) mb_chr((int) hexdec($m[1]));

        return preg_replace_callback('/\\\\U\+([0-9A-Fa-f]{4})/', $character, $text) ?? '';
    }
}
