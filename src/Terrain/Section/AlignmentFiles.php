<?php

declare(strict_types=1);

namespace App\Terrain\Section;

use App\Design\FilePlacement;
use App\Export\AlignmentSource;
use App\Project\Project;
use App\Store\FileStore;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use App\Terrain\View\AlignmentView;
use Mensura\Alignment\Alignment;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\LandXml\LandXmlAlignments;
use Mensura\Fault\UnusableInput;

/** Alignments that others designed: in accepted LandXML files. */
final class AlignmentFiles implements AlignmentSource
{
    public function __construct(private readonly SurveyFileRepository $files, private readonly FileStore $store)
    {
    }

    /** @return list<AlignmentView> */
    public function of(Project $project): array
    {
        $views = [];
        foreach ($this->files->of($project) as $file) {
            if (self::isDesign($file)) {
                foreach ((array) ($file->mapping()['alignments'] ?? []) as $name => $length) {
                    $views[] = new AlignmentView($file->id(), $file->name(), (string) $name, (float) $length);
                }
            }
        }

        return $views;
    }

    public function listed(Project $project): array
    {
        return array_map(static fn (AlignmentView $v): array => [
            'file' => $v->file, 'fileName' => $v->fileName, 'name' => $v->name, 'length' => $v->length,
        ], $this->of($project));
    }

    public function alignment(Project $project, int $id, string $name): Alignment
    {
        $file = $this->files->in($project, $id);
        if (null === $file || !self::isDesign($file)) {
            throw new UnusableInput('/file', 'there is no such file in the project');
        }
        FilePlacement::refuseMoved($file);
        foreach (LandXmlAlignments::read($this->store->localPath($file->sha256()), $file->name()) as $alignment) {
            if ($alignment->name === $name) {
                return $alignment;
            }
        }

        throw new UnusableInput('/alignment', \sprintf('%s holds no alignment "%s"', $file->name(), $name));
    }

    private static function isDesign(SurveyFile $file): bool
    {
        return !$file->isWaiting() && FileKind::Design->value === $file->kind();
    }
}
