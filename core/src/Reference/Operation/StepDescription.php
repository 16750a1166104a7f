<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

/** What a step is, for people and for the record: method, source and parameters with their units in the names. */
final readonly class StepDescription
{
    /** @param array<string, float|string|list<float>> $parameters */
    public function __construct(public string $method, public string $source, public array $parameters = [])
    {
    }

    /** @return array{method: string, source: string, parameters: object} */
    public function toArray(): array
    {
        return ['method' => $this->method, 'source' => $this->source, 'parameters' => (object) $this->parameters];
    }
}
