<?php

declare(strict_types=1);

namespace App\Intake;

use App\Survey\ImportedObservation;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Exchange\Delimited\PointRecord;

/** Names and distances of a file against what the project knows. */
final class AgainstKnown
{
    /** A slope distance further from that of the coordinates than this is doubted, as a ratio. */
    private const DISTANCE_MISMATCH = 0.02;
    /** Metres; below, centring alone makes such a ratio. */
    private const SHORTEST = 1.0;

    /** @var list<Finding> */
    private array $findings = [];

    /** @var array<string, true> */
    private array $asked = [];

    /** @var array<string, list<string>> known names by what they look like */
    private array $plain = [];

    private function __construct(private readonly KnownPlaces $known)
    {
        foreach ($known->names() as $name) {
            $this->plain[PlainName::of($name)][] = $name;
        }
    }

    /**
     * @param list<PointRecord>             $records
     * @param iterable<ImportedObservation> $observations
     *
     * @return list<Finding>
     */
    public static function findings(array $records, iterable $observations, KnownPlaces $known): array
    {
        $against = new self($known);
        foreach ($records as $r) {
            $against->point($r);
        }
        foreach ($observations as $o) {
            $against->name($o->from, $o->line);
            $against->name($o->to, $o->line);
            if (null !== $o->back) {
                $against->name($o->back, $o->line);
            }
            if ('slope-distance' === $o->kind) {
                $against->distance($o);
            }
        }

        return $against->findings;
    }

    private function point(PointRecord $r): void
    {
        if (!$this->known->has($r->name)) {
            $this->name($r->name, $r->line);

            return;
        }
        [$e, $n, $h] = $this->known->at($r->name);
        if (null === $r->e || null === $e) {
            return;
        }
        $height = null !== $r->h && null !== $h ? \sprintf(' and %+.3f m in height', $r->h - $h) : '';
        $away = hypot($r->e - $e, $r->n - (float) $n);
        $this->warn($r->line, \sprintf('%s is known already, %.3f m away in plan%s', $r->name, $away, $height));
    }

    private function name(string $name, int $line): void
    {
        if (isset($this->asked[$name]) || $this->known->has($name)) {
            return;
        }
        $this->asked[$name] = true;
        $alike = $this->plain[PlainName::of($name)] ?? [];
        if ([] !== $alike) {
            $words = '%s is new, but looks like %s; rename one of them if they are one mark';
            $this->warn($line, \sprintf($words, $name, implode(', ', $alike)));
        }
    }

    private function distance(ImportedObservation $o): void
    {
        [$ae, $an, $ah] = $this->known->at($o->from);
        [$be, $bn, $bh] = $this->known->at($o->to);
        if (null === $ae || null === $be) {
            return;
        }
        $expected = hypot(hypot($ae - $be, (float) $an - (float) $bn), (float) $ah - (float) $bh);
        if ($expected <= self::SHORTEST || abs($o->v1 / $expected - 1.0) <= self::DISTANCE_MISMATCH) {
            return;
        }
        $ratio = $o->v1 / $expected;
        $feet = match (true) {
            abs($ratio - 1 / 0.3048) < 0.05 => '; these look like feet read as metres',
            abs($ratio - 0.3048) < 0.01 => '; these look like metres read as feet',
            default => '',
        };
        $words = 'distance %s to %s is %.3f m, their coordinates say %.1f m%s';
        $this->warn($o->line, \sprintf($words, $o->from, $o->to, $o->v1, $expected, $feet));
    }

    private function warn(int $line, string $words): void
    {
        $this->findings[] = new Finding(Finding::WARNING, $line, $words);
    }
}
