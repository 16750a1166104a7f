<?php

declare(strict_types=1);

namespace Mensura\Exchange\Dxf;

use Mensura\Fault\UnusableInput;

/**
 * The records of an ASCII DXF, one after the other: each begins with a group 0 and belongs to a section. The variables of the
 * header come with the record that begins it.
 */
final class DxfRecords
{
    private const LONGEST_LINE = 65536;

    /**
     * @param resource $file
     *
     * @return \Generator<array{section: string, type: string, groups: list<array{int, string}>, line: int}>
     *
     * @throws UnusableInput naming the line
     */
    public static function of($file): \Generator
    {
        $section = $type = '';
        $groups = [];
        $line = $begin = 0;
        $isOver = false;
        while (false !== $code = fgets($file, self::LONGEST_LINE)) {
            $value = fgets($file, self::LONGEST_LINE);
            $code = trim($code, " \t\r\n\xEF\xBB\xBF");
            ++$line;
            if ('' === $code && false === $value) {
                break; // an empty line at the end
            }
            if (!is_numeric($code)) {
                throw new UnusableInput('line '.$line, \sprintf('"%s" is not a group code of a DXF file', mb_scrub(substr($code, 0, 20))));
            }
            if (false === $value) {
                throw new UnusableInput('line '.$line, 'the DXF file is cut off');
            }
            $value = rtrim($value, "\r\n");
            ++$line;
            if ('2' === $code && 'SECTION' === $type && [] === $groups) {
                $section = trim($value);
            }
            if ('0' !== $code) {
                $groups[] = [(int) $code, $value];
                continue;
            }
            if ('' !== $type && ('SECTION' !== $type || 'HEADER' === $section) && 'ENDSEC' !== $type) {
                yield ['section' => $section, 'type' => $type, 'groups' => $groups, 'line' => $begin];
            }
            $type = strtoupper(trim($value));
            $begin = $line;
            $groups = [];
            $isOver = 'EOF' === $type;
        }
        if (!$isOver) {
            throw new UnusableInput('line '.$line, 'the DXF file is cut off');
        }
    }

    /**
     * The first value of each group code.
     *
     * @param list<array{int, string}> $groups
     *
     * @return array<int, string>
     */
    public static function first(array $groups): array
    {
        $first = [];
        foreach ($groups as [$code, $value]) {
            $first[$code] ??= $value;
        }

        return $first;
    }
}
