<?php

declare(strict_types=1);

namespace App\Network\Request;

use Symfony\Component\Validator\Constraints as Assert;

/** Which set-up to place, whether its station is found from its targets, and the targets held; none named holds control. */
final readonly class SetupPlacesRequest
{
    /** @param list<string> $held */
    public function __construct(
        #[Assert\NotBlank, Assert\Length(max: 90)]
        public string $setup,
        public bool $resection = false,
        #[Assert\Count(max: 400), Assert\All([new Assert\Type('string'), new Assert\NotBlank(), new Assert\Length(max: 60)])]
        public array $held = [],
    ) {
    }
}
