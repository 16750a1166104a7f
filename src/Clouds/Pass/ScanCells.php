<?php

declare(strict_types=1);

namespace App\Clouds\Pass;

use App\Clouds\WorkFolder;
use App\Project\Project;
use App\Reference\ReferenceContent;
use App\Result\ContentVersions;
use App\Store\FileStore;
use Mensura\Fault\UnusableInput;
use Psr\Cache\CacheItemPoolInterface;

/** Points of scans by where they lie, so that a section reads what is near it alone. Made once for a scan and a system. */
final class ScanCells
{
    private const KEPT_SECONDS = 86_400 * 30;

    public function __construct(
        private readonly DriveFiles $drives, private readonly FileStore $store, private readonly ContentVersions $versions,
        private readonly CacheItemPoolInterface $cache,
    ) {
    }

    /**
     * @param array{float, float, float, float} $box west, south, east, north as it was scanned, metres
     *
     * @return array{list<float>, list<float>, list<float>, list<float>, list<float>} time, e, n, h, intensity
     *
     * @throws UnusableInput
     */
    public function near(Project $project, int $cloud, array $box, string $pointer): array
    {
        [$hash, $index] = $this->made($project, $cloud, $pointer);

        return PlanCells::near($this->store->pathOfParts($hash), $this->store->getJson($index), $box);
    }

    /**
     * @return array{string, string} of the points, and of the index
     *
     * @throws UnusableInput
     */
    public function made(Project $project, int $cloud, string $pointer): array
    {
        $item = $this->cache->getItem(\sprintf(
            'scan.%d.%d.%s', $project->id(), $cloud, ContentVersions::hash([
                $this->drives->contents($project, $cloud, $pointer), $this->versions->of($project, ReferenceContent::kind()),
            ]),
        ));
        $known = $item->isHit() ? $item->get() : null;
        if (null !== $known && $this->store->has($known[0]) && $this->store->has($known[1])) {
            return $known;
        }
        $folder = WorkFolder::make();
        try {
            $pieces = PlanCells::write($this->drives->points($project, $cloud, $pointer), $folder->path.'/cells');
            $made = [$this->store->take($folder->path.'/cells'), $this->store->putJson($pieces)];
        } finally {
            $folder->clear();
        }
        $this->cache->save($item->set($made)->expiresAfter(self::KEPT_SECONDS));

        return $made;
    }
}
