<?php

declare(strict_types=1);

namespace Mensura\Exchange\CoordinateTable;

use Mensura\Exchange\Delimited\RecordBlocks;
use Mensura\Fault\UnusableInput;
use Mensura\Quantity\Decimal;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Operation\MissingGrid;
use Mensura\Reference\Operation\Route;

/**
 * Coordinates of a CSV table from one system to another, row by row: the coordinate columns are replaced where they
 * stand, every other cell passes through as it is. Columns are found by name; geographic coordinates in decimal
 * degrees from the system's own meridian, plane ones in the system's own unit.
 */
final class TransformTable
{
    private const DEGREE = \M_PI / 180.0;
    private const BUFFER = 262144;

    /** No easting or northing is farther out, in any unit. */
    private const FARTHEST = 1e15;

    private int $rows = 0;

    /** @var list<array{int, string}> line, reason */
    private array $bad = [];

    private bool $heightsPassed = false;
    private int $outsideArea = 0;

    /** @param bool $native plane coordinates of a system whose axes point west or south come out as w, s */
    public function __construct(private readonly Route $route, private readonly bool $native, private readonly bool $skipBad)
    {
    }

    /**
     * @param resource                      $in
     * @param resource                      $out
     * @param ?callable(int, string): void  $onBad line and reason of a row left out
     *
     * @throws UnusableInput naming the line of the first bad row, unless bad rows are skipped
     */
    public function run($in, $out, ?callable $onBad = null): void
    {
        $blocks = new RecordBlocks($in);
        [
            'remarks' => $remarks, 'header' => $header, 'delimiter' => $delimiter, 'names' => $names, 'plan' => $plan,
            'records' => $records, 'line' => $line,
        ] = $this->heading($blocks, $blocks->next());
        fwrite($out, $remarks);
        [$one, $two, $three] = $plan['in'];
        foreach ($plan['out'] as $at => $name) {
            $header[$at] = $name;
        }
        fwrite($out, implode($delimiter, $header)."\n");

        $from = $this->route->from->horizontal;
        $to = $this->route->to->horizontal;
        $signOne = $plan['signs'][0];
        $signTwo = $plan['signs'][1];
        $sourceKind = $from->kind;
        $targetKind = $to->kind;
        $source = $from->projection;
        $target = $to->projection;
        $meridianIn = $from->datum->primeMeridian * self::DEGREE;
        $meridianOut = $to->datum->primeMeridian * self::DEGREE;
        $unitIn = $from->unit;
        $unitOut = $to->unit;
        $heightIn = $this->route->from->vertical->unit ?? 1.0;
        $heightOut = $this->route->to->vertical->unit ?? 1.0;
        [$outOne, $outTwo, $outThree] = $plan['places'];
        $west = $this->native && $to->pointsWest() ? -1.0 : 1.0;
        $south = $this->native && $to->pointsSouth() ? -1.0 : 1.0;
        $identity = $this->route->isIdentity();
        $heights = $this->route->heights;
        $count = \count($header);
        $area = $to->area;
        $ellipsoidIn = $from->ellipsoid();
        $ellipsoidOut = $to->ellipsoid();
        $route = $this->route;
        // A height that only passes through is not even read, unless a datum step of the position asks for it.
        $readHeight = null !== $three && !($identity && !$heights && HorizontalSystem::GEOCENTRIC !== $sourceKind);
        $buffer = '';
        $geographicIn = HorizontalSystem::GEOGRAPHIC === $sourceKind;
        $projectedIn = HorizontalSystem::PROJECTED === $sourceKind;
        $geographicOut = HorizontalSystem::GEOGRAPHIC === $targetKind;
        $projectedOut = HorizontalSystem::PROJECTED === $targetKind;
        if (null !== $area && ($area->width() >= 360.0 || $area->west > $area->east)) {
            $area = null;
        }
        [$areaSouth, $areaNorth, $areaWest, $areaEast] = null === $area
            ? [-2.0, 2.0, -10.0, 10.0]
            : [$area->south * self::DEGREE, $area->north * self::DEGREE, $area->west * self::DEGREE, $area->east * self::DEGREE];
        $greenwich = $meridianIn;
        $plain = 1.0 === $unitOut && 1.0 === $west && 1.0 === $south;

        for (; null !== $records; $records = $blocks->next()) {
            $quoted = $blocks->quoted;
            foreach ($records as $text) {
                ++$line;
                if ('' === $text || '#' === $text[0]) {
                    $buffer .= $text."\n";
                    continue;
                }
                $start = $line;
                try {
                    if ($quoted && str_contains($text, '"')) {
                        $line += substr_count($text, "\n");
                        if (1 === substr_count($text, '"') % 2) {
                            throw new \DomainException('a quotation mark is not closed');
                        }
                        $cells = self::cells($text, $delimiter);
                    } else {
                        $cells = explode($delimiter, $text);
                    }
                    if (\count($cells) !== $count) {
                        throw new \DomainException(\sprintf('has %d columns where the header has %d', \count($cells), $count));
                    }
                    $a = $cells[$one];
                    $b = $cells[$two];
                    if (!is_numeric($a) || !is_numeric($b)) {
                        $a = trim($a, " \t\"");
                        $b = trim($b, " \t\"");
                        if (!is_numeric($a) || !is_numeric($b)) {
                            throw new \DomainException(\sprintf(
                                '"%s" in column %s is not a number', is_numeric($a) ? $b : $a,
                                $names[is_numeric($a) ? $two : $one],
                            ));
                        }
                    }
                    $h = 0.0;
                    if ($readHeight) {
                        $c = $cells[$three];
                        if (!is_numeric($c)) {
                            $c = trim($c, " \t\"");
                            if (!is_numeric($c)) {
                                if ($heights || !$geographicIn && !$projectedIn) {
                                    throw new \DomainException(\sprintf('"%s" in column %s is not a number', $c, $names[$three]));
                                }
                                $c = '0';
                            }
                        }
                        $h = (float) $c * $heightIn;
                    }
                    if ($geographicIn) {
                        $lat = (float) $a;
                        $lon = (float) $b;
                        if ($lat > 90.0 || $lat < -90.0 || $lon > 360.0 || $lon < -360.0) {
                            throw new \DomainException(self::range($lat, $lon));
                        }
                        $lat *= self::DEGREE;
                        $lon = $lon * self::DEGREE + $greenwich;
                    } elseif (null !== $source) {
                        [$lat, $lon] = $source->inverse($signOne * (float) $a * $unitIn, $signTwo * (float) $b * $unitIn);
                        $lon += $meridianIn;
                    } else {
                        [$lat, $lon, $h] = $ellipsoidIn->toGeodetic((float) $a, (float) $b, $h);
                    }
                    if (!$identity) {
                        [$lat, $lon, $h] = $route->apply($lat, $lon, $h);
                    }
                    if ($lat < $areaSouth || $lat > $areaNorth || $lon < $areaWest || $lon > $areaEast) {
                        ++$this->outsideArea;
                    }
                    if (null !== $target) {
                        [$x, $y] = $target->forward($lat, $lon - $meridianOut);
                        if (!$plain) {
                            $x = $west * $x / $unitOut;
                            $y = $south * $y / $unitOut;
                        }
                        // What is no number is within no limits.
                        if ($x > -self::FARTHEST && $x < self::FARTHEST && $y > -self::FARTHEST && $y < self::FARTHEST) {
                            $cells[$outOne] = Decimal::fixed($x, 6);
                            $cells[$outTwo] = Decimal::fixed($y, 6);
                        } else {
                            throw new \DomainException('the projection has no value there');
                        }
                    } elseif ($geographicOut) {
                        $lon -= $meridianOut;
                        if ($lon > \M_PI) {
                            $lon -= 2.0 * \M_PI;
                        } elseif ($lon < -\M_PI) {
                            $lon += 2.0 * \M_PI;
                        }
                        $cells[$outOne] = Decimal::fixed($lat / self::DEGREE, 11);
                        $cells[$outTwo] = Decimal::fixed($lon / self::DEGREE, 11);
                    } else {
                        [$x, $y, $z] = $ellipsoidOut->toCartesian($lat, $lon, $h);
                        $cells[$outOne] = Decimal::fixed($x, 6);
                        $cells[$outTwo] = Decimal::fixed($y, 6);
                        $cells[$outThree] = Decimal::fixed($z, 6);
                    }
                    if ($heights && null !== $outThree && ($projectedOut || $geographicOut)) {
                        $cells[$outThree] = Decimal::fixed($h / $heightOut, 6);
                    }
                } catch (MissingGrid $e) {
                    $this->flush($out, $buffer);
                    throw new UnusableInput('line '.$start, $e->getMessage());
                } catch (\DomainException $e) {
                    if (!$this->skipBad) {
                        $this->flush($out, $buffer);
                        throw new UnusableInput('line '.$start, $e->getMessage());
                    }
                    $this->bad[] = [$start, $e->getMessage()];
                    if (null !== $onBad) {
                        $onBad($start, $e->getMessage());
                    }
                    continue;
                }
                ++$this->rows;
                $buffer .= implode($delimiter, $cells)."\n";
                if (\strlen($buffer) > self::BUFFER) {
                    fwrite($out, $buffer);
                    $buffer = '';
                }
            }
        }
        $this->flush($out, $buffer);
    }

