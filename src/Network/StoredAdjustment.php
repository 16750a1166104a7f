<?php

declare(strict_types=1);

namespace App\Network;

use App\Result\Result;
use App\Store\FileStore;
use Mensura\Network\RelativeEllipses;

/**
 * An adjustment as it was kept: the mensura-adjustment/1 document and the database ids of its observations.
 *
 * @phpstan-import-type Relative from RelativeEllipses
 *
 * @phpstan-type Station array{
 *     id: string, e: ?float, n: ?float, h: ?float, sd: array{e: float, n: float, h: float},
 *     ellipse: array{semiMajor: float, semiMinor: float, bearing: float},
 * }
 * @phpstan-type Row array{
 *     index: int, component?: string, residual?: ?float, sd?: ?float, standardized?: ?float,
 *     redundancyNumber?: ?float, minimalDetectable?: ?float, externalEffect?: ?float, flagged?: bool, use?: string,
 * }
 * @phpstan-type Group array{type: string, count: int, sumSquares: float, redundancy: float, varianceFactor: ?float}
 */
final readonly class StoredAdjustment
{
    /** @var array<string, Station> by name; those with a plan position */
    public array $stations;

    /** @var list<Group> */
    public array $groups;

    /** @var list<Relative> */
    public array $relative;

    /** @var array<int, array<string, Row>> by the observation's id and component */
    private array $rows;

    /** @param array<mixed> $document */
    private function __construct(array $document)
    {
        $stations = $rows = [];
        foreach ($document['stations'] as $s) {
            if (null !== $s['e']) {
                $stations[(string) $s['id']] = $s;
            }
        }
        foreach ($document['observations'] as $row) {
            $rows[$document['ids'][$row['index']]][$row['component'] ?? ''] = $row;
        }
        $this->stations = $stations;
        $this->groups = $document['groups'];
        $this->relative = $document['relative'] ?? [];
        $this->rows = $rows;
    }

    public static function of(FileStore $store, Result $result): self
    {
        return new self($store->getJson($result->output));
    }

    /** @return ?Row what the adjustment says of an observation, or of one component of a vector */
    public function row(int $observation, string $component): ?array
    {
        return $this->rows[$observation][$component] ?? null;
    }

    /** Distance between two stations in plan, metres; null where one has no place. */
    public function distance(string $from, string $to): ?float
    {
        $a = $this->stations[$from] ?? null;
        $b = $this->stations[$to] ?? null;

        return null === $a || null === $b ? null : hypot($a['e'] - $b['e'], $a['n'] - $b['n']);
    }
}
