<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/**
 * A stream of text in blocks of whole records, so that a table of millions of rows is neither held at once nor asked for
 * line by line. A record is a line, or several where a quoted cell runs over their ends (RFC 4180, section 2.6).
 */
final class RecordBlocks
{
    private const BYTES = 262144;

    /** A record of more bytes is one whose quotation mark is not closed; it is handed over open. */
    private const LONGEST = 1_048_576;

    /** Whether any record of the last block has a quotation mark; where none has, every record is one line. */
    public bool $quoted = false;

    private string $rest = '';

    private bool $ended = false;

    /** @param resource $stream */
    public function __construct(private $stream)
    {
    }

    /** @return ?list<string> records without their line ends; null at the end */
    public function next(): ?array
    {
        while (!$this->ended) {
            $bytes = fread($this->stream, self::BYTES);
            $this->ended = false === $bytes || '' === $bytes && feof($this->stream);
            $text = $this->rest.$bytes;
            $end = $this->ended && !str_ends_with($text, "\n") ? \strlen($text) : strrpos($text, "\n");
            if (false === $end) {
                $this->rest = $text;
                continue;
            }
            $this->rest = substr($text, $end + 1);
            $text = substr($text, 0, $end);
            if ($this->ended && '' === $text) {
                return null;
            }
            if (str_contains($text, "\r")) {
                $text = str_replace("\r\n", "\n", rtrim($text, "\r"));
            }
            $lines = explode("\n", $text);
            $this->quoted = str_contains($text, '"');
            if (!$this->quoted) {
                return $lines;
            }
            $records = $this->joined($lines);
            if ([] !== $records) {
                return $records;
            }
        }

        return null;
    }

    /**
     * Lines put together where a quoted cell is open; what is still open at the end of the block waits for the next.
     *
     * @param non-empty-list<string> $lines
     *
     * @return list<string>
     */
    private function joined(array $lines): array
    {
        $records = [];
        $open = null;
        foreach ($lines as $line) {
            $record = null === $open ? $line : $open."\n".$line;
            $open = 1 === substr_count($record, '"') % 2 && \strlen($record) < self::LONGEST ? $record : null;
            if (null === $open) {
                $records[] = $record;
            }
        }
        if (null !== $open) {
            if ($this->ended) {
                $records[] = $open;
            } else {
                $this->rest = $open."\n".$this->rest;
            }
        }

        return $records;
    }
}
