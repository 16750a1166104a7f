<?php

declare(strict_types=1);

namespace App\Clouds\Group;

use Symfony\Component\Validator\Constraints as Assert;

/** What a ray is: an image by its name, and a pixel of it. */
#[\Attribute]
final class RayFields extends Assert\Compound
{
    protected function getConstraints(array $options): array
    {
        return [new Assert\Collection(fields: [
            'image' => [new Assert\NotBlank(), new Assert\Type('string'), new Assert\Length(max: 200)],
            'x' => [new Assert\Type(['float', 'int']), new Assert\Range(min: 0, max: 1e5)],
            'y' => [new Assert\Type(['float', 'int']), new Assert\Range(min: 0, max: 1e5)],
        ])];
    }
}
