<?php

declare(strict_types=1);

namespace Mensura\Reference\Localization;

/** A localization as an open file, "mensura-localization/1" (docs/formats.md): lengths in metres, angles in degrees. */
final class LocalizationJson
{
    public const FORMAT = 'mensura-localization/1';

    /** Metres: coordinates, shifts and heights further than this lie on no earth. */
    private const FARTHEST = 1e8;
    private const DEEPEST = 16;

    /**
     * @param list<Pair> $pairs
     *
     * @return array<string, mixed>
     */
    public static function toArray(
        string $name,
        string $system,
        string $heights,
        Localization $l,
        Choices $choices,
        array $pairs,
        ?Fit $fit,
    ): array {
        return [
            'format' => self::FORMAT,
            'name' => $name,
            'grid' => ['system' => $system, 'heights' => $heights],
            'horizontal' => [
                'centre' => ['e' => $l->centreE, 'n' => $l->centreN],
                'shift' => ['e' => $l->shiftE, 'n' => $l->shiftN],
                'rotation' => $l->rotationDegrees,
                'scale' => $l->scale,
                'held' => array_keys(array_filter([
                    'shift.e' => null !== $choices->shiftE, 'shift.n' => null !== $choices->shiftN,
                    'rotation' => null !== $choices->rotationDegrees, 'scale' => null !== $choices->scale,
                ])),
            ],
            'vertical' => ['model' => $l->vertical, 'shift' => $l->plane[0], 'slope' => ['e' => $l->plane[1], 'n' => $l->plane[2]]],
            'pairs' => array_map(static fn (Pair $p, int $i): array => [
                'name' => $p->name,
                'local' => ['e' => $p->localE, 'n' => $p->localN, 'h' => $p->localH],
                'grid' => ['e' => $p->gridE, 'n' => $p->gridN, 'h' => $p->gridH],
                'use' => ['horizontal' => $p->horizontal, 'vertical' => $p->vertical],
                'residual' => null === $fit ? null : ['e' => $fit->rows[$i]['e'], 'n' => $fit->rows[$i]['n'], 'h' => $fit->rows[$i]['h']],
            ], $pairs, array_keys($pairs)),
        ];
    }

    /**
     * @return array{name: string, system: string, heights: string, localization: Localization, choices: Choices, pairs: list<Pair>}
     *
     * @throws UnusablePairs when the text is not such a file
     */
    public static function read(string $json): array
    {
        $d = json_decode($json, true, self::DEEPEST);
        if (!\is_array($d) || self::FORMAT !== ($d['format'] ?? null)) {
            throw new UnusablePairs(\sprintf('this is not a localization file: its format is not "%s"', self::FORMAT));
        }
        $number = static function (string ...$path) use ($d): float {
            $at = $d;
            foreach ($path as $key) {
                $at = \is_array($at) ? $at[$key] ?? null : null;
            }
            if (!self::isNumber($at)) {
                throw new UnusablePairs(\sprintf('the localization file has no usable number at %s', implode('.', $path)));
            }

            return (float) $at;
        };
        $vertical = $d['vertical']['model'] ?? null;
        if (!\in_array($vertical, [Choices::NONE, Choices::SHIFT, Choices::PLANE], true)) {
            throw new UnusablePairs('vertical.model must be none, shift or plane');
        }
        $l = new Localization(
            $number('horizontal', 'centre', 'e'), $number('horizontal', 'centre', 'n'), $number('horizontal', 'shift', 'e'),
            $number('horizontal', 'shift', 'n'), $number('horizontal', 'rotation'), $number('horizontal', 'scale'), $vertical,
            [$number('vertical', 'shift'), $number('vertical', 'slope', 'e'), $number('vertical', 'slope', 'n')],
        );
        if ($l->scale < 0.001 || $l->scale > 1000.0) {
            throw new UnusablePairs('horizontal.scale must be a ratio near one');
        }
        if (max(abs($l->plane[1]), abs($l->plane[2])) > 1.0) {
            throw new UnusablePairs('vertical.slope must be a small slope, in metres per metre');
        }
        $held = \is_array($d['horizontal']['held'] ?? null) ? $d['horizontal']['held'] : [];
        $choices = new Choices(
            \in_array('shift.e', $held, true) ? $l->shiftE : null, \in_array('shift.n', $held, true) ? $l->shiftN : null,
            \in_array('rotation', $held, true) ? $l->rotationDegrees : null, \in_array('scale', $held, true) ? $l->scale : null, $vertical,
        );

        return [
            'name' => self::text($d['name'] ?? 'localization', 'name'), 'system' => self::text($d['grid']['system'] ?? '', 'grid.system'),
            'heights' => self::text($d['grid']['heights'] ?? '', 'grid.heights'), 'localization' => $l, 'choices' => $choices,
            'pairs' => self::pairs($d['pairs'] ?? []),
        ];
    }

    /** @return list<Pair> */
    private static function pairs(mixed $list): array
    {
        if (!\is_array($list) || !array_is_list($list)) {
            throw new UnusablePairs('pairs must be a list');
        }
        $pairs = [];
        foreach ($list as $i => $p) {
            $value = static function (string $side, string $axis) use ($p, $i): ?float {
                $at = \is_array($p) && \is_array($p[$side] ?? null) ? $p[$side][$axis] ?? null : null;
                if (null !== $at && !self::isNumber($at)) {
                    throw new UnusablePairs(\sprintf('pairs[%d].%s.%s is not a usable number', $i, $side, $axis));
                }

                return null === $at ? null : (float) $at;
            };
            $plan = [$value('local', 'e'), $value('local', 'n'), $value('grid', 'e'), $value('grid', 'n')];
            if (!\is_array($p) || \in_array(null, $plan, true)) {
                throw new UnusablePairs(\sprintf('pairs[%d] needs local and grid e and n', $i));
            }
            $use = \is_array($p['use'] ?? null) ? $p['use'] : [];
            $name = self::text($p['name'] ?? 'pair '.($i + 1), "pairs[$i].name");
            $pairs[] = new Pair(
                $name, $plan[0], $plan[1], $value('local', 'h'), $plan[2], $plan[3], $value('grid', 'h'),
                (bool) ($use['horizontal'] ?? true), (bool) ($use['vertical'] ?? true),
            );
        }

        return $pairs;
    }

    private static function isNumber(mixed $value): bool
    {
        return \is_int($value) || \is_float($value) && is_finite($value) ? abs($value) <= self::FARTHEST : false;
    }

    private static function text(mixed $value, string $where): string
    {
        if (!\is_string($value) || !mb_check_encoding($value, 'UTF-8')) {
            throw new UnusablePairs($where.' must be a text');
        }

        return $value;
    }
}
