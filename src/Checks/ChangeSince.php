<?php

declare(strict_types=1);

namespace App\Checks;

use App\Result\Result;
use App\Store\FileStore;
use Mensura\Deviation\EpochChange;

/** Two epochs of one thing: what changed from the one to the other. */
final class ChangeSince
{
    public function __construct(private readonly FileStore $store)
    {
    }

    /** @return array<string, mixed> as the points of a comparison are given; metres; "within" is how near places had to be */
    public function of(Result $later, Result $earlier): array
    {
        /** @var array{names: list<string>, e: list<float>, n: list<float>, h: list<float>, d: list<?float>} $now */
        $now = $this->store->getJson($later->output);
        /** @var array{names: list<string>, e: list<float>, n: list<float>, h: list<float>, d: list<?float>} $then */
        $then = $this->store->getJson($earlier->output);
        [$d, $before] = [self::counting($now['d'], $later), self::counting($then['d'], $earlier)];
        $size = static fn (array $v): float => [] === $v ? 0.0 : max($v) - min($v);
        $within = EpochChange::spacing($size($then['e']), $size($then['n']), \count($then['e']));
        $change = EpochChange::between($now['e'], $now['n'], $d, $then['e'], $then['n'], $before, $within);

        return ['d' => array_map(static fn (float $c): ?float => is_nan($c) ? null : round($c, 6), $change), 'within' => $within] + $now;
    }

    /**
     * @param list<?float> $d
     *
     * @return list<float> NAN for what was left out
     */
    private static function counting(array $d, Result $comparison): array
    {
        $limit = DeviationSettings::fromArray($comparison->settings)->ignore;

        return array_map(static fn (?float $v): float => null === $v || null !== $limit && abs($v) > $limit ? \NAN : $v, $d);
    }
}
