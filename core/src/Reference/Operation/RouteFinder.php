<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

use Mensura\Reference\Crs\Area;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Crs\VerticalSystem;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Grid\UnreadableGrid;
use Mensura\Reference\Registry\Registry;

/**
 * Plans the way between two coordinate systems: datum steps, geoid and height steps, each with its candidates. Heights
 * above a geoid are brought to ellipsoidal ones in the geoid's own datum, so that the model is read where it belongs.
 *
 * @phpstan-import-type Stage from Route
 */
final class RouteFinder
{
    /** Two ellipsoids this much alike (metres, flattening) hold the same datum when a definition names none. */
    private const SAME_AXIS = 0.001;
    private const SAME_FLATTENING = 1e-9;

    /** @var list<string> */
    private array $warnings = [];

    /** What is asked for by name, while a way is planned. */
    private ?NamedGrids $named = null;

    private readonly GeoidModels $geoids;

    public function __construct(private readonly Registry $registry, private readonly GridFiles $files)
    {
        $this->geoids = new GeoidModels($registry, $files);
    }

    /**
     * @throws MissingGrid
     * @throws NoWay
     * @throws UnreadableGrid
     * @throws UnusedGrid     one asked for by name has no place on the way
     */
    public function route(CoordinateSystem $from, CoordinateSystem $to, RouteSettings $settings = new RouteSettings()): Route
    {
        $named = new NamedGrids($this->files, $from->horizontal, $to->horizontal);
        $this->named = $named;
        try {
            do {
                $named->begin();
                $this->geoids->begin($from->vertical, $to->vertical);
                $refusal = null;
                try {
                    $route = $this->plan($from, $to, $settings);
                } catch (MissingGrid|NoWay $refusal) {
                    $route = null;
                }
            } while ($named->seekFurther());
        } finally {
            $this->named = null;
        }
        if (null === $route) {
            throw $refusal ?? new \LogicException('A way that is not found is refused.');
        }
        $unused = [...$named->unused(), ...$this->geoids->unused()];
        if ([] !== $unused) {
            throw new UnusedGrid(\sprintf(
                'the grid %s is named, but no step from %s to %s can use it', implode(' and ', $unused),
                $from->name(), $to->name(),
            ));
        }

        return $route;
    }

    private function plan(CoordinateSystem $from, CoordinateSystem $to, RouteSettings $settings): Route
    {
        $this->warnings = [];
        if (null !== $settings->geoid && null === $from->vertical && null === $to->vertical) {
            throw new NoWay(
                'a geoid is named but neither system has a height system; write the one with heights above the geoid as EPSG:h+EPSG:v',
            );
        }
        $a = $from->horizontal;
        $b = $to->horizontal;
        $va = $from->vertical;
        $vb = $to->vertical;
        $ellipsoidal = (null === $va && 3 === $a->dimension) && (null === $vb && 3 === $b->dimension);
        if (null !== $va && null !== $vb) {
            return $this->betweenHeights($from, $to, $va, $vb, $settings);
        }
        if (null !== $va && 3 === $b->dimension) {
            [$geoid, $datum, $name, $accuracy] = $this->geoids->of($va, self::onDatum($a, $a), $settings, $this->areaOf($a, $b, $settings));
            $middle = self::onDatum($datum, $a);
            $stages = [
                $this->horizontal($a, $middle, false, $settings), ...self::unit($va),
                self::geoidStage($geoid, true, $name, $accuracy), $this->horizontal($middle, $b, true, $settings),
            ];
        } elseif (null !== $vb && 3 === $a->dimension) {
            [$geoid, $datum, $name, $accuracy] = $this->geoids->of($vb, self::onDatum($b, $b), $settings, $this->areaOf($a, $b, $settings));
            $middle = self::onDatum($datum, $b);
            $stages = [
                $this->horizontal($a, $middle, true, $settings), self::geoidStage($geoid, false, $name, $accuracy),
                ...self::unit($vb), $this->horizontal($middle, $b, false, $settings),
            ];
        } else {
            $geocentric = HorizontalSystem::GEOCENTRIC === $a->kind || HorizontalSystem::GEOCENTRIC === $b->kind;
            $stages = [$this->horizontal($a, $b, $ellipsoidal || $geocentric, $settings)];
            if ($geocentric && !$ellipsoidal) {
                $this->warnings[] = \sprintf(
                    '%s has no height axis; its h is taken as ellipsoidal height',
                    3 === $a->dimension ? $b->label() : $a->label(),
                );
                $ellipsoidal = true;
            }

            return new Route($from, $to, $stages, $this->warnings, $ellipsoidal);
        }

        return new Route($from, $to, $stages, $this->warnings, true);
    }

