<?php

declare(strict_types=1);

namespace App\Clouds\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Which mission is adjusted, with marks of control in its images. Pixels. */
final readonly class FlightRequest
{
    /**
     * @param ?int                                                             $number of the flight that is made anew; null for a new one
     * @param list<array{point: string, image: string, x: float, y: float}>    $marks
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        #[Assert\Positive]
        public int $mission,
        public ?int $number = null,
        #[Assert\Count(max: 20_000), Assert\All([new Assert\Collection(fields: [
            'point' => [new Assert\NotBlank(), new Assert\Type('string'), new Assert\Length(max: 60)],
            'image' => [new Assert\NotBlank(), new Assert\Type('string'), new Assert\Length(max: 200)],
            'x' => [new Assert\Type(['float', 'int']), new Assert\Range(min: 0, max: 1e5)],
            'y' => [new Assert\Type(['float', 'int']), new Assert\Range(min: 0, max: 1e5)],
        ])])]
        public array $marks = [],
    ) {
    }
}
