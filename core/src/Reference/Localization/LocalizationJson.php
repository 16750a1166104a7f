<?php

declare(strict_types=1);

namespace Mensura\Reference\Localization;

/** A localization as an open file, "mensura-localization/1" (docs/formats.md): lengths in metres, angles in degrees. */
final class LocalizationJson
{
    public const FORMAT = 'mensura-localization/1';

    /**
     * @param list<Pair> $pairs
     *
     * @return array<string, mixed>
     */
    public static function toArray(string $name, string $system, string $heights, Localization $l, Choices $choices, array $pairs, ?Fit $fit): array
    {
        return [
            'format' => self::FORMAT,
            'name' => $name,
            'grid' => ['system' => $system, 'heights' => $heights],
            'horizontal' => [
                'centre' => ['e' => $l->centreE, 'n' => $l->centreN],
                'shift' => ['e' => $l->shiftE, 'n' => $l->shiftN],
                'rotation' => $l->rotationDegrees,
                'scale' => $l->scale,
                'held' => array_keys(array_filter(['shift.e' => null !== $choices->shiftE, 'shift.n' => null !== $choices->shiftN, 'rotation' => null !== $choices->rotationDegrees, 'scale' => null !== $choices->scale])),
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
        $d = json_decode($json, true);
        if (!\is_array($d) || self::FORMAT !== ($d['format'] ?? null)) {
            throw new UnusablePairs(\sprintf('this is not a localization file: its format is not "%s"', self::FORMAT));
        }
        $number = static function (string ...$path) use ($d): float {
            $at = $d;
            foreach ($path as $key) {
                $at = \is_array($at) ? $at[$key] ?? null : null;
            }
            if (!\is_int($at) && !\is_float($at)) {
                throw new UnusablePairs(\sprintf('the localization file has no number at %s', implode('.', $path)));
            }

            return (float) $at;
        };
        $vertical = $d['vertical']['model'] ?? null;
        if (!\in_array($vertical, [Choices::NONE, Choices::SHIFT, Choices::PLANE], true)) {
            throw new UnusablePairs('vertical.model must be none, shift or plane');
        }
        $l = new Localization($number('horizontal', 'centre', 'e'), $number('horizontal', 'centre', 'n'), $number('horizontal', 'shift', 'e'), $number('horizontal', 'shift', 'n'), $number('horizontal', 'rotation'), $number('horizontal', 'scale'), $vertical, [$number('vertical', 'shift'), $number('vertical', 'slope', 'e'), $number('vertical', 'slope', 'n')]);
        if ($l->scale <= 0.0) {
            throw new UnusablePairs('horizontal.scale must be positive');
        }
        $held = \is_array($d['horizontal']['held'] ?? null) ? $d['horizontal']['held'] : [];
        $choices = new Choices(
            \in_array('shift.e', $held, true) ? $l->shiftE : null, \in_array('shift.n', $held, true) ? $l->shiftN : null,
            \in_array('rotation', $held, true) ? $l->rotationDegrees : null, \in_array('scale', $held, true) ? $l->scale : null, $vertical,
        );
        $pairs = [];
        foreach (\is_array($d['pairs'] ?? null) ? array_values($d['pairs']) : [] as $i => $p) {
            $value = static fn (string $side, string $axis): ?float => \is_array($p) && \is_array($p[$side] ?? null) && (\is_int($p[$side][$axis] ?? null) || \is_float($p[$side][$axis] ?? null)) ? (float) $p[$side][$axis] : null;
            $le = $value('local', 'e');
            $ln = $value('local', 'n');
            $ge = $value('grid', 'e');
            $gn = $value('grid', 'n');
            if (!\is_array($p) || null === $le || null === $ln || null === $ge || null === $gn) {
                throw new UnusablePairs(\sprintf('pairs[%d] needs local and grid e and n', $i));
            }
            $pairs[] = new Pair(\is_string($p['name'] ?? null) ? $p['name'] : 'pair '.($i + 1), $le, $ln, $value('local', 'h'), $ge, $gn, $value('grid', 'h'), (bool) ($p['use']['horizontal'] ?? true), (bool) ($p['use']['vertical'] ?? true));
        }

        return ['name' => \is_string($d['name'] ?? null) ? $d['name'] : 'localization', 'system' => \is_string($d['grid']['system'] ?? null) ? $d['grid']['system'] : '', 'heights' => \is_string($d['grid']['heights'] ?? null) ? $d['grid']['heights'] : '', 'localization' => $l, 'choices' => $choices, 'pairs' => $pairs];
    }
}
