<?php

declare(strict_types=1);

namespace Mensura\Exchange\Dxf;

/**
 * ASCII DXF of release AC1015, with what other programs need to open it cleanly: header, layer and text style tables,
 * block records, entities, objects dictionary. Coordinates in metres, as they are in the project. Group codes after
 * the published DXF Reference.
 */
final class DxfWriter
{
    private int $handle = 0x10000;

    /** @var array<int|string, int> colour number by layer; PHP turns the layer "0" into a number */
    private array $layers = ['0' => 7];

    /** Dashes and gaps in drawing units, by the name of the line type. */
    private const LINE_TYPES = ['DASHED' => [1.0, -0.5], 'DOTTED' => [0.0, -0.5]];

    /** @var array<int|string, string> line type by layer, where it is not continuous */
    private array $styles = [];

    /** @var resource entities, on disk beyond a few megabytes: a drawing has more of them than memory holds */
    private $entities;

    /** @var array{float, float, float, float} */
    private array $extent = [\INF, \INF, -\INF, -\INF];

    /** The block that marks are placed as; its attributes say what is said of each. */
    private const MARK = 'MARK';

    /** Strokes of the signs a mark is drawn as beside its point, x and y of both ends, of a height of one; a circle has none. */
    private const SIGNS = [
        'dot' => [], 'circle' => [],
        'square' => [[-0.5, -0.5, 0.5, -0.5], [0.5, -0.5, 0.5, 0.5], [0.5, 0.5, -0.5, 0.5], [-0.5, 0.5, -0.5, -0.5]],
        'triangle' => [[-0.5, -0.4, 0.5, -0.4], [0.5, -0.4, 0.0, 0.6], [0.0, 0.6, -0.5, -0.4]],
        'cross' => [[-0.5, 0.0, 0.5, 0.0], [0.0, -0.5, 0.0, 0.5]],
    ];

    /** @var array<string, true> signs that marks are placed with */
    private array $signs = [];
    private readonly string $format;

    /**
     * @param int $unit     of the drawing as $INSUNITS numbers them: 6 metres, 2 feet, 4 millimetres, 21 US survey feet, 0 none
     * @param int $decimals of coordinates
     */
    public function __construct(private readonly int $unit = 6, int $decimals = 6)
    {
        $this->format = "%.{$decimals}F";
        $this->entities = fopen('php://temp/maxmemory:8388608', 'w+') ?: throw new \RuntimeException('No temporary file can be written.');
    }

    /** @param string $style "solid", "dashed" or "dotted" */
    public function layer(string $name, int $colour, string $style = 'solid'): void
    {
        $this->layers[self::layerName($name)] = $colour;
        if (isset(self::LINE_TYPES[strtoupper($style)])) {
            $this->styles[self::layerName($name)] = strtoupper($style);
        }
    }

    /** Letters, digits, - and _ only, as every reader accepts. */
    public static function layerName(string $name): string
    {
        $name = preg_replace('/[^A-Za-z0-9_-]+/', '_', $name) ?? '';

        return '' === $name ? '0' : substr($name, 0, 60);
    }

    public function point(string $layer, float $x, float $y, float $z): void
    {
        $this->entity('POINT', $layer, 'AcDbPoint', $this->xyz($x, $y, $z));
    }

    public function text(string $layer, float $x, float $y, float $z, float $height, string $text): void
    {
        $this->entity(
            'TEXT',
            $layer,
            'AcDbText',
            $this->xyz($x, $y, $z).self::pair(40, $this->number($height)).self::pair(1, self::escape($text)).self::pair(100, 'AcDbText'),
        );
    }

    /** @param list<array{float, float, float}> $vertices */
    public function polyline3d(string $layer, array $vertices, bool $closed = false): void
    {
        $layer = self::layerName($layer);
        $owner = $this->entity(
            'POLYLINE',
            $layer,
            'AcDb3dPolyline',
            self::pair(66, '1').self::pair(10, '0.0').self::pair(20, '0.0').self::pair(30, '0.0')
                .self::pair(70, (string) (8 + (int) $closed)),
        );
        foreach ($vertices as [$x, $y, $z]) {
            $this->put(self::pair(0, 'VERTEX').self::pair(5, $this->nextHandle()).self::pair(330, $owner)
                .self::pair(100, 'AcDbEntity').self::pair(8, $layer).self::pair(100, 'AcDbVertex')
                    .self::pair(100, 'AcDb3dPolylineVertex').$this->xyz($x, $y, $z).self::pair(70, '32'));
        }
        $end = self::pair(0, 'SEQEND').self::pair(5, $this->nextHandle()).self::pair(330, $owner);
        $this->put($end.self::pair(100, 'AcDbEntity').self::pair(8, $layer));
    }

