<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\Format\Formats;
use App\Intake\Format\Reading;
use App\Intake\Memory\RememberedMappingRepository;
use App\Intake\View\AskView;
use App\Intake\View\FindingView;
use App\Intake\View\KindView;
use App\Intake\View\MeaningView;
use App\Intake\View\MemoryView;
use App\Intake\View\PreviewView;
use App\Project\Project;
use App\Survey\PointRepository;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Fault\UnusableInput;

/** What a waiting file would bring: counts, places, questions, and what is odd about it against what the project knows. */
final class Preview
{
    private const SHOWN_FINDINGS = 200;
    /** Points drawn: more would make the answer slow and the sketch no clearer. */
    private const SHOWN_POINTS = 3000;

    public function __construct(
        private readonly SurveyFileRepository $files,
        private readonly PointRepository $points,
        private readonly Formats $formats,
        private readonly Placer $placer,
        private readonly RememberedMappingRepository $memories,
    ) {
    }

    public function of(SurveyFile $file): PreviewView
    {
        $kinds = self::kinds(FileKind::tryFrom($file->kind()));
        try {
            $reading = $this->formats->read($file);
        } catch (UnusableInput $e) {
            return PreviewView::unreadable(
                $file->id(), $file->name(), $file->size(), $file->sha256(), $kinds,
                $file->name().', '.$e->getMessage(),
            );
        }
        $meaning = Meaning::fromArray($file->meaning());
        $placed = $this->placer->place($file->project(), $reading, $meaning);
        $known = KnownPlaces::of($this->points->known($file->project(), $placed->known));
        $places = new PreviewPlaces($placed->records, $reading->observations(), $known);
        $marks = $reading->kind()->hasMarks() ? $placed->records : [];
        $against = AgainstKnown::findings($marks, $reading->observations(), $known);
        $findings = array_merge($this->twice($file), $placed->findings, $reading->findings(), $against);
        $questions = $reading->unitsAsked();
        $errors = \count(array_filter($findings, static fn (Finding $f): bool => Finding::ERROR === $f->severity && null === $f->line));
        $isReady = [] === $questions && [] === $placed->asks && 0 === $errors && $reading->size() > 0;

        return new PreviewView(
            $file->id(), $file->name(), $file->size(), $file->sha256(), $reading->kind()->value, $kinds,
            $reading->columns(), $reading->fields(),
            $reading->counts(), $reading->leftOut(), self::shown($findings), \count($findings), $questions, $places->extent(),
            $places->shown(self::SHOWN_POINTS), \count($places->points), $places->rays(self::SHOWN_POINTS), null, $isReady,
            $this->meaning($file->project(), $reading, $meaning, $placed), $this->memory($file), $this->files->twin($file)?->name() ?? '',
        );
    }

    /**
     * @param list<Finding> $findings
     *
     * @return list<FindingView>
     */
    private static function shown(array $findings): array
    {
        return array_map(
            static fn (Finding $f): FindingView => new FindingView($f->severity, $f->line, $f->message), \array_slice(
                $findings, 0, self::SHOWN_FINDINGS,
            ),
        );
    }

    /**
     * What it can be read as.
     *
     * @return list<KindView>
     */
    private static function kinds(?FileKind $kind): array
    {
        $kinds = null === $kind || \in_array($kind, FileKind::tables(), true) ? FileKind::tables() : [$kind];

        return array_map(static fn (FileKind $k): KindView => new KindView($k->value, $k->label()), $kinds);
    }

    private function meaning(Project $project, Reading $reading, Meaning $m, Placement $placed): ?MeaningView
    {
        if (!Placer::asksWhere($reading)) {
            return null;
        }
        $asks = array_map(
            static fn (string $key, string $text): AskView => new AskView($key, $text, 'sign' === $key ? $placed->offer : ''),
            array_keys($placed->asks), $placed->asks,
        );

        return new MeaningView(
            $m->frame, $m->heights, Placer::heightsSaid($project, $reading, $m) ?? '', '' !== $m->geoid ? $m->geoid : $project->geoid(),
            $m->swap, $m->far, $m->sign,
            $m->operation, $reading->isGeographic(), $reading->hasHeights(), $m->control, $m->sigma, $project->isPlane(), $asks,
            $placed->ways,
        );
    }

    /** The mapping it is read by, while that is remembered. */
    private function memory(SurveyFile $file): ?MemoryView
    {
        $id = $file->mapping()['memory'] ?? null;
        $memory = \is_int($id) ? $this->memories->find($id) : null;

        return null === $memory ? null : new MemoryView($memory->id(), $memory->label, $memory->author->name());
    }

    /** @return list<Finding> */
    private function twice(SurveyFile $file): array
    {
        $other = $this->files->twin($file);
        if (null === $other) {
            return [];
        }
        $when = $other->acceptedAt()?->format('Y-m-d H:i');
        $state = null === $when ? 'and waits' : "accepted $when UTC";

        return [new Finding(Finding::WARNING, null, \sprintf('the same file is already here as %s, %s', $other->name(), $state))];
    }
}
