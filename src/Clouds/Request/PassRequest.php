<?php

declare(strict_types=1);

namespace App\Clouds\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Which drive is laid onto which. Metres, seconds. */
final readonly class PassRequest
{
    /**
     * @param ?int        $number   of the alignment that is made anew; null for a new one
     * @param float       $every    metres along the pass, or seconds
     * @param list<array{target: string, stays: bool, time: float, e: float, n: float, h: float}> $targets as a scan shows control and
     *                                                                                                   check points
     * @param list<float> $preShift e, n, h from a picked pair; empty for none
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        #[Assert\Positive]
        public int $trajectory,
        #[Assert\Positive]
        public int $cloud,
        #[Assert\Positive]
        public int $referenceTrajectory,
        #[Assert\Positive]
        public int $referenceCloud,
        public ?int $number = null,
        #[Assert\Range(min: 0.1, max: 10_000)]
        public float $every = 20.0,
        public bool $isTime = false,
        #[Assert\Range(min: 0.05, max: 20)]
        public float $radius = 1.0,
        #[Assert\Count(max: 3), Assert\All([new Assert\Type(['float', 'int']), new Assert\Range(min: -1e4, max: 1e4)])]
        public array $preShift = [],
        #[Assert\Count(max: 2000), Assert\All([new Assert\Collection(fields: [
            'target' => [new Assert\NotBlank(), new Assert\Type('string'), new Assert\Length(max: 60)],
            'stays' => [new Assert\Type('bool')],
            'time' => [new Assert\Type(['float', 'int']), new Assert\Range(min: -1e12, max: 1e12)],
            'e' => [new Assert\Type(['float', 'int']), new Assert\Range(min: -1e8, max: 1e8)],
            'n' => [new Assert\Type(['float', 'int']), new Assert\Range(min: -1e8, max: 1e8)],
            'h' => [new Assert\Type(['float', 'int']), new Assert\Range(min: -1e5, max: 1e5)],
        ])])]
        public array $targets = [],
    ) {
    }
}
