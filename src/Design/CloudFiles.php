<?php

declare(strict_types=1);

namespace App\Design;

use App\Design\View\CloudFileView;
use App\Project\Project;
use App\Store\FileStore;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Exchange\Delimited\FileKind;
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
        $file = $this->file($project, $id, $pointer);
        $count = (int) ($file->mapping()['points'] ?? 0);
        if ($count > self::MOST) {
            $words = '%s holds %d points; up to %d are compared at once: thin it first';
            throw new UnusableInput($pointer, \sprintf($words, $file->name(), $count, self::MOST));
        }
        $reader = CloudReader::open($this->store->localPath($file->sha256()), $file->name());
        if ([] !== $classes && null === $reader->las) {
            throw new UnusableInput($pointer, $file->name().' has no classes: only LAS and LAZ do');
        }
        $wanted = array_flip($classes);
        $x = $y = $z = [];
        foreach ($reader->blocks() as $block) {
            foreach ($block->x as $i => $e) {
                if ([] === $wanted || isset($wanted[$block->classes[$i]])) {
                    $x[] = $e;
                    $y[] = $block->y[$i];
                    $z[] = $block->z[$i];
                }
            }
        }

        return [...$this->placement->placed($project, $file, $x, $y, $z), $file->name()];
    }

    /**
     * A cloud that is read in pieces.
     *
     * @return array{CloudReader, ?\Closure(float, float, float): array{float, float, float}} and how its places come to the project's
     *
     * @throws UnusableInput
     */
    public function opened(Project $project, int $id, string $pointer): array
    {
        $file = $this->file($project, $id, $pointer);

        return [CloudReader::open($this->store->localPath($file->sha256()), $file->name()), $this->placement->way($project, $file)];
    }

    private function file(Project $project, int $id, string $pointer): SurveyFile
    {
        $file = $this->files->in($project, $id);

        return null !== $file && self::isCloud($file) ? $file
            : throw new UnusableInput($pointer, 'there is no such point cloud in the project');
    }

    private static function isCloud(SurveyFile $file): bool
    {
        return !$file->isWaiting() && FileKind::Cloud->value === $file->kind();
    }
}