    /**
     * Where the first row lies, for the choice of a transformation.
     *
     * @param resource $in
     *
     * @return ?array{float, float} latitude and longitude, radians from Greenwich; null of an empty file or one without rows
     *
     * @throws UnusableInput the first row is no position
     */
    public function firstPosition($in): ?array
    {
        $blocks = new RecordBlocks($in);
        $records = $blocks->next();
        if (null === $records) {
            return null;
        }
        ['delimiter' => $delimiter, 'names' => $names, 'plan' => $plan, 'records' => $records, 'line' => $line] = $this->heading(
            $blocks, $records,
        );
        for (; null !== $records; $records = $blocks->next()) {
            foreach ($records as $text) {
                ++$line;
                if ('' === $text || '#' === $text[0]) {
                    continue;
                }
                $cells = self::cells($text, $delimiter);
                $values = [];
                foreach ($plan['in'] as $k => $column) {
                    $cell = trim($cells[$column ?? -1] ?? '', " \t\"");
                    if (!is_numeric($cell) && $k < 2) {
                        throw new UnusableInput('line '.$line, \sprintf('"%s" in column %s is not a number', $cell, $names[(int) $column]));
                    }
                    $values[] = (float) $cell;
                }
                try {
                    return $this->position($values, $plan['signs']);
                } catch (\DomainException $e) {
                    throw new UnusableInput('line '.$line, $e->getMessage());
                }
            }
        }

        return null;
    }