    /** @param list<array{float, float}> $vertices */
    public function contour(string $layer, array $vertices, float $elevation): void
    {
        $body = self::pair(90, (string) \count($vertices)).self::pair(70, '0').self::pair(38, $this->number($elevation));
        foreach ($vertices as [$x, $y]) {
            $this->extend($x, $y);
            $body .= self::pair(10, $this->number($x)).self::pair(20, $this->number($y));
        }
        $this->entity('LWPOLYLINE', $layer, 'AcDbPolyline', $body);
    }

    /**
     * A mark as a placed block with attributes.
     *
     * @param string                $sign       that is drawn at it, of that height: one of {@see SIGNS}
     * @param array<string, string> $attributes by tag; of tags that end in nothing else than letters, digits, - and _
     */
    public function mark(string $layer, float $x, float $y, float $z, array $attributes, float $height = 1.0, string $sign = 'dot'): void
    {
        if (!isset(self::SIGNS[$sign])) {
            throw new \InvalidArgumentException($sign.' is no sign of a mark.');
        }
        $this->signs[$sign] = true;
        $place = $this->xyz($x, $y, $z);
        $layer = self::layerName($layer);
        $this->layers[$layer] ??= 7;
        $owner = $this->nextHandle();
        $entity = "330\n$owner\n100\nAcDbEntity\n  8\n$layer\n";
        $follow = [] === $attributes ? '' : " 66\n1\n";
        // Marks come by the hundred thousand: put together in one piece.
        $text = "  0\nINSERT\n  5\n$owner\n330\n1F\n100\nAcDbEntity\n  8\n$layer\n100\nAcDbBlockReference\n$follow  2\n"
            .self::block($sign)."\n$place".('dot' === $sign ? '' : self::scaled($this->number($height)));
        if ([] !== $attributes) {
            $size = $this->number($height);
            foreach ($attributes as $tag => $value) {
                $tag = self::escape((string) $tag);
                $value = self::escape($value);
                $text .= "  0\nATTRIB\n  5\n{$this->nextHandle()}\n{$entity}100\nAcDbText\n$place 40\n$size\n  1\n$value\n"
                    ."100\nAcDbAttribute\n  2\n$tag\n 70\n0\n";
            }
            $text .= "  0\nSEQEND\n  5\n{$this->nextHandle()}\n$entity";
        }
        $this->put($text);
    }

    /** @param list<array{float, float, float}> $corners three or four */
    public function face(string $layer, array $corners): void
    {
        $corners[3] ??= $corners[2];
        $body = '';
        foreach ($corners as $k => [$x, $y, $z]) {
            $this->extend($x, $y);
            $body .= self::pair(10 + $k, $this->number($x)).self::pair(20 + $k, $this->number($y)).self::pair(30 + $k, $this->number($z));
        }
        $this->entity('3DFACE', $layer, 'AcDbFace', $body);
    }

    /** Writes the drawing; it takes no more entities afterwards. */
    public function save(string $path): void
    {
        [$x0, $y0, $x1, $y1] = is_finite($this->extent[0]) ? $this->extent : [0.0, 0.0, 1.0, 1.0];
        $corner = fn (string $name, float $x, float $y): string => self::pair(9, $name).self::pair(10, $this->number($x))
            .self::pair(20, $this->number($y)).self::pair(30, '0.0');
        $header = self::pair(9, '$ACADVER').self::pair(1, 'AC1015').self::pair(9, '$INSUNITS').self::pair(70, (string) $this->unit)
            .$corner('$EXTMIN', $x0, $y0).$corner('$EXTMAX', $x1, $y1).self::pair(9, '$HANDSEED').self::pair(5, 'FFFFFF');
        $begin = static fn (string $name): string => self::pair(0, 'SECTION').self::pair(2, $name);
        $end = self::pair(0, 'ENDSEC');
        $file = fopen($path, 'w') ?: throw new \RuntimeException($path.' cannot be written.');
        fwrite($file, $begin('HEADER').$header.$end.$begin('CLASSES').$end.$begin('TABLES').$this->tables().$end);
        fwrite($file, $begin('BLOCKS').$this->blocks().$end.$begin('ENTITIES'));
        rewind($this->entities);
        stream_copy_to_stream($this->entities, $file);
        fwrite($file, $end.$begin('OBJECTS').$this->objects().$end.self::pair(0, 'EOF'));
        fclose($file);
    }

    private function put(string $entity): void
    {
        fwrite($this->entities, $entity);
    }

