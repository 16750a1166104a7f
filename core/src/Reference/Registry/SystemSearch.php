<?php

declare(strict_types=1);

namespace Mensura\Reference\Registry;

use Mensura\Reference\Crs\Area;

/**
 * Finds systems by words or code, and by place.
 *
 * @phpstan-type Hit array{code: string, name: string, kind: string, deprecated: bool, area: ?Area, why: string}
 */
final readonly class SystemSearch
{
    private const SQL = <<<'SQL'
        SELECT c.auth_name || ':' || c.code code, c.name name, c.kind kind, c.deprecated deprecated, e.description area,
               e.south_lat s, e.west_lon w, e.north_lat n, e.east_lon e
        FROM (SELECT auth_name, code, name, 'projected' kind, 'projected_crs' tab, deprecated FROM projected_crs UNION ALL
              SELECT auth_name, code, name, type kind, 'geodetic_crs' tab, deprecated FROM geodetic_crs) c
        LEFT JOIN usage u ON u.object_table_name = c.tab AND u.object_auth_name = c.auth_name AND u.object_code = c.code
        LEFT JOIN extent e ON e.auth_name = u.extent_auth_name AND e.code = u.extent_code
        WHERE c.auth_name = 'EPSG'
        SQL;

    public function __construct(private Registry $registry)
    {
    }

    /**
     * Every word must be in the name (or begin the code); names and areas near the project's place come first.
     *
     * @return list<Hit>
     */
    public function byWords(string $text, ?Area $near, int $limit = 40, bool $projectedOnly = false): array
    {
        $words = preg_split('/[\s,;\/]+/', strtolower(trim($text)), -1, \PREG_SPLIT_NO_EMPTY) ?: [];
        $sql = self::SQL.($projectedOnly ? " AND c.kind = 'projected'" : '');
        $parameters = [];
        foreach ($words as $word) {
            if (1 === preg_match('/^(?:epsg:?)?(\d{3,6})$/', $word, $match)) {
                $sql .= ' AND (c.code LIKE ? OR lower(c.name) LIKE ?)';
                array_push($parameters, $match[1].'%', '%'.$match[1].'%');
            } else {
                $sql .= " AND (lower(c.name) LIKE ? ESCAPE '\\' OR lower(coalesce(e.description, '')) LIKE ? ESCAPE '\\')";
                $like = '%'.addcslashes($word, '%_\\').'%';
                array_push($parameters, $like, $like);
            }
        }
        $hits = [];
        foreach ($this->registry->rows($sql.' LIMIT 3000', $parameters) as $row) {
            $hit = self::hit($row);
            $name = strtolower($hit['name']);
            $score = $hit['deprecated'] ? 100.0 : 0.0;
            foreach ($words as $word) {
                $score += match (true) {
                    substr($hit['code'], 5) === (string) preg_replace('/^epsg:?/', '', $word) => -50.0,
                    1 === preg_match('/(?<![a-z0-9])'.preg_quote($word, '/').'(?![0-9])/', $name) => 0.0,
                    str_contains($name, $word) => 4.0,
                    default => 8.0,
                };
            }
            if (null !== $near && null !== $hit['area']) {
                $score += $hit['area']->covers($near) ? -20.0 : (null !== $hit['area']->intersection($near) ? -10.0 : 10.0);
                $hit['why'] = $hit['area']->covers($near)
                    ? 'covers all points'
                    : (null !== $hit['area']->intersection($near) ? 'covers some of the points' : 'elsewhere');
            }
            $score += 'projected' === $hit['kind'] ? 0.0 : 3.0;
            // Between equals, the datums GNSS positions arrive in.
            $score += str_starts_with($hit['name'], 'ETRS89 /') ? -0.6 : (str_starts_with($hit['name'], 'WGS 84 /') ? -0.5 : 0.0);
            // A variant of a system, such as one with its axes exchanged, says so in brackets.
            $score += str_contains($hit['name'], '(') ? 0.8 : 0.0;
            $hits[$hit['code']] = [$score + \strlen($hit['name']) / 200.0, $hit];
        }
        usort($hits, static fn (array $a, array $b): int => $a[0] <=> $b[0] ?: strcmp($a[1]['code'], $b[1]['code']));

        return array_column(\array_slice($hits, 0, $limit), 1);
    }

    /**
     * Projected systems whose area of use covers the place, smallest areas first.
     *
     * @return list<Hit>
     */
    public function covering(Area $place, int $limit = 80): array
    {
        $hits = [];
        foreach ($this->registry->rows(
            self::SQL." AND c.kind = 'projected' AND c.deprecated = 0 AND e.south_lat <= ? AND e.north_lat >= ?",
            [$place->south, $place->north],
        ) as $row) {
            $hit = self::hit($row);
            if (null !== $hit['area'] && $hit['area']->covers($place)) {
                $hits[$hit['code']] = ['why' => 'covers all points'] + $hit;
            }
        }
        usort($hits, static fn (
            array $a, array $b,
        ): int => ($a['area']?->size() ?? 1e9) <=> ($b['area']?->size() ?? 1e9) ?: strcmp($a['code'], $b['code']));

        return \array_slice($hits, 0, $limit);
    }

    /**
     * @param array<string, int|float|string|null> $row
     *
     * @return Hit
     */
    private static function hit(array $row): array
    {
        return [
            'code' => (string) $row['code'], 'name' => (string) $row['name'], 'kind' => (string) $row['kind'],
            'deprecated' => (bool) $row['deprecated'],
            'area' => null === $row['s']
                ? null
                : new Area((float) $row['s'], (float) $row['w'], (float) $row['n'], (float) $row['e'], (string) $row['area']), 'why' => '',
        ];
    }
}
