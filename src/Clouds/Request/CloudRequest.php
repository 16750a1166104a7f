<?php

declare(strict_types=1);

namespace App\Clouds\Request;

use App\Clouds\CloudPaint;
use Symfony\Component\Validator\Constraints as Assert;

/** What a cloud is made of, and what is done to it. Metres. */
final readonly class CloudRequest
{
    /**
     * @param ?int              $number  of the cloud that is made anew; null for a new one
     * @param list<int>         $files   received clouds
     * @param list<int>         $clouds  clouds made before
     * @param list<list<float>> $crop    easting and northing of corners
     * @param ?float            $thin    side of cubes that keep one point each
     * @param list<int>         $classes that are kept; empty for all
     * @param int               $onto    cloud it is laid onto; 0 for none
     * @param float             $within  how far off it may be then
     * @param list<array{target: string, e: float, n: float, h: float}> $targets as the cloud shows control and check points
     * @param string            $paint   what its points are coloured by
     * @param string            $against slot of what they deviate from
     * @param float             $range   deviation at which the colours end
     * @param list<int>         $dense   dense points of images
     * @param list<int>         $passes  whose scans it is made of, as they are corrected
     */
    public function __construct(
        #[Assert\NotBlank(normalizer: 'trim'), Assert\Length(max: 80)]
        public string $name,
        public ?int $number = null,
        #[Assert\Count(max: 50), Assert\All([new Assert\Type('int'), new Assert\Positive()])]
        public array $files = [],
        #[Assert\Count(max: 50), Assert\All([new Assert\Type('int'), new Assert\Positive()])]
        public array $clouds = [],
        #[Assert\Count(max: 2000), Assert\All([
            new Assert\Type('list'), new Assert\Count(exactly: 2), new Assert\All([new Assert\Type(['float', 'int'])]),
        ])]
        public array $crop = [],
        public bool $outside = false,
        #[Assert\Range(min: 0.001, max: 100)]
        public ?float $thin = null,
        public bool $noise = false,
        public bool $ground = false,
        #[Assert\Count(max: 256), Assert\All([new Assert\Type('int'), new Assert\Range(min: 0, max: 255)])]
        public array $classes = [],
        #[Assert\PositiveOrZero]
        public int $onto = 0,
        #[Assert\Range(min: 0.05, max: 20)]
        public float $within = 1.0,
        #[Assert\Count(max: 50), Assert\All([new Assert\Type('int'), new Assert\Positive()])]
        public array $passes = [],
        #[Assert\Count(max: 50), Assert\All([new Assert\Type('int'), new Assert\Positive()])]
        public array $dense = [],
        #[Assert\Count(max: 500), Assert\All([new Assert\Collection(fields: [
            'target' => [new Assert\NotBlank(), new Assert\Type('string'), new Assert\Length(max: 60)],
            'e' => [new Assert\Type(['float', 'int']), new Assert\Range(min: -1e8, max: 1e8)],
            'n' => [new Assert\Type(['float', 'int']), new Assert\Range(min: -1e8, max: 1e8)],
            'h' => [new Assert\Type(['float', 'int']), new Assert\Range(min: -1e5, max: 1e5)],
        ])])]
        public array $targets = [],
        #[Assert\Choice(['', CloudPaint::TIME, CloudPaint::DEVIATION])]
        public string $paint = '',
        #[Assert\Length(max: 40)]
        public string $against = '',
        #[Assert\Range(min: 0.001, max: 1000)]
        public float $range = 0.05,
    ) {
    }
}
