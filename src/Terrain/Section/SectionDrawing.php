<?php

declare(strict_types=1);

namespace App\Terrain\Section;

use App\Project\Project;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Fault\UnusableInput;

/** A section as it was cut, for those who write it. */
final readonly class SectionDrawing
{
    public function __construct(private SectionPage $sections, private Results $results, private FileStore $store)
    {
    }

    /** @return array<int, string> names by number */
    public function choices(Project $project): array
    {
        return array_column($this->sections->of($project), 'name', 'number');
    }

    /**
     * @param list<int> $chosen
     *
     * @return array{
     *     Result, array{
     *         start: float, e: list<float>, n: list<float>, stations: list<float>,
     *         surfaces: list<array{name: string, pieces: list<list<array{float, float}>>}>,
     *         points: list<array{name: string, station: float, offset: float, h: float}>,
     *         crosses: list<array{station: float, e: list<float>, n: list<float>, surfaces: list<list<list<array{float, float}>>>}>,
     *     },
     * }
     *
     * @throws UnusableInput
     */
    public function of(Project $project, array $chosen): array
    {
        $result = $this->results->current($project)[SectionMaker::PREFIX.($chosen[0] ?? 0)]
            ?? throw new UnusableInput('/surfaces', 'choose a section that is cut');

        // @phpstan-ignore return.type (kept by SectionMaker as it is described)
        return [$result, $this->store->getJson($result->output)];
    }
}
