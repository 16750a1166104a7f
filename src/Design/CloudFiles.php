<?php

declare(strict_types=1);

namespace App\Design;

use App\Design\View\CloudFileView;
use App\Project\Project;
use App\Store\FileStore;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Points\PointFile;
use Mensura\Fault\UnusableInput;

/** Point clouds of the project: accepted files of kind cloud, in the project's coordinates. */
final class CloudFiles
{
    /** What a worker holds at once. */
    private const MOST = 3_000_000;

    public function __construct(
        private readonly SurveyFileRepository $files, private readonly FileStore $store, private readonly FilePlacement $placement,
    ) {
    }

    /** @return list<CloudFileView> */
    public function of(Project $project): array
    {
        return array_values(array_map(
            static fn (SurveyFile $f): CloudFileView => new CloudFileView($f->id(), $f->name(), (int) ($f->mapping()['points'] ?? 0)),
            array_filter($this->files->of($project), self::isCloud(...)),
        ));
    }

    /** Points it says it holds; null where there is no such cloud. */
    public function count(Project $project, int $id): ?int
    {
        $file = $this->files->in($project, $id);

        return null === $file || !self::isCloud($file) ? null : (int) ($file->mapping()['points'] ?? 0);
    }

    /**
     * @param list<int> $classes of the LAS specification; empty for all points
     *
     * @return array{list<float>, list<float>, list<float>, string} easting, northing, height in metres, and the file's name
     *
     * @throws UnusableInput
     */
    public function points(Project $project, int $id, string $pointer, array $classes = []): array
    {
        $file = $this->files->in($project, $id);
        if (null === $file || !self::isCloud($file)) {
            throw new UnusableInput($pointer, 'there is no such point cloud in the project');
        }
        $count = (int) ($file->mapping()['points'] ?? 0);
        if ($count > self::MOST) {
            $words = '%s holds %d points; up to %d are compared at once: thin it first';
            throw new UnusableInput($pointer, \sprintf($words, $file->name(), $count, self::MOST));
        }
        $cloud = PointFile::read($this->store->localPath($file->sha256()), $file->name());

        if ([] === $classes) {
            return [...$this->placement->placed($project, $file, $cloud->x, $cloud->y, $cloud->z), $file->name()];
        }
        if (null === $cloud->classes) {
            throw new UnusableInput($pointer, $file->name().' has no classes: only LAS and LAZ do');
        }
        $wanted = array_flip($classes);
        $x = $y = $z = [];
        foreach ($cloud->classes as $i => $class) {
            if (isset($wanted[$class])) {
                $x[] = $cloud->x[$i];
                $y[] = $cloud->y[$i];
                $z[] = $cloud->z[$i];
            }
        }

        return [...$this->placement->placed($project, $file, $x, $y, $z), $file->name()];
    }

    private static function isCloud(SurveyFile $file): bool
    {
        return !$file->isWaiting() && FileKind::Cloud->value === $file->kind();
    }
}
