<?php

declare(strict_types=1);

namespace App\Export;

use App\Result\Result;

/** A file that was written, with its receipt. */
final readonly class WrittenFile
{
    /**
     * @param string       $output  hash of its bytes in the file store
     * @param list<string> $leftOut what it does not hold, in words
     * @param list<Check>  $checks
     */
    public function __construct(
        public string $name,
        public int $size,
        public string $output,
        public array $leftOut,
        public array $checks,
    ) {
    }

    public function holds(): bool
    {
        return [] === array_filter($this->checks, static fn (Check $c): bool => !$c->holds);
    }

    /** @return array{file: string, size: int, checks: list<array<string, string|bool>>, holds: bool, leftOut: list<string>} */
    public function summary(): array
    {
        $checks = array_map(static fn (Check $c): array => (array) $c, $this->checks);

        return ['file' => $this->name, 'size' => $this->size, 'checks' => $checks, 'holds' => $this->holds(), 'leftOut' => $this->leftOut];
    }

    /**
     * @return array{
     *     file: string, size: int, checks: list<array{what: string, expected: string, found: string, holds: bool}>,
     *     holds: bool, leftOut: list<string>,
     * }
     */
    public static function kept(Result $result): array
    {
        $s = $result->summary;

        return ['file' => $s['file'], 'size' => $s['size'], 'checks' => $s['checks'], 'holds' => $s['holds'], 'leftOut' => $s['leftOut']];
    }
}
