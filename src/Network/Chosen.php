<?php

declare(strict_types=1);

namespace App\Network;

use App\Survey\Observation;
use Mensura\Fault\UnusableInput;

/** An observation that was chosen, or one component of a vector. */
final readonly class Chosen
{
    public function __construct(public int $id, public ?string $component)
    {
    }

    /**
     * @param array<mixed> $rows as they were sent
     *
     * @return list<self>
     *
     * @throws UnusableInput naming the field: nothing is cast into another observation
     */
    public static function of(array $rows): array
    {
        $chosen = [];
        foreach (array_values($rows) as $i => $row) {
            $id = \is_array($row) ? $row['id'] ?? null : null;
            $component = \is_array($row) ? $row['component'] ?? null : null;
            if (!\is_int($id)) {
                throw new UnusableInput("/rows/$i/id", 'is the number of an observation');
            }
            if (null !== $component && (!\is_string($component) || !isset(Observation::COMPONENTS[$component]))) {
                throw new UnusableInput("/rows/$i/component", 'is dx, dy, dz or null');
            }
            $chosen[] = new self($id, $component);
        }

        return $chosen;
    }

    public function bits(): int
    {
        return null === $this->component ? Observation::ALL : Observation::COMPONENTS[$this->component];
    }
}
