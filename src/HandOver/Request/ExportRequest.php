<?php

declare(strict_types=1);

namespace App\HandOver\Request;

use Mensura\Fault\UnusableInput;
use Symfony\Component\Validator\Constraints as Assert;

/** What to hand over. */
final readonly class ExportRequest
{
    /**
     * @param list<int> $surfaces
     */
    public function __construct(
        #[Assert\NotBlank, Assert\Length(max: 20)]
        public string $kind,
        #[Assert\Count(max: 100)]
        public array $surfaces = [],
    ) {
    }

    /**
     * @return list<int>
     *
     * @throws UnusableInput
     */
    public function surfaceIds(): array
    {
        foreach ($this->surfaces as $i => $id) {
            if (!\is_int($id)) {
                throw new UnusableInput("/surfaces/$i", 'is the number of a surface');
            }
        }

        return array_values(array_unique($this->surfaces));
    }
}
