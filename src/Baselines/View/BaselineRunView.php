<?php

declare(strict_types=1);

namespace App\Baselines\View;

/** A baseline as it was processed once. Metres. */
final readonly class BaselineRunView
{
    /**
     * @param list<float>  $vector  geocentric
     * @param ?list<float> $less    east, north, up of it less the run before
     * @param string       $baseFrom where the place of the base is from
     * @param list<string> $warnings
     */
    public function __construct(
        public int $run,
        public string $solution,
        public ?float $ratio,
        public float $rms,
        public float $sdPlan,
        public float $sdUp,
        public array $vector,
        public ?array $less,
        public float $length,
        public int $epochs,
        public ?float $from,
        public ?float $to,
        public int $satellites,
        public int $slips,
        public string $settings,
        public string $baseFrom,
        public array $warnings,
        public string $at,
        public string $author,
        public string $output,
    ) {
    }
}
