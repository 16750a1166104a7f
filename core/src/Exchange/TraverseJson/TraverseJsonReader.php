<?php

declare(strict_types=1);

namespace Mensura\Exchange\TraverseJson;

use Mensura\Exchange\Json\JsonObject;
use Mensura\Fault\UnusableInput;
use Mensura\Traverse\Leg;
use Mensura\Traverse\Traverse;

/** Reads a traverse, mensura-traverse/1. Every fault names its place as a JSON path. */
final class TraverseJsonReader
{
    private const FARTHEST = 1e8;
    private const LONGEST = 1e6;

    /**
     * @return array{Traverse, ?float, ?array{float, float}} sigma of an angle (degrees) and of distances (metres, ppm), where given
     *
     * @throws UnusableInput
     */
    public function read(string $json): array
    {
        $document = JsonObject::document($json, 'mensura-traverse/1');
        $legs = [];
        foreach ($document->objects('stations') as $row) {
            $distance = $row->positive('distance');
            if (null !== $distance && $distance > self::LONGEST) {
                throw $row->fault('distance', \sprintf('a distance of %s m cannot be', $distance));
            }
            $legs[] = new Leg($row->name('id'), $row->within('angle', -720.0, 720.0, 'degrees'), $distance);
        }
        $start = $this->place($document, 'start', $legs[0]);
        $end = $document->has('end') ? $this->place($document, 'end', $legs[\count($legs) - 1]) : null;
        $traverse = new Traverse(
            $start, $this->azimuth($document, 'startAzimuth') ?? throw $document->fault('startAzimuth', 'is missing'), $legs, $end,
            $this->azimuth($document, 'endAzimuth'),
        );
        $sigma = $document->object('settings')->object('sigma');

        return [$traverse, $sigma->positive('angle'), $this->distanceSd($sigma)];
    }

    private function azimuth(JsonObject $document, string $key): ?float
    {
        return $document->within($key, -720.0, 720.0, 'degrees');
    }

    /** @return array{float, float} */
    private function place(JsonObject $document, string $key, Leg $row): array
    {
        $point = $document->object($key);
        $id = $point->name('id');
        if ($id !== $row->id) {
            throw $point->fault('id', \sprintf('is "%s", but that row of stations is "%s"', $id, $row->id));
        }

        return [
            $point->within('e', -self::FARTHEST, self::FARTHEST, 'm') ?? $point->required('e'),
            $point->within('n', -self::FARTHEST, self::FARTHEST, 'm') ?? $point->required('n'),
        ];
    }

    /** @return ?array{float, float} */
    private function distanceSd(JsonObject $sigma): ?array
    {
        $pair = $sigma->numbers('distance');
        if (null === $pair) {
            return null;
        }
        if (\count($pair) < 1 || \count($pair) > 2 || min($pair) < 0.0 || max($pair) <= 0.0) {
            throw $sigma->fault('distance', 'must be [metres, parts per million], not negative and not both 0');
        }

        return [$pair[0], $pair[1] ?? 0.0];
    }
}