    /**
     * @param list<float>          $values of the coordinate columns
     * @param array{float, float}  $signs
     *
     * @return array{float, float}
     */
    private function position(array $values, array $signs): array
    {
        $from = $this->route->from->horizontal;
        if (HorizontalSystem::GEOGRAPHIC === $from->kind) {
            if (abs($values[0]) > 90.0 || abs($values[1]) > 360.0) {
                throw new \DomainException(self::range($values[0], $values[1]));
            }

            return [$values[0] * self::DEGREE, ($values[1] + $from->datum->primeMeridian) * self::DEGREE];
        }
        if (HorizontalSystem::PROJECTED === $from->kind) {
            return $from->toGeographic($signs[0] * $values[0] * $from->unit, $signs[1] * $values[1] * $from->unit);
        }
        [$lat, $lon] = $from->ellipsoid()->toGeodetic($values[0], $values[1], $values[2] ?? 0.0);

        return [$lat, $lon];
    }

    /**
     * Remarks and the header of a table.
     *
     * @param ?list<string> $records the first block
     *
     * @return array{
     *     remarks: string, header: list<string>, delimiter: non-empty-string, names: list<string>,
     *     plan: array{in: array{int, int, ?int}, places: array{int, int, ?int}, out: array<int, string>, signs: array{float, float}},
     *     records: ?list<string>, line: int,
     * }
     */
    private function heading(RecordBlocks $blocks, ?array $records): array
    {
        $line = 1;
        $remarks = '';
        $first = null === $records ? null : array_shift($records);
        while (null !== $first && str_starts_with($first, '#')) {
            $remarks .= $first."\n";
            $records = [] === $records ? $blocks->next() : $records;
            $first = null === $records ? null : array_shift($records);
            ++$line;
        }
        if (null === $first || '' === trim($first)) {
            throw new UnusableInput('line '.$line, 'the file has no header; the first line names the columns');
        }
        if (str_contains($first, "\0")) {
            throw new UnusableInput('line '.$line, 'this is a binary file, not CSV');
        }
        $first = str_starts_with($first, "\xEF\xBB\xBF") ? substr($first, 3) : $first;
        $delimiter = self::delimiter($first);
        $header = self::cells($first, $delimiter);
        $names = array_map(static fn (string $cell): string => strtolower(trim($cell, " \t\"")), $header);

        return [
            'remarks' => $remarks, 'header' => $header, 'delimiter' => $delimiter, 'names' => $names,
            'plan' => $this->columns($names, $line), 'records' => $records, 'line' => $line,
        ];
    }

    /** Rows written. */
    public function rows(): int
    {
        return $this->rows;
    }

    /** Whether there are heights that passed unchanged. */
    public function heightsPassed(): bool
    {
        return $this->heightsPassed;
    }

    /** Rows outside the target's area of use. */
    public function outsideArea(): int
    {
        return $this->outsideArea;
    }

    /** @return list<array{int, string}> lines left out and why */
    public function bad(): array
    {
        return $this->bad;
    }

    /** @param resource $out */
    private function flush($out, string $buffer): void
    {
        if ('' !== $buffer) {
            fwrite($out, $buffer);
        }
    }

