<?php

declare(strict_types=1);

namespace App\Intake;

use App\Reference\Step;
use App\Reference\View\CandidateView;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Exchange\Delimited\PointRecord;

/** Where the points of a file come to lie in the project, what must be asked before they may, and what is odd about it. */
final readonly class Placement
{
    /**
     * @param string                $known    "global", or "local" when nothing is known of their place on the earth
     * @param list<PointRecord>     $records  with e, n, h in the project's system, metres
     * @param array<string, string>       $asks    question by what it asks for: heights, geoid, swap, sign, far, order, control
     * @param list<Finding>               $findings
     * @param list<CandidateView>         $ways    transformations to choose among, when the best cannot be used or one was chosen
     * @param ?Step                       $step    the way they came; null where they lie as the file says
     * @param string                      $offer   the answer to "sign" that brings the points near
     */
    public function __construct(
        public string $known,
        public array $records,
        public array $asks = [],
        public array $findings = [],
        public string $offer = '',
        public array $ways = [],
        public ?Step $step = null,
    ) {
    }

    /**
     * @param list<PointRecord>     $records
     * @param array<string, string> $asks
     */
    public function with(array $records, array $asks): self
    {
        return new self($this->known, $records, $asks, $this->findings, $this->offer, $this->ways, $this->step);
    }

    /** @param list<PointRecord> $records as they stand in the file */
    public static function impossible(string $known, array $records, string $why): self
    {
        return new self($known, $records, [], [new Finding(Finding::ERROR, null, $why)]);
    }
}
