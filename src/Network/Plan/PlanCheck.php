<?php

declare(strict_types=1);

namespace App\Network\Plan;

use App\Network\Request\PlanRequest;
use App\Project\Project;
use Mensura\Fault\UnusableInput;

/**
 * A plan as it was sent, with every mark and sight looked at.
 *
 * @phpstan-import-type Mark from NetworkPlan
 * @phpstan-import-type Sight from NetworkPlan
 */
final class PlanCheck
{
    private const FARTHEST = 1e8;

    /** @throws UnusableInput naming the place in what was sent */
    public static function plan(Project $project, PlanRequest $request): NetworkPlan
    {
        return new NetworkPlan($project, self::marks($request->marks), self::sights($request->sights), [
            'withMeasured' => $request->withMeasured, 'vectorPlan' => $request->vectorPlan, 'vectorHeight' => $request->vectorHeight,
            'vectorPpm' => $request->vectorPpm, 'perKm' => $request->perKm, 'wanted' => $request->wanted,
        ]);
    }

    /**
     * @param array<mixed> $sent
     *
     * @return list<Mark>
     */
    private static function marks(array $sent): array
    {
        $marks = $seen = [];
        foreach (array_values($sent) as $i => $mark) {
            $name = \is_array($mark) ? self::name($mark['name'] ?? null) : '';
            if ('' === $name) {
                throw new UnusableInput("/marks/$i/name", 'is a name of up to 60 characters');
            }
            if (isset($seen["m$name"])) {
                throw new UnusableInput("/marks/$i/name", \sprintf('%s is planned twice', $name));
            }
            $seen["m$name"] = true;
            $metres = static function (string $key) use ($mark, $i, $name): float {
                $value = $mark[$key] ?? null;
                if (!\is_int($value) && !\is_float($value) || !(abs((float) $value) < self::FARTHEST)) {
                    throw new UnusableInput("/marks/$i/$key", \sprintf('of %s is a number of metres', $name));
                }

                return (float) $value;
            };
            $marks[] = [
                'name' => $name, 'e' => $metres('e'), 'n' => $metres('n'), 'h' => $metres('h'), 'held' => true === ($mark['held'] ?? false),
            ];
        }

        return $marks;
    }

    /**
     * @param array<mixed> $sent
     *
     * @return list<Sight>
     */
    private static function sights(array $sent): array
    {
        $sights = [];
        foreach (array_values($sent) as $i => $sight) {
            $from = \is_array($sight) ? self::name($sight['from'] ?? null) : '';
            $to = \is_array($sight) ? self::name($sight['to'] ?? null) : '';
            if ('' === $from || '' === $to || $from === $to) {
                throw new UnusableInput("/sights/$i", 'goes from one named mark to another');
            }
            $kind = $sight['kind'] ?? null;
            if (!\in_array($kind, NetworkPlan::KINDS, true)) {
                throw new UnusableInput("/sights/$i/kind", 'is '.implode(', ', NetworkPlan::KINDS));
            }
            $rounds = $sight['rounds'] ?? 1;
            if (!\is_int($rounds) || $rounds < 1 || $rounds > 50) {
                throw new UnusableInput("/sights/$i/rounds", 'are 1 to 50');
            }
            $sights[] = ['from' => $from, 'to' => $to, 'kind' => $kind, 'rounds' => $rounds];
        }

        return $sights;
    }

    private static function name(mixed $name): string
    {
        return \is_string($name) && mb_strlen(trim($name)) <= 60 ? trim($name) : '';
    }
}