    /**
     * @param list<string> $names
     *
     * @return array{in: array{int, int, ?int}, places: array{int, int, ?int}, out: array<int, string>, signs: array{float, float}}
     */
    private function columns(array $names, int $line): array
    {
        $find = static function (string ...$wanted) use ($names, $line): ?int {
            foreach ($wanted as $name) {
                $keys = array_keys($names, $name, true);
                if (\count($keys) > 1) {
                    throw new UnusableInput('line '.$line, \sprintf('the column %s is there twice', $name));
                }
                if ([] !== $keys) {
                    return $keys[0];
                }
            }

            return null;
        };
        $from = $this->route->from;
        $to = $this->route->to;
        $kind = $from->horizontal->kind;
        $signs = [1.0, 1.0];
        if (HorizontalSystem::GEOGRAPHIC === $kind) {
            [$one, $two, $three, $need] = [$find('lat'), $find('lon'), $find('h'), 'lat,lon'];
        } elseif (HorizontalSystem::PROJECTED === $kind) {
            [$one, $two, $three, $need] = [$find('e', 'w'), $find('n', 's'), $find('h'), 'e,n'];
            $signs = [null !== $one && 'w' === $names[$one] ? -1.0 : 1.0, null !== $two && 's' === $names[$two] ? -1.0 : 1.0];
        } else {
            [$one, $two, $three, $need] = [$find('x'), $find('y'), $find('z'), 'x,y,z'];
        }
        if (null === $one || null === $two || (null === $three && HorizontalSystem::GEOCENTRIC === $kind)) {
            throw new UnusableInput(
                'line '.$line,
                \sprintf('%s is %s and needs the columns %s; the header has %s', $from->name(), $kind, $need, implode(',', $names)),
            );
        }
        if (null === $three && HorizontalSystem::GEOCENTRIC === $to->horizontal->kind) {
            throw new UnusableInput('line '.$line, \sprintf('%s is geocentric and needs heights: the header has no column h', $to->name()));
        }
        $this->heightsPassed = null !== $three && !$this->route->heights;
        $west = $this->native && $to->horizontal->pointsWest();
        $south = $this->native && $to->horizontal->pointsSouth();
        $new = match ($to->horizontal->kind) {
            HorizontalSystem::GEOGRAPHIC => ['lat', 'lon'],
            HorizontalSystem::PROJECTED => [$west ? 'w' : 'e', $south ? 's' : 'n'],
            default => ['x', 'y'],
        };
        $first = min($one, $two);
        $second = max($one, $two);
        // Same kind on both sides: each column keeps its own place; else the new pair stands where the old pair stood.
        [$placeOne, $placeTwo] = $kind === $to->horizontal->kind ? [$one, $two] : [$first, $second];
        $out = [$placeOne => $new[0], $placeTwo => $new[1]];
        if (null !== $three) {
            $out[$three] = HorizontalSystem::GEOCENTRIC === $to->horizontal->kind ? 'z' : 'h';
        }
        foreach ($out as $at => $name) {
            foreach ($names as $other => $existing) {
                if ($existing === $name && !isset($out[$other])) {
                    throw new UnusableInput(
                        'line '.$line,
                        \sprintf('the result needs a column %s, but the file has another of that name', $name),
                    );
                }
            }
        }

        return ['in' => [$one, $two, $three], 'places' => [$placeOne, $placeTwo, $three], 'out' => $out, 'signs' => $signs];
    }

    private static function range(float $lat, float $lon): string
    {
        if (abs($lat) > 90.0) {
            return \sprintf(
                'latitude %s is not between -90 and 90 degrees%s',
                $lat,
                abs($lon) <= 90.0 && abs($lat) <= 360.0 ? '; are lat and lon swapped?' : '',
            );
        }

        return \sprintf('longitude %s is not between -360 and 360 degrees', $lon);
    }

    /** @return non-empty-string */
    private static function delimiter(string $header): string
    {
        foreach ([',', ';', "\t"] as $delimiter) {
            if (str_contains($header, $delimiter)) {
                return $delimiter;
            }
        }

        return ',';
    }

    /**
     * @param non-empty-string $delimiter
     *
     * @return list<string> the cells as they are written, quotation marks kept
     */
    private static function cells(string $text, string $delimiter): array
    {
        if (!str_contains($text, '"')) {
            return explode($delimiter, $text);
        }
        $cells = [];
        $cell = '';
        $quoted = false;
        foreach (explode($delimiter, $text) as $piece) {
            $cell .= $quoted ? $delimiter.$piece : $piece;
            $quoted = 1 === substr_count($cell, '"') % 2;
            if (!$quoted) {
                $cells[] = $cell;
                $cell = '';
            }
        }

        return $quoted ? [...$cells, $cell] : $cells;
    }
}