    private function tables(): string
    {
        $table = static fn (string $name, string $handle, int $count, string $body): string => self::pair(0, 'TABLE')
            .self::pair(2, $name).self::pair(5, $handle).self::pair(330, '0').self::pair(100, 'AcDbSymbolTable')
            .self::pair(70, (string) $count).$body.self::pair(0, 'ENDTAB');
        $record = static fn (
            string $type, string $handle, string $owner, string $class, string $body, int $code = 5,
        ): string => self::pair(0, $type)
            .self::pair($code, $handle).self::pair(330, $owner).self::pair(100, 'AcDbSymbolTableRecord')
            .self::pair(100, $class).$body;
        $lineTypes = '';
        foreach (['ByBlock' => '14', 'ByLayer' => '15', 'Continuous' => '16'] as $name => $handle) {
            $lineTypes .= $record(
                'LTYPE', $handle, '5', 'AcDbLinetypeTableRecord',
                self::pair(2, $name).self::pair(70, '0').self::pair(3, '').self::pair(72, '65').self::pair(73, '0').self::pair(40, '0.0'),
            );
        }
        $number = 0x30;
        foreach (self::LINE_TYPES as $name => $dashes) {
            $pattern = self::pair(2, $name).self::pair(70, '0').self::pair(3, '').self::pair(72, '65')
                .self::pair(73, (string) \count($dashes)).self::pair(40, $this->number(array_sum(array_map(abs(...), $dashes))));
            foreach ($dashes as $dash) {
                $pattern .= self::pair(49, $this->number($dash)).self::pair(74, '0');
            }
            $lineTypes .= $record('LTYPE', dechex($number++), '5', 'AcDbLinetypeTableRecord', $pattern);
        }
        $layers = '';
        $number = 0x1000;
        foreach ($this->layers as $name => $colour) {
            $layers .= $record(
                'LAYER', dechex($number++), '2', 'AcDbLayerTableRecord',
                self::pair(2, (string) $name).self::pair(70, '0').self::pair(62, (string) $colour)
                    .self::pair(6, $this->styles[$name] ?? 'Continuous'),
            );
        }
        $style = self::pair(2, 'Standard').self::pair(70, '0').self::pair(40, '0.0').self::pair(41, '1.0')
            .self::pair(50, '0.0').self::pair(71, '0').self::pair(42, '1.0').self::pair(3, 'txt').self::pair(4, '');
        $style = $record('STYLE', '11', '3', 'AcDbTextStyleTableRecord', $style);
        $blocks = $record('BLOCK_RECORD', '1F', '1', 'AcDbBlockTableRecord', self::pair(2, '*Model_Space'))
            .$record('BLOCK_RECORD', '1B', '1', 'AcDbBlockTableRecord', self::pair(2, '*Paper_Space'))
            .implode('', array_map(static fn (string $sign): string => $record(
                'BLOCK_RECORD', self::handle($sign, 0), '1', 'AcDbBlockTableRecord', self::pair(2, self::block($sign)),
            ), array_keys($this->signs)));

        return $table('VPORT', '8', 0, '').$table('LTYPE', '5', 3 + \count(self::LINE_TYPES), $lineTypes)
            .$table('LAYER', '2', \count($this->layers), $layers).$table('STYLE', '3', 1, $style)
            .$table('VIEW', '6', 0, '').$table('UCS', '7', 0, '')
            .$table('APPID', '9', 1, $record('APPID', '12', '9', 'AcDbRegAppTableRecord', self::pair(2, 'ACAD').self::pair(70, '0')))
            .self::pair(0, 'TABLE').self::pair(2, 'DIMSTYLE').self::pair(5, 'A').self::pair(330, '0')
                .self::pair(100, 'AcDbSymbolTable').self::pair(70, '0').self::pair(100, 'AcDbDimStyleTable')
                .self::pair(0, 'ENDTAB')
            .$table('BLOCK_RECORD', '1', 2 + \count($this->signs), $blocks);
    }

    private function blocks(): string
    {
        $text = '';
        $all = [['*Model_Space', '1F', '20', '21', ''], ['*Paper_Space', '1B', '1C', '1D', '']];
        foreach (array_keys($this->signs) as $sign) {
            $holds = self::sign($sign);
            $all[] = [self::block($sign), self::handle($sign, 0), self::handle($sign, 1), self::handle($sign, 2), $holds];
        }
        foreach ($all as [$name, $owner, $begin, $end, $holds]) {
            $text .= self::pair(0, 'BLOCK').self::pair(5, $begin).self::pair(330, $owner)
                .self::pair(100, 'AcDbEntity').self::pair(8, '0').self::pair(100, 'AcDbBlockBegin')
                .self::pair(2, $name).self::pair(70, '0').self::pair(10, '0.0').self::pair(20, '0.0')
                .self::pair(30, '0.0').self::pair(3, $name).self::pair(1, '').$holds
                .self::pair(0, 'ENDBLK').self::pair(5, $end).self::pair(330, $owner).self::pair(100, 'AcDbEntity')
                    .self::pair(8, '0').self::pair(100, 'AcDbBlockEnd');
        }

        return $text;
    }

