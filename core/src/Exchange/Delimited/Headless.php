<?php

declare(strict_types=1);

namespace Mensura\Exchange\Delimited;

/** The columns of a list of points without headings, told by their values: name, plan, height, code. */
final class Headless
{
    /** Heights are smaller than plan coordinates of a grid by more than this. */
    private const PLAN_OVER_HEIGHT = 5.0;

    /**
     * @param list<ColumnValues> $values by column
     *
     * @return array{array<string, int>, array<string, string>} columns by field; why, by field
     */
    public static function points(array $values): array
    {
        $columns = $why = [];
        foreach ($values as $i => $v) {
            if ($v->isDistinct() && (!$v->isNumeric() || $v->isWhole())) {
                $columns['name'] = $i;
                $why['name'] = 'every cell is another one';
                break;
            }
        }
        $figures = array_values(array_filter(
            array_keys($values),
            static fn (int $i): bool => $i !== ($columns['name'] ?? null) && $values[$i]->isNumeric(),
        ));
        if (\count($figures) >= 2) {
            [$first, $second, $isBySize] = self::plan($figures, $values);
            $isFirst = PlanOrder::isFirstEasting($values[$first], $values[$second]);
            [$columns['e'], $columns['n']] = false === $isFirst ? [$second, $first] : [$first, $second];
            $why['e'] = $why['n'] = null !== $isFirst
                ? 'eastings of a grid have six digits, northings seven'
                : ($isBySize ? 'the largest figures' : 'the first figures behind the name');
            $rest = array_values(array_diff($figures, [$first, $second]));
            if ([] !== $rest) {
                $columns['h'] = $rest[0];
                $why['h'] = 'the next figures behind the plan';
            }
        }
        foreach (array_reverse(array_keys($values)) as $i) {
            if (!\in_array($i, $columns, true) && $values[$i]->isText()) {
                $columns['code'] = $i;
                $why['code'] = 'words that repeat behind the figures';
                break;
            }
        }

        return [$columns, $why];
    }

    /**
     * @param non-empty-list<int> $figures
     * @param list<ColumnValues>  $values
     *
     * @return array{int, int, bool} the two of the plan in their order; whether their size tells them
     */
    private static function plan(array $figures, array $values): array
    {
        $bySize = $figures;
        usort($bySize, static fn (int $a, int $b): int => abs((float) $values[$b]->median()) <=> abs((float) $values[$a]->median()));
        $second = abs((float) $values[$bySize[1]]->median());
        $third = isset($bySize[2]) ? abs((float) $values[$bySize[2]]->median()) : 0.0;
        if ($second > self::PLAN_OVER_HEIGHT * $third) {
            return [min($bySize[0], $bySize[1]), max($bySize[0], $bySize[1]), true];
        }

        return [$figures[0], $figures[1], false];
    }
}
