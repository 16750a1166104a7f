<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

use Mensura\Reference\Crs\Datum;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Registry\Registry;

/**
 * The ways from one datum to another that the EPSG registry knows: direct ones, and through one datum in between when
 * there is none. Grids are looked up under all their names; one that is not there is named, never passed over.
 */
final class OperationRegistry
{
    private const MOST_PAIRS = 4000;

    /** @var array<string, Candidate> */
    private array $made = [];

    public function __construct(
        private readonly Registry $registry,
        private readonly GridFiles $files,
        private readonly ?float $epoch = null,
    ) {
    }

    /**
     * Direct ways, best first; through one datum in between when there is none; empty when the registry knows no way.
     *
     * @param bool $spatial three-dimensional: heights are transformed too
     *
     * @return list<Candidate>
     */
    public function between(HorizontalSystem $from, HorizontalSystem $to, bool $spatial): array
    {
        if ($from->datum->sameAs($to->datum)) {
            return [Candidate::identity()];
        }
        if (null === $from->datum->code || null === $to->datum->code) {
            return [];
        }
        $a = $this->systemsOf($from->datum->code);
        $b = $this->systemsOf($to->datum->code);
        $exact = $spatial ? [] : $this->direct([$from->geodetic ?? $a[0]], [$to->geodetic ?? $b[0]], $spatial);
        $found = [] !== $exact ? $exact : $this->direct($a, $b, $spatial);
        if ([] === $found) {
            $ensemble = $this->ensemble($from->datum, $to->datum);
            if (null !== $ensemble) {
                return [$ensemble];
            }
            $found = $this->throughMembers($from->datum, $to->datum, $a, $b, $spatial);
            $found = [] !== $found ? $found : $this->throughOne($a, $b, $spatial);
        }
        if ([] === $found && (0.0 !== $from->datum->primeMeridian || 0.0 !== $to->datum->primeMeridian)) {
            $found = $this->throughGreenwich($a, $b, $spatial);
        }

        return Candidate::sorted($found);
    }

    /**
     * Ways through one datum in between, for places no direct way reaches, best first.
     *
     * @return list<Candidate>
     */
    public function indirect(HorizontalSystem $from, HorizontalSystem $to, bool $spatial): array
    {
        if (null === $from->datum->code || null === $to->datum->code) {
            return [];
        }

        return Candidate::sorted($this->throughOne($this->systemsOf($from->datum->code), $this->systemsOf($to->datum->code), $spatial));
    }

    /** @return list<string> the geodetic systems on a datum */
    private function systemsOf(string $datum): array
    {
        $codes = [];
        foreach ($this->registry->rows(
            'SELECT auth_name a, code c FROM geodetic_crs WHERE datum_auth_name = ? AND datum_code = ? AND auth_name = ? '
                .'ORDER BY type = \'geographic 2D\' DESC, deprecated, code',
            [...Registry::split($datum), 'EPSG'],
        ) as $row) {
            $codes[] = $row['a'].':'.$row['c'];
        }

        return $codes;
    }

    private function ensemble(Datum $from, Datum $to): ?Candidate
    {
        foreach ([[$from, $to], [$to, $from]] as [$whole, $part]) {
            if (\in_array($part->code, $whole->members, true)) {
                return new Candidate(
                    \sprintf('%s is a member of %s', $part->name, $whole->name), $whole->accuracy, null,
                    [new StepDescription('Null transformation', (string) $whole->code)], [],
                    static fn (): array => [],
                );
            }
        }

        return null;
    }

    /**
     * An ensemble is reached through its members, at the accuracy they agree to.
     *
     * @param list<string> $from
     * @param list<string> $to
     *
     * @return list<Candidate>
     */
    private function throughMembers(Datum $source, Datum $target, array $from, array $to, bool $spatial): array
    {
        $found = [];
        foreach ([[$source, true], [$target, false]] as [$whole, $leaving]) {
            foreach ($whole->members as $member) {
                $part = $this->systemsOf($member);
                $null = new Candidate(
                    \sprintf('member of %s', $whole->name), $whole->accuracy, null,
                    [new StepDescription('Null transformation', (string) $whole->code)], [],
                    static fn (): array => [],
                );
                foreach ($leaving ? $this->direct($part, $to, $spatial) : $this->direct($from, $part, $spatial) as $candidate) {
                    $both = $leaving ? $null->then($candidate) : $candidate->then($null);
                    if (null !== $both) {
                        $found[] = $both;
                    }
                }
            }
        }

        return $found;
    }