    private function betweenHeights(
        CoordinateSystem $from,
        CoordinateSystem $to,
        VerticalSystem $va,
        VerticalSystem $vb,
        RouteSettings $settings,
    ): Route {
        $a = $from->horizontal;
        $b = $to->horizontal;
        if ($va->sameDatum($vb)) {
            return new Route(
                $from, $to, [$this->horizontal($a, $b, false, $settings), ...self::unit($va), ...self::unit($vb)],
                $this->warnings, true,
            );
        }
        $offset = $this->verticalOffset($va, $vb);
        if (null !== $offset) {
            return new Route(
                $from, $to,
                [$this->horizontal($a, $b, false, $settings), ...self::unit($va), $offset, ...self::unit($vb)],
                $this->warnings, true,
            );
        }
        $area = $this->areaOf($a, $b, $settings);
        [$one, $datumOne, $nameOne, $accuracyOne] = $this->geoids->of($va, self::onDatum($a, $a), $settings, $area);
        [$two, $datumTwo, $nameTwo, $accuracyTwo] = $this->geoids->of($vb, self::onDatum($b, $b), $settings, $area);
        $middleOne = self::onDatum($datumOne, $a);
        $middleTwo = self::onDatum($datumTwo, $b);

        return new Route($from, $to, [
            $this->horizontal($a, $middleOne, false, $settings), ...self::unit($va), self::geoidStage($one, true, $nameOne, $accuracyOne),
            $this->horizontal($middleOne, $middleTwo, true, $settings),
            self::geoidStage($two, false, $nameTwo, $accuracyTwo), ...self::unit($vb), $this->horizontal($middleTwo, $b, false, $settings),
        ], $this->warnings, true);
    }

    /**
     * Candidates between the datums of two systems.
     *
     * @return list<Candidate>
     */
    public function candidates(
        HorizontalSystem $from,
        HorizontalSystem $to,
        bool $spatial,
        RouteSettings $settings = new RouteSettings(),
    ): array {
        if ($from->datum === $to->datum || $from->datum->sameAs($to->datum)) {
            return [Candidate::identity()];
        }
        if (true === $this->named?->hasShifts()) {
            $known = function (HorizontalSystem $first) use ($to, $spatial, $settings): array {
                try {
                    return $this->unnamed($first, $to, $spatial, $settings);
                } catch (MissingGrid|NoWay) {
                    return [];
                }
            };
            $found = $this->named->candidates(
                !$settings->fallBack, $from, $to, static fn (): array => $known($from),
                fn (): array => $this->indirect($from, $to, $spatial, $settings), $known,
            );
            if ([] !== $found) {
                return $settings->fallBack ? [...$found, ...$known($from)] : $found;
            }
        }

        return $this->unnamed($from, $to, $spatial, $settings);
    }

