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
    /** Bytes read at once: so few that their lines stay in the cache of the processor, which makes it three times as fast. */
    private const CHUNK = 16_384;
    private const LONGEST_LINE = 1_048_576;

    private string $section = '';
    private string $type = '';
    private int $line = 0;
    private int $begin = 0;

    /** @var list<int> of the record that is open */
    private array $codes = [];

    /** @var list<string> */
    private array $values = [];

    /** @var array<string, int> group codes as they are written */
    private array $known = [];

    private function __construct()
    {
    }

    /**
     * @param resource $file
     *
     * @return \Generator<DxfRecord>
     *
     * @throws UnusableInput naming the line
     */
    public static function of($file): \Generator
    {
        $self = new self();
        foreach (self::texts($file) as $text) {
            yield from $self->records(explode("\n", $text));
        }
        if ('EOF' !== $self->type) {
            throw new UnusableInput('line '.$self->line, 'the DXF file is cut off');
        }
    }

    /**
     * Many at once, for what yields is not compiled.
     *
     * @param list<string> $lines codes and values by turns, and an empty one
     *
     * @return list<DxfRecord> those that end in them
     */
    private function records(array $lines): array
    {
        $records = [];
        $known = $this->known;
        [$codes, $values, $type, $section] = [$this->codes, $this->values, $this->type, $this->section];
        for ($i = 0, $n = \count($lines) - 1; $i < $n; $i += 2) {
            $code = $known[$lines[$i]] ?? ($known[$lines[$i]] = self::code($lines[$i], $this->line + $i + 1));
            if (0 !== $code) {
                if (2 === $code && [] === $codes && 'SECTION' === $type) {
                    $section = trim($lines[$i + 1]);
                }
                $codes[] = $code;
                $values[] = $lines[$i + 1];
                continue;
            }
            if ('' !== $type && ('SECTION' !== $type || 'HEADER' === $section) && 'ENDSEC' !== $type) {
                $records[] = new DxfRecord($section, $type, $codes, $values, $this->begin);
            }
            $type = strtoupper(trim($lines[$i + 1]));
            $this->begin = $this->line + $i + 2;
            $codes = $values = [];
        }
        $this->line += $n;
        $this->known = \count($known) > 10_000 ? [] : $known;
        [$this->codes, $this->values, $this->type, $this->section] = [$codes, $values, $type, $section];

        return $records;
    }

    private static function code(string $text, int $line): int
    {
        if (1 !== preg_match('/^[ \t]*-?\d+[ \t]*$/', $text)) {
            $words = '"%s" is not a group code of a DXF file';
            throw new UnusableInput('line '.$line, \sprintf($words, mb_scrub(substr(trim($text), 0, 20))));
        }

        return (int) $text;
    }

    /**
     * The file in pieces, with the same line ends, always an even number of lines.
     *
     * @param resource $file
     *
     * @return \Generator<string>
     */
    private static function texts($file): \Generator
    {
        $rest = '';
        $line = 0;
        $isFirst = true;
        while (!feof($file)) {
            $text = (string) fread($file, self::CHUNK);
            if ($isFirst && str_starts_with($text, "\xEF\xBB\xBF")) {
                $text = substr($text, 3);
            }
            $isFirst = false;
            $rest .= $text;
            $end = strrpos($rest, "\n");
            if (false === $end && \strlen($rest) > self::LONGEST_LINE) {
                throw new UnusableInput('line '.($line + 1), 'is longer than a line of a DXF file may be');
            }
            if (false !== $end && 1 === substr_count($rest, "\n") % 2) {
                $end = strrpos($rest, "\n", $end - \strlen($rest) - 1);
            }
            if (false === $end) {
                continue;
            }
            $text = str_replace("\r\n", "\n", substr($rest, 0, $end + 1));
            $rest = substr($rest, $end + 1);
            $line += substr_count($text, "\n");
            yield $text;
        }
        $rest = rtrim(str_replace("\r\n", "\n", $rest), " \t\n");
        if ('' === $rest) {
            return;
        }
        if (0 === substr_count($rest, "\n") % 2) {
            throw new UnusableInput('line '.($line + 1 + substr_count($rest, "\n")), 'the DXF file is cut off');
        }
        yield $rest."\n";
    }
}