    /**
     * @param list<string> $from
     * @param list<string> $to
     *
     * @return list<Candidate>
     */
    private function direct(array $from, array $to, bool $spatial): array
    {
        $rows = [];
        foreach ([[$from, $to, false], [$to, $from, true]] as [$source, $target, $reverse]) {
            if ([] === $source || [] === $target) {
                continue;
            }
            $sql = "SELECT * FROM coordinate_operation_view WHERE deprecated = 0 AND auth_name = 'EPSG' AND "
                ."source_crs_auth_name = 'EPSG' AND source_crs_code IN ("
                .self::marks($source).") AND target_crs_auth_name = 'EPSG' AND target_crs_code IN ("
                .self::marks($target).')';
            foreach ($this->registry->rows($sql, [...self::numbers($source), ...self::numbers($target)]) as $row) {
                $rows[$row['auth_name'].':'.$row['code']] = [$row, $reverse];
            }
        }
        $candidates = [];
        foreach ($rows as $code => [$row, $reverse]) {
            $by = $this->registry->row(
                'SELECT replacement_auth_name a, replacement_code c FROM supersession WHERE superseded_table_name = ? '
                    .'AND superseded_auth_name = ? AND superseded_code = ? AND same_source_target_crs = 1',
                [$row['table_name'], $row['auth_name'], $row['code']],
            );
            if (null !== $by && isset($rows[$by['a'].':'.$by['c']])) {
                continue;
            }
            $candidate = $this->candidate($row, $reverse, $spatial);
            if ('9601' !== (string) $row['method_code'] || $candidate->isUsable()) {
                $candidates[] = $candidate;
            }
        }

        return $candidates;
    }

    /**
     * @param list<string> $from
     * @param list<string> $to
     *
     * @return list<Candidate>
     */
    private function throughOne(array $from, array $to, bool $spatial): array
    {
        $first = $this->neighbours($from);
        $second = $this->neighbours($to);
        $candidates = [];
        $pairs = 0;
        foreach (array_intersect_key($first, $second) as $datum => $operations) {
            $ahead = [];
            foreach ($operations as [$row, $leaving]) {
                $ahead[] = $this->candidate($row, !$leaving, $spatial);
            }
            $on = [];
            foreach ($second[$datum] as [$row, $leaving]) {
                $on[] = $this->candidate($row, $leaving, $spatial);
            }
            foreach ($ahead as $one) {
                foreach ($on as $two) {
                    if (++$pairs > self::MOST_PAIRS) {
                        break 3;
                    }
                    $both = $one->then($two);
                    if (null !== $both) {
                        $candidates[] = $both;
                    }
                }
            }
        }

        return $candidates;
    }

    /**
     * A datum counted from another meridian is left for its Greenwich twin first.
     *
     * @param list<string> $from
     * @param list<string> $to
     *
     * @return list<Candidate>
     */
    private function throughGreenwich(array $from, array $to, bool $spatial): array
    {
        $candidates = [];
        foreach ([[$from, $to, true], [$to, $from, false]] as [$side, $other, $ahead]) {
            foreach ($this->neighbours($side) as $datum => $operations) {
                foreach ($operations as [$row, $leaving]) {
                    if ('9601' !== (string) $row['method_code']) {
                        continue;
                    }
                    $twin = $this->systemsOf($datum);
                    $turn = $this->candidate($row, $ahead ? !$leaving : $leaving, $spatial);
                    $rest = $ahead ? $this->throughOne($twin, $other, $spatial) : $this->throughOne($other, $twin, $spatial);
                    foreach ($rest as $candidate) {
                        $both = $ahead ? $turn->then($candidate) : $candidate->then($turn);
                        if (null !== $both) {
                            $candidates[] = $both;
                        }
                    }
                }
            }
        }

        return $candidates;
    }