    /**
     * Candidates weighed without regard to what was asked for by name.
     *
     * @return list<Candidate>
     */
    private function unnamed(HorizontalSystem $from, HorizontalSystem $to, bool $spatial, RouteSettings $settings): array
    {
        if ($from->datum === $to->datum || $from->datum->sameAs($to->datum)) {
            return [Candidate::identity()];
        }
        foreach ([[$from, $to, false], [$to, $from, true]] as [$bound, $other, $reverse]) {
            if (null !== $bound->binding) {
                return $this->throughBinding($bound, $other, $reverse, $spatial, $settings);
            }
        }
        if ($from->datum->isUnknown() || $to->datum->isUnknown()) {
            $x = $from->ellipsoid();
            $y = $to->ellipsoid();
            $unknown = $from->datum->isUnknown() ? $from : $to;
            if (abs($x->a - $y->a) < self::SAME_AXIS && abs($x->f - $y->f) < self::SAME_FLATTENING) {
                $this->warnings[] = \sprintf(
                    '%s names no datum; it is taken to be on that of %s', $unknown->label(),
                    $unknown === $from ? $to->label() : $from->label(),
                );

                return [Candidate::identity('Same datum by assumption', null)];
            }
            if ($settings->fallBack) {
                return [self::ballpark($from, $to)];
            }
            throw new NoWay(\sprintf(
                '%s names no datum, only the ellipsoid %s; give its transformation (towgs84 or BOUNDCRS)',
                $unknown->label(),
                $unknown->ellipsoid()->name,
            ));
        }
        $found = (new OperationRegistry($this->registry, $this->files, $settings->epoch))->between($from, $to, $spatial);
        if ([] === $found) {
            if (!$settings->fallBack) {
                throw new NoWay(\sprintf('the registry knows no transformation from %s to %s', $from->datum->name, $to->datum->name));
            }
            $found = [self::ballpark($from, $to)];
        }

        return $found;
    }

    /**
     * All ways between the datums of two systems, direct ones first, for choosing among them.
     *
     * @return list<Candidate>
     */
    public function ways(HorizontalSystem $from, HorizontalSystem $to, bool $spatial, RouteSettings $settings = new RouteSettings()): array
    {
        $direct = $this->candidates($from, $to, $spatial, $settings);
        $byName = [];
        foreach ([...$direct, ...($direct[0]->isIdentity() ? [] : $this->indirect($from, $to, $spatial, $settings))] as $candidate) {
            $byName[$candidate->name] ??= $candidate;
        }

        return array_values($byName);
    }

    /**
     * Ways through another datum, for places the direct ones do not reach.
     *
     * @return list<Candidate>
     */
    private function indirect(HorizontalSystem $from, HorizontalSystem $to, bool $spatial, RouteSettings $settings): array
    {
        $found = null !== $from->binding || null !== $to->binding
            ? []
            : (new OperationRegistry($this->registry, $this->files, $settings->epoch))->indirect($from, $to, $spatial);

        return $settings->fallBack ? [...$found, self::ballpark($from, $to)] : $found;
    }

    /** @return Stage */
    private function horizontal(HorizontalSystem $from, HorizontalSystem $to, bool $spatial, RouteSettings $settings): array
    {
        $candidates = $this->candidates($from, $to, $spatial, $settings);
        $between = \sprintf('from %s to %s', $from->datum->name, $to->datum->name);
        if (null !== $settings->prefer) {
            $named = array_values(array_filter(
                [...$candidates, ...$this->indirect($from, $to, $spatial, $settings)],
                static fn (Candidate $c): bool => $c->name === $settings->prefer,
            ));
            if ([] === $named) {
                throw new NoWay(\sprintf('there is no transformation "%s" %s', $settings->prefer, $between));
            }
            if (!$named[0]->isUsable()) {
                throw MissingGrid::of($named[0], null);
            }
            $candidates = [$named[0]->everywhere()];
        } elseif (null !== $settings->area && [] !== $candidates && !$candidates[0]->isIdentity()) {
            $reaching = array_filter(
                $candidates,
                static fn (Candidate $c): bool => $c->isUsable() && (null === $c->area || $c->area->covers($settings->area)),
            );
            if ([] === $reaching) {
                $candidates = [...$candidates, ...$this->indirect($from, $to, $spatial, $settings)];
            }
            $candidates = [$this->forArea($candidates, $settings->area, $settings->fallBack, $between)];
        }
        foreach ($candidates as $candidate) {
            if (null !== $candidate->epoch && null === $settings->epoch) {
                $this->warnings[] = \sprintf(
                    '"%s" moves with time and no epoch is given: its parameters are used as of %s',
                    $candidate->name,
                    $candidate->epoch,
                );
                break;
            }
        }

        return ['kind' => 'datum', 'description' => null, 'choice' => new ChoiceStep(
            $candidates,
            $settings->fallBack,
            $between,
            null !== $settings->area
                || null !== $settings->prefer
                || $candidates[0]->isIdentity()
                || $candidates[0]->named
                && !$settings->fallBack ? null : fn (): array => $this->indirect($from, $to, $spatial, $settings),
        ), 'step' => null];
    }

