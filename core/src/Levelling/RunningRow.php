<?php

declare(strict_types=1);

namespace Mensura\Levelling;

/** What a row of a levelling book says as far as it is written: metres. */
final readonly class RunningRow
{
    /**
     * @param int     $setup      number of its setup, from 1
     * @param ?float  $horizon    height of the line of sight, beside the first back sight
     * @param ?float  $h          height of its point
     * @param ?float  $repeat     how much it disagrees with the sight it repeats; of differences for the pattern BFFB
     * @param bool    $isBeyond   the repeat is beyond the limit
     * @param ?float  $misclosure at a benchmark: running height less the given one
     * @param ?float  $unbalance  back less fore lengths so far, at the last sight of a setup
     * @param ?string $fault      what is wrong with it
     */
    public function __construct(
        public int $setup,
        public ?float $horizon,
        public ?float $h,
        public ?float $repeat,
        public bool $isBeyond,
        public ?float $misclosure,
        public ?float $unbalance,
        public ?string $fault,
    ) {
    }

    /**
     * @return array{setup: int, horizon: ?float, h: ?float, repeat: ?float, isBeyond: bool, misclosure: ?float,
     *     unbalance: ?float, fault: ?string}
     */
    public function toArray(): array
    {
        return [
            'setup' => $this->setup, 'horizon' => $this->horizon, 'h' => $this->h, 'repeat' => $this->repeat, 'isBeyond' => $this->isBeyond,
            'misclosure' => $this->misclosure, 'unbalance' => $this->unbalance, 'fault' => $this->fault,
        ];
    }
}
