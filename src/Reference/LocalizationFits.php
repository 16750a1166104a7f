<?php

declare(strict_types=1);

namespace App\Reference;

use App\Project\Project;
use App\Reference\Request\LocalizationRequest;
use App\Reference\View\FitView;
use App\Survey\Point;
use App\Survey\PointRepository;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Localization\Choices;
use Mensura\Reference\Localization\Fit;
use Mensura\Reference\Localization\Fitter;
use Mensura\Reference\Localization\LocalizationJson;
use Mensura\Reference\Localization\Pair;
use Mensura\Reference\Localization\UnusablePairs;

/** Fits localizations to pairs as they are typed. */
final class LocalizationFits
{
    private const FARTHEST_LISTED = 200;
    /** Metres; nearer the hull than this is on it. */
    private const OUTSIDE = 0.001;

    public function __construct(private readonly PointRepository $points)
    {
    }

    /**
     * @return array{Fit, list<Pair>}
     *
     * @throws UnusableInput
     */
    public function fit(LocalizationRequest $request): array
    {
        $pairs = [];
        foreach ($request->pairs as $i => $p) {
            $pairs[] = self::pair($p, $i);
        }
        try {
            return [Fitter::fit($pairs, self::choices($request)), $pairs];
        } catch (UnusablePairs $e) {
            throw new UnusableInput('/pairs', $e->getMessage());
        }
    }

    /**
     * The fitted localization as its open file.
     *
     * @param list<Pair> $pairs
     */
    public static function file(LocalizationRequest $request, string $heights, Fit $fit, array $pairs): string
    {
        $name = trim($request->name);
        $file = LocalizationJson::toArray($name, $request->system, $heights, $fit->localization, self::choices($request), $pairs, $fit);

        return json_encode($file, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE | \JSON_PRETTY_PRINT);
    }

    /** @param list<Pair> $pairs */
    public function view(Project $project, Fit $fit, array $pairs): FitView
    {
        $l = $fit->localization;
        $rows = array_map(static fn (array $row, Pair $pair): array => [
            'name' => $row['name'], 'e' => $row['e'], 'n' => $row['n'], 'h' => $row['h'], 'horizontal' => $row['horizontal'],
            'standardized' => $row['standardized'], 'standardizedH' => $row['standardizedH'], 'withoutE' => $row['without']['e'] ?? null,
            'withoutN' => $row['without']['n'] ?? null, 'withoutH' => $row['without']['h'] ?? null,
            'gridE' => $pair->gridE, 'gridN' => $pair->gridN,
        ], $fit->rows, $pairs);
        $values = [
            'shiftE' => $l->shiftE, 'shiftN' => $l->shiftN, 'rotation' => $l->rotationDegrees, 'scale' => $l->scale,
            'centreE' => $l->centreE,
            'centreN' => $l->centreN, 'a' => $l->plane[0], 'b' => $l->plane[1], 'c' => $l->plane[2],
        ];
        $hull = array_map(static fn (array $p): array => $l->toGrid($p[0], $p[1]), $fit->hull);

        return new FitView(
            $values, $fit->sd, $rows, $fit->sigma, $fit->sigmaH, $fit->redundancy, $fit->redundancyH, $fit->suspect,
            $hull, $this->outside($project, $fit),
        );
    }

    /** @return list<array{name: string, distance: float}> points known locally beyond the pairs, the farthest first, metres */
    private function outside(Project $project, Fit $fit): array
    {
        $outside = [];
        foreach ($this->points->known($project, Point::LOCALLY) as $p) {
            $distance = null === $p->e || null === $p->n ? 0.0 : $fit->outside($p->e, $p->n);
            if ($distance > self::OUTSIDE) {
                $outside[] = ['name' => $p->name, 'distance' => $distance];
            }
        }
        usort($outside, static fn (array $a, array $b): int => $b['distance'] <=> $a['distance']);

        return \array_slice($outside, 0, self::FARTHEST_LISTED);
    }

    private static function choices(LocalizationRequest $r): Choices
    {
        return new Choices($r->shiftE, $r->shiftN, $r->rotation, $r->scale, $r->vertical);
    }

    private static function pair(mixed $p, int $i): Pair
    {
        if (!\is_array($p)) {
            throw new UnusableInput("/pairs/$i", 'is not a pair');
        }
        $value = static function (string $key, bool $needed) use ($p, $i): ?float {
            $v = $p[$key] ?? null;
            if (null === $v && !$needed) {
                return null;
            }
            if (!\is_int($v) && !\is_float($v)) {
                throw new UnusableInput("/pairs/$i/$key", 'is not a number');
            }

            return (float) $v;
        };
        $name = $p['name'] ?? null;

        return new Pair(
            \is_string($name) || \is_int($name) ? (string) $name : 'pair '.($i + 1), (float) $value('localE', true),
            (float) $value('localN', true),
            $value('localH', false), (float) $value('gridE', true), (float) $value('gridN', true), $value('gridH', false),
            (bool) ($p['horizontal'] ?? true), (bool) ($p['vertical'] ?? true),
        );
    }
}
