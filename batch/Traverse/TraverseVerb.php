<?php

declare(strict_types=1);

namespace Batch\Traverse;

use Batch\JsonVerb;
use Mensura\Exchange\TraverseJson\TraverseJsonReader;
use Mensura\Traverse\CompassRule;
use Mensura\Traverse\RigorousTraverse;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;

#[AsCommand('traverse', 'Closures, compass rule and least squares of a mensura-traverse/1 file; prints the same format')]
final class TraverseVerb extends JsonVerb
{
    protected static function document(): string
    {
        return 'traverse, T.json';
    }

    protected function compute(string $json, InputInterface $input): array
    {
        [$traverse, $angleSd, $distanceSd] = (new TraverseJsonReader())->read($json);
        $compass = new CompassRule($traverse);
        $stations = [];
        foreach ($traverse->legs as $i => $leg) {
            $stations[] = [
                'id' => $leg->id, 'azimuth' => $compass->azimuths[$i], 'e' => $compass->places[$i][0],
                'n' => $compass->places[$i][1],
            ];
        }
        $rigorous = null;
        if (null === $angleSd || null === $distanceSd) {
            $this->say('warning: settings.sigma has no "angle" or no "distance", so there is no rigorous adjustment');
        } elseif (null !== $result = RigorousTraverse::adjust($traverse, $compass, $angleSd, $distanceSd)) {
            $rows = array_column($result->stations, null, 'id');
            foreach ($traverse->legs as $i => $leg) {
                $row = $rows["row $i"] ?? $rows['row 0'];
                $rigorous[] = [
                    'id' => $leg->id, 'e' => $row['e'], 'n' => $row['n'],
                    'sd' => ['e' => $row['sd']['e'], 'n' => $row['sd']['n']],
                ];
            }
        }

        return [
            'format' => 'mensura-traverse/1',
            'angularMisclosure' => $compass->angularMisclosure,
            'misclosure' => null === $compass->misclosure ? null : ['de' => $compass->misclosure[0], 'dn' => $compass->misclosure[1]],
            'length' => $compass->length,
            'ratio' => $compass->ratio,
            'stations' => $stations,
            'rigorous' => $rigorous,
        ];
    }
}
