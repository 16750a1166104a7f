<?php

declare(strict_types=1);

namespace App\HandOver\View;

use Mensura\Exchange\FeatureCatalogue\Linework;

/**
 * Lines that codes draw. Metres.
 *
 * @phpstan-import-type Line from Linework
 */
final readonly class LineworkView
{
    /**
     * @param list<array{
     *     code: string, number: string, points: int, from: string, to: string, closed: bool, length: float, path: list<float>,
     * }> $lines path: easting and northing after one another
     * @param list<string> $faults
     */
    public function __construct(public array $lines, public array $faults)
    {
    }

    /** @param array{lines: list<Line>, faults: list<string>} $read */
    public static function of(array $read): self
    {
        return new self(array_map(static function (array $l): array {
            $length = 0.0;
            $path = [];
            foreach ($l['vertices'] as $k => [$e, $n]) {
                $length += 0 === $k ? 0.0 : hypot($e - $l['vertices'][$k - 1][0], $n - $l['vertices'][$k - 1][1]);
                array_push($path, $e, $n);
            }

            return [
                'code' => $l['code'], 'number' => $l['number'], 'points' => \count($l['points']), 'from' => $l['points'][0],
                'to' => $l['points'][\count($l['points']) - 1], 'closed' => $l['closed'], 'length' => $length, 'path' => $path,
            ];
        }, $read['lines']), $read['faults']);
    }
}
