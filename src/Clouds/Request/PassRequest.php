<?php

declare(strict_types=1);

namespace App\Clouds\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Which drive is laid onto which, or registered to control alone. Metres, seconds. */
final readonly class PassRequest
{
    /**
     * @param ?int        $number              of the alignment that is made anew; null for a new one
     * @param ?int        $referenceTrajectory of the drive that stays, as it came; null for another pass, or control alone
     * @param ?int        $referencePass       a pass whose version in use stays
     * @param float       $every               metres along the pass, or seconds
     * @param list<float> $preShift            e, n, h from a picked pair; empty for none
     * @param list<array{target: string, time: float, e: float, n: float, h: float}> $targets as its scan shows control and check points
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        #[Assert\Positive]
        public int $trajectory,
        #[Assert\Positive]
        public int $cloud,
        #[Assert\Positive]
        public ?int $referenceTrajectory = null,
        #[Assert\Positive]
        public ?int $referenceCloud = null,
        #[Assert\Positive]
        public ?int $referencePass = null,
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
            'time' => [new Assert\Type(['float', 'int']), new Assert\Range(min: -1e12, max: 1e12)],
            'e' => [new Assert\Type(['float', 'int']), new Assert\Range(min: -1e8, max: 1e8)],
            'n' => [new Assert\Type(['float', 'int']), new Assert\Range(min: -1e8, max: 1e8)],
            'h' => [new Assert\Type(['float', 'int']), new Assert\Range(min: -1e5, max: 1e5)],
        ])])]
        public array $targets = [],
    ) {
    }
}
