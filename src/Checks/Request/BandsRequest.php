<?php

declare(strict_types=1);

namespace App\Checks\Request;

use Mensura\Fault\UnusableInput;
use Symfony\Component\Validator\Constraints as Assert;

/** Tolerance bands: limits in metres, growing; a colour a band from the lowest up, as "#rrggbb". */
final readonly class BandsRequest
{
    /**
     * @param list<float>  $limits
     * @param list<string> $colours
     */
    public function __construct(
        #[Assert\Count(min: 1, max: 12), Assert\All([new Assert\Type(['float', 'int'])])]
        public array $limits,
        #[Assert\Count(min: 2, max: 13), Assert\All([new Assert\Regex('/^#[0-9a-fA-F]{6}$/')])]
        public array $colours,
    ) {
    }

    /**
     * @return list<float>
     *
     * @throws UnusableInput
     */
    public function growing(): array
    {
        $limits = array_map(floatval(...), array_values($this->limits));
        foreach ($limits as $i => $limit) {
            if ($i > 0 && !($limit > $limits[$i - 1])) {
                throw new UnusableInput("/limits/$i", 'is not above the limit before it; bands go upwards');
            }
        }
        if (\count($this->colours) !== \count($limits) + 1) {
            throw new UnusableInput('/colours', 'are one more than there are limits');
        }

        return $limits;
    }
}
