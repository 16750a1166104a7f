<?php

declare(strict_types=1);

namespace App\Terrain\Request;

use Mensura\Earthworks\Material;
use Mensura\Fault\UnusableInput;
use Symfony\Component\Validator\Constraints as Assert;

/** The materials of a project, all of them, and what a lorry takes (cubic metres, loose). */
final readonly class MaterialsRequest
{
    /** @param list<array{name: string, isNative: bool, swell: float, shrink: float, density: float}> $materials */
    public function __construct(
        #[Assert\Count(min: 1, max: 60)]
        public array $materials,
        #[Assert\Range(min: 0.5, max: 200)]
        public float $capacity,
    ) {
    }

    /**
     * @return list<Material>
     *
     * @throws UnusableInput naming the field
     */
    public function materials(): array
    {
        $all = [];
        foreach (array_values($this->materials) as $i => $m) {
            $name = \is_array($m) && \is_string($m['name'] ?? null) ? trim($m['name']) : '';
            if ('' === $name || mb_strlen($name) > 60 || isset($all[$name])) {
                throw new UnusableInput("/materials/$i/name", '' === $name ? 'is missing' : 'is too long, or there twice');
            }
            foreach (['swell', 'shrink', 'density'] as $field) {
                if (!\is_float($m[$field] ?? null) && !\is_int($m[$field] ?? null)) {
                    throw new UnusableInput("/materials/$i/$field", 'is a number');
                }
            }
            try {
                $all[$name] = new Material(
                    $name, (bool) ($m['isNative'] ?? true), (float) $m['swell'], (float) $m['shrink'], (float) $m['density'],
                );
            } catch (UnusableInput $e) {
                throw new UnusableInput("/materials/$i".$e->where, $e->reason);
            }
        }

        return array_values($all);
    }
}