    /**
     * How far a sign of a height of one reaches from its place: west and south negative, east, north.
     *
     * @return array{float, float, float, float}
     */
    public static function reach(string $sign): array
    {
        $strokes = 'circle' === $sign ? self::SIGNS['cross'] : [...self::SIGNS[$sign], [0.0, 0.0, 0.0, 0.0]];
        $x = [...array_column($strokes, 0), ...array_column($strokes, 2)];
        $y = [...array_column($strokes, 1), ...array_column($strokes, 3)];

        return [min($x), min($y), max($x), max($y)];
    }

    private static function block(string $sign): string
    {
        return 'dot' === $sign ? self::MARK : self::MARK.'_'.strtoupper($sign);
    }

    /** Handles of the blocks of signs: those of one follow one another. */
    private static function handle(string $sign, int $k): string
    {
        return strtoupper(dechex(0x100 + 0x10 * (int) array_search($sign, array_keys(self::SIGNS), true) + $k));
    }

    /** A mark is drawn as a point, so that it is seen where it is placed, and its sign about it. */
    private static function sign(string $sign): string
    {
        $k = 3;
        $entity = static function (string $type, string $class, string $body) use ($sign, &$k): string {
            return self::pair(0, $type).self::pair(5, self::handle($sign, $k++)).self::pair(330, self::handle($sign, 0))
                .self::pair(100, 'AcDbEntity').self::pair(8, '0').self::pair(100, $class).$body;
        };
        $at = static fn (float $x, float $y, int $more = 0): string => self::pair(10 + $more, \sprintf('%.2F', $x))
            .self::pair(20 + $more, \sprintf('%.2F', $y)).self::pair(30 + $more, '0.0');
        $text = $entity('POINT', 'AcDbPoint', $at(0.0, 0.0));
        if ('circle' === $sign) {
            $text .= $entity('CIRCLE', 'AcDbCircle', $at(0.0, 0.0).self::pair(40, '0.5'));
        }
        foreach (self::SIGNS[$sign] as [$x0, $y0, $x1, $y1]) {
            $text .= $entity('LINE', 'AcDbLine', $at($x0, $y0).$at($x1, $y1, 1));
        }

        return $text;
    }

    private static function scaled(string $height): string
    {
        return self::pair(41, $height).self::pair(42, $height).self::pair(43, $height);
    }

    private function objects(): string
    {
        return self::pair(0, 'DICTIONARY').self::pair(5, 'C').self::pair(330, '0').self::pair(100, 'AcDbDictionary')
            .self::pair(281, '1').self::pair(3, 'ACAD_GROUP').self::pair(350, 'D')
            .self::pair(0, 'DICTIONARY').self::pair(5, 'D').self::pair(330, 'C').self::pair(100, 'AcDbDictionary').self::pair(281, '1');
    }

    private function entity(string $type, string $layer, string $class, string $body): string
    {
        $layer = self::layerName($layer);
        $this->layers[$layer] ??= 7;
        $handle = $this->nextHandle();
        $head = self::pair(0, $type).self::pair(5, $handle).self::pair(330, '1F').self::pair(100, 'AcDbEntity');
        $this->put($head.self::pair(8, $layer).self::pair(100, $class).$body);

        return $handle;
    }

    private function nextHandle(): string
    {
        return strtoupper(dechex($this->handle++));
    }

    private function xyz(float $x, float $y, float $z): string
    {
        $this->extend($x, $y);

        return self::pair(10, $this->number($x)).self::pair(20, $this->number($y)).self::pair(30, $this->number($z));
    }

    private function extend(float $x, float $y): void
    {
        $this->extent = [min($this->extent[0], $x), min($this->extent[1], $y), max($this->extent[2], $x), max($this->extent[3], $y)];
    }

    private function number(float $value): string
    {
        return \sprintf($this->format, $value);
    }

    /** Release AC1015 text is not Unicode: what is not ASCII is written as \U+XXXX. */
    private static function escape(string $text): string
    {
        if (1 === preg_match('/^[\x20-\x7E]*+$/D', $text)) {
            return $text;
        }
        $text = preg_replace('/[\x00-\x1F\x7F]/', ' ', $text) ?? '';

        return preg_replace_callback('/[^\x20-\x7E]/u', static fn (array $m): string => \sprintf('\\U+%04X', mb_ord($m[0])), $text) ?? '';
    }

    private static function pair(int $code, string $value): string
    {
        // Millions of these: put together by hand in half the time.
        return ($code < 10 ? '  ' : ($code < 100 ? ' ' : '')).$code."\n".$value."\n";
    }
}