    /**
     * Operations that touch these systems, by the datum at their other end.
     *
     * @param list<string> $systems
     *
     * @return array<string, list<array{array<string, int|float|string|null>, bool}>> row, whether it leaves these systems
     */
    private function neighbours(array $systems): array
    {
        $found = [];
        if ([] === $systems) {
            return $found;
        }
        foreach ([['source', 'target', true], ['target', 'source', false]] as [$near, $far, $leaving]) {
            $sql = "SELECT o.*, g.datum_auth_name || ':' || g.datum_code datum FROM coordinate_operation_view o "
                ."JOIN geodetic_crs g ON g.auth_name = o.{$far}_crs_auth_name AND g.code = o.{$far}_crs_code "
                ."WHERE o.deprecated = 0 AND o.auth_name = 'EPSG' AND g.deprecated = 0 "
                ."AND o.{$near}_crs_auth_name = 'EPSG' AND o.{$near}_crs_code IN (".self::marks($systems).')';
            foreach ($this->registry->rows($sql, self::numbers($systems)) as $row) {
                $found[(string) $row['datum']][] = [$row, $leaving];
            }
        }

        return $found;
    }

    /** @param array<string, int|float|string|null> $row of coordinate_operation_view */
    private function candidate(array $row, bool $reverse, bool $spatial): Candidate
    {
        return $this->made[$row['auth_name'].':'.$row['code'].($reverse ? '-' : '+').($spatial ? '3' : '2')] ??= $this->make(
            $row, $reverse, $spatial,
        );
    }

    /** @param array<string, int|float|string|null> $row */
    private function make(array $row, bool $reverse, bool $spatial): Candidate
    {
        $code = $row['auth_name'].':'.$row['code'];
        $name = ($reverse ? 'Inverse of ' : '').$row['name'];
        $area = $this->registry->area((string) $row['table_name'], $code);
        $accuracy = null === $row['accuracy'] || '' === $row['accuracy'] ? null : (float) $row['accuracy'];
        if ('concatenated_operation' === $row['table_name']) {
            return $this->concatenated($row, $name, $accuracy, $area, $reverse, $spatial);
        }
        $from = $this->registry->horizontalSystem($row['source_crs_auth_name'].':'.$row['source_crs_code'])->datum;
        $to = $this->registry->horizontalSystem($row['target_crs_auth_name'].':'.$row['target_crs_code'])->datum;
        $definition = new OperationDefinition($this->registry, $this->files, $this->epoch);
        [$description, $missing, $unsupported, $epoch, $steps, $grids] = $definition->read($row, $from, $to, $reverse, $spatial);

        return new Candidate($name, $accuracy, $area, [$description], $missing, $steps, $unsupported, false, $epoch, $grids);
    }

    /** @param array<string, int|float|string|null> $row */
    private function concatenated(
        array $row,
        string $name,
        ?float $accuracy,
        ?\Mensura\Reference\Crs\Area $area,
        bool $reverse,
        bool $spatial,
    ): Candidate {
        $at = $this->registry->horizontalSystem($row['source_crs_auth_name'].':'.$row['source_crs_code'])->datum;
        $chain = [];
        foreach ($this->registry->rows(
            'SELECT v.* FROM concatenated_operation_step s JOIN coordinate_operation_view v ON v.auth_name = '
                .'s.step_auth_name AND v.code = s.step_code WHERE s.operation_auth_name = ? AND s.operation_code = ? '
                    .'ORDER BY s.step_number',
            [$row['auth_name'], $row['code']],
        ) as $step) {
            $source = $this->registry->horizontalSystem($step['source_crs_auth_name'].':'.$step['source_crs_code'])->datum;
            $target = $this->registry->horizontalSystem($step['target_crs_auth_name'].':'.$step['target_crs_code'])->datum;
            $back = !$source->sameAs($at) && $target->sameAs($at);
            $chain[] = [$step, $back];
            $at = $back ? $source : $target;
        }
        if ($reverse) {
            $chain = array_map(static fn (array $link): array => [$link[0], !$link[1]], array_reverse($chain));
        }
        $whole = Candidate::identity();
        foreach ($chain as [$step, $back]) {
            $one = $this->candidate($step, $back, $spatial);
            // The steps' own areas do not bind; the whole has its own.
            $whole = $whole->then($one->everywhere()) ?? $one;
        }

        return new Candidate(
            $name, $accuracy ?? $whole->accuracy, $area, $whole->descriptions, $whole->missing, $whole->steps(...),
            $whole->unsupported, false, $whole->epoch, $whole->grids,
        );
    }

    /** @param list<string> $codes */
    private static function marks(array $codes): string
    {
        return implode(', ', array_fill(0, \count($codes), '?'));
    }

    /**
     * @param list<string> $codes
     *
     * @return list<int>
     */
    private static function numbers(array $codes): array
    {
        return array_map(static fn (string $code): int => (int) Registry::split($code)[1], $codes);
    }
}