    /**
     * One way for a whole area: the best that covers it, else the best that meets it.
     *
     * @param non-empty-list<Candidate> $candidates
     */
    private function forArea(array $candidates, Area $area, bool $fallBack, string $between): Candidate
    {
        $covering = array_values(array_filter($candidates, static fn (Candidate $c): bool => null === $c->area || $c->area->covers($area)));
        $meeting = array_values(array_filter($candidates, static fn (Candidate $c): bool => null !== $c->area?->intersection($area)));
        $list = [] !== $covering ? $covering : $meeting;
        if ([] === $list) {
            throw new NoWay(\sprintf('no transformation %s reaches the area %s', $between, implode(',', $area->bounds())));
        }
        $usable = array_values(array_filter($list, static fn (Candidate $c): bool => $c->isUsable()));
        if (!$list[0]->isUsable() && !$fallBack) {
            throw MissingGrid::of($list[0], $usable[0] ?? null);
        }
        $best = $usable[0] ?? throw MissingGrid::of($list[0], null);

        return $best->everywhere();
    }

    /** @return list<Candidate> */
    private function throughBinding(
        HorizontalSystem $bound,
        HorizontalSystem $other,
        bool $reverse,
        bool $spatial,
        RouteSettings $settings,
    ): array {
        $binding = $bound->binding ?? throw new \LogicException('A bound system has its binding.');
        $hub = $this->registry->horizontalSystem($binding->target);
        $files = $this->files;
        if (null !== $binding->helmert) {
            $h = $binding->helmert;
            $from = $bound->ellipsoid();
            $to = $hub->ellipsoid();
            $seconds = static fn (float $radians): float => round(rad2deg($radians) * 3600.0, 12);
            $description = new StepDescription(($reverse ? 'Inverse of ' : '').'Position Vector transformation', $bound->name, [
                'tx_m' => $h->translation[0], 'ty_m' => $h->translation[1], 'tz_m' => $h->translation[2],
                'rx_arcsec' => $seconds($h->rotation[0]), 'ry_arcsec' => $seconds($h->rotation[1]),
                'rz_arcsec' => $seconds($h->rotation[2]), 'scale_ppm' => round(1e6 * $h->scale, 12),
            ]);
            $step = new Candidate('Transformation stated with '.$bound->name, null, null, [
                $description,
            ], [], static fn (): array => $h->isNull() && $from->a === $to->a && abs($from->f - $to->f) < 1e-15 ? [] : [
                new GeocentricStep($reverse ? $to : $from, $reverse ? $from : $to, $reverse ? $h->backward() : $h->forward(), !$spatial),
            ]);
        } else {
            $missing = [];
            $paths = [];
            foreach ($binding->grids as $name) {
                $optional = str_starts_with($name, '@');
                $name = ltrim($name, '@');
                if ('null' === $name) {
                    continue;
                }
                $path = $this->files->find([$name]);
                if (null !== $path) {
                    $paths[] = $path;
                } elseif (!$optional) {
                    $missing[] = $name;
                }
            }
            $description = new StepDescription(
                ($reverse ? 'Inverse of ' : '').'NTv2', $bound->name, ['grid' => implode(', ', $binding->grids)],
            );
            $step = new Candidate('Grids stated with '.$bound->name, null, null, [$description], $missing, static function () use (
                $files, $paths, $reverse,
            ): array {
                $grids = array_map($files->shifts(...), $paths);

                return [] === $grids ? [] : [new GridStep($grids, $reverse)];
            }, grids: $paths);
        }
        $rest = $reverse ? $this->candidates($other, $hub, $spatial, $settings) : $this->candidates($hub, $other, $spatial, $settings);
        $out = [];
        foreach ($rest as $candidate) {
            $both = $reverse ? $candidate->then($step) : $step->then($candidate);
            if (null !== $both) {
                $out[] = $both;
            }
        }

        return $out;
    }

    private static function ballpark(HorizontalSystem $from, HorizontalSystem $to): Candidate
    {
        return new Candidate(
            'Latitudes and longitudes kept (ballpark)', null, null,
            [new StepDescription('Latitudes and longitudes kept', $from->datum->name.' to '.$to->datum->name)], [],
            static fn (): array => [], [], true,
        );
    }

    /** @return ?Stage */
    private function verticalOffset(VerticalSystem $from, VerticalSystem $to): ?array
    {
        if (null === $from->code || null === $to->code) {
            return null;
        }
        foreach ([[$from, $to, 1.0], [$to, $from, -1.0]] as [$source, $target, $sign]) {
            $row = $this->registry->row(
                'SELECT * FROM other_transformation WHERE deprecated = 0 AND method_code = 9616 AND source_crs_auth_name '
                    .'= ? AND source_crs_code = ? AND target_crs_auth_name = ? AND target_crs_code = ? ORDER BY coalesce(accuracy, 1e9)',
                [...Registry::split((string) $source->code), ...Registry::split((string) $target->code)],
            );
            if (null !== $row) {
                $value = $sign * (float) $row['param1_value'] * $this->registry->unit((int) $row['param1_uom_code'])[0];

                return ['kind' => ($sign < 0.0 ? 'Inverse of ' : '').$row['name'], 'description' => new StepDescription(
                    'Vertical Offset',
                    $row['auth_name'].':'.$row['code'],
                    ['offset_m' => $value] + (null === $row['accuracy'] ? [] : ['accuracy_m' => (float) $row['accuracy']]),
                ), 'choice' => null, 'step' => new OffsetStep(0.0, 0.0, $value)];
            }
        }

        return null;
    }

    private function areaOf(HorizontalSystem $a, HorizontalSystem $b, RouteSettings $settings): ?Area
    {
        if (null !== $settings->area) {
            return $settings->area;
        }
        if (null === $a->area || null === $b->area) {
            return $a->area ?? $b->area;
        }

        return $a->area->intersection($b->area) ?? $a->area;
    }

    /** The three-dimensional geodetic system on the datum of one given, keeping the other's way out when it is the same datum. */
    private static function onDatum(HorizontalSystem $system, HorizontalSystem $like): HorizontalSystem
    {
        return new HorizontalSystem(
            HorizontalSystem::GEOGRAPHIC, $system->geodetic,
            '' === $system->geodeticName ? $system->name : $system->geodeticName, $system->datum, $system->geodetic,
            3, binding: $system->datum->sameAs($like->datum) ? $like->binding : $system->binding,
        );
    }

    /** @return Stage */
    private static function geoidStage(GeoidGrid $geoid, bool $toEllipsoid, string $name, ?float $accuracy): array
    {
        return [
            'kind' => ($toEllipsoid ? 'Inverse of ' : '').$name,
            'description' => new StepDescription(
                $toEllipsoid ? 'Height above the geoid to ellipsoidal height' : 'Ellipsoidal height to height above the geoid',
                $name,
                ['grid' => $geoid->name, 'interpolation' => 'bilinear'] + (null === $accuracy ? [] : ['accuracy_m' => $accuracy]),
            ),
            'choice' => null,
            'step' => new GeoidStep($geoid, $toEllipsoid),
        ];
    }

    /**
     * Depths are turned to heights here; units are the business of whoever reads and writes numbers.
     *
     * @return list<Stage>
     */
    private static function unit(VerticalSystem $vertical): array
    {
        return $vertical->down ? [[
            'kind' => 'Depth reversed',
            'description' => new StepDescription('Height Depth Reversal', $vertical->label()),
            'choice' => null,
            'step' => new ReverseHeightStep(),
        ]] : [];
    }
}
