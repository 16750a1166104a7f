<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\Format\Formats;
use App\Intake\Format\Reading;
use App\Intake\Memory\RememberedMappingRepository;
use App\Ledger\Journal;
use App\Ledger\Prepared;
use App\Project\Project;
use App\Reference\Step;
use App\Survey\FollowsFile;
use App\Survey\ImportedPoint;
use App\Survey\NameTaken;
use App\Survey\ObservationRepository;
use App\Survey\Point;
use App\Survey\PointRepository;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Exchange\Delimited\PointRecord;
use Mensura\Fault\UnusableInput;

/** Takes a waiting file into the project: its points and observations, all or none. Read and placed before the lock is taken. */
final class AcceptFile implements Prepared
{
    private string $title = '';

    /** @var array<string, mixed> */
    private array $detail = [];

    private ?Reading $reading = null;

    /** @var list<ImportedPoint> */
    private array $points = [];

    private string $known = Point::GLOBALLY;

    private ?Step $step = null;

    /** @param iterable<FollowsFile> $followers */
    public function __construct(
        private readonly SurveyFileRepository $files,
        private readonly PointRepository $pointRows,
        private readonly ObservationRepository $observations,
        private readonly Formats $formats,
        private readonly Placer $placer,
        private readonly RememberedMappingRepository $memories,
        private readonly iterable $followers,
        private readonly int $file,
        private readonly bool $leaveOutBad,
    ) {
    }

    public function name(): string
    {
        return 'accept-file';
    }

    public function title(): string
    {
        return $this->title;
    }

    public function detail(): array
    {
        return $this->detail;
    }

    public function prepare(Project $project): void
    {
        $file = $this->waiting($project);
        $reading = $this->formats->read($file);
        if (null !== $missing = $reading->missing()) {
            throw new UnusableInput($file->name(), $missing);
        }
        if ([] !== $asked = $reading->unitsAsked()) {
            throw new UnusableInput($file->name(), 'answer first: '.$asked[0]->text);
        }
        if ($reading->leftOut() > 0 && !$this->leaveOutBad) {
            $first = $reading->findings()[0];
            $reason = '%s; %d line(s) cannot be used: correct the file, or accept without them';
            throw new UnusableInput(
                \sprintf('%s line %d', $file->name(), (int) $first->line),
                \sprintf($reason, $first->message, $reading->leftOut()),
            );
        }
        if (0 === $reading->size()) {
            throw new UnusableInput($file->name(), 'no line of it can be used');
        }
        $placed = $this->placer->place($project, $reading, Meaning::fromArray($file->meaning()));
        foreach ($placed->findings as $finding) {
            if (Finding::ERROR === $finding->severity) {
                throw new UnusableInput($file->name(), $finding->message);
            }
        }
        if ([] !== $placed->asks) {
            throw new UnusableInput($file->name(), 'answer first: '.implode(' ', $placed->asks));
        }
        $this->reading = $reading;
        $this->known = $placed->known;
        $this->step = $placed->step;
        $marks = $reading->kind()->hasMarks() ? $placed->records : [];
        $this->points = array_map(static fn (PointRecord $r): ImportedPoint => new ImportedPoint(
            $r->line, $r->name, $r->code, $r->e, $r->n, $r->h, $r->held, $r->sd[0], $r->sd[1], $r->sd[2],
            $r->measured,
        ), $marks);
    }

    public function apply(Project $project, Journal $journal): void
    {
        $reading = $this->reading ?? throw new \LogicException('Not prepared.');
        $file = $this->waiting($project);
        $role = (new ControlRole(Meaning::fromArray($file->meaning())))->role($reading->kind());
        try {
            $this->pointRows->import($project, $journal, $file, $role, $this->known, $this->points);
        } catch (NameTaken $e) {
            throw new UnusableInput(\sprintf('%s line %d', $file->name(), $e->atLine), $e->getMessage());
        }
        $this->observations->import($project, $journal, $file, $reading->observations());
        $this->remember($project, $file, $reading);
        $file->read($reading->kind()->value, $this->keptWithLines($reading->kind(), $reading->kept()));
        $file->accept($reading->size(), $reading->leftOut(), $journal->at);
        foreach ($this->followers as $follower) {
            $follower->accepted($project, $file);
        }
        $meaning = Meaning::fromArray($file->meaning());
        $this->say($file, $reading, $meaning);
        $this->detail = [
            'file' => $file->name(), 'sha256' => $file->sha256(), 'counts' => $reading->counts(), 'leftOut' => $reading->leftOut(),
            'mapping' => $reading->kept(), 'meaning' => $meaning->toArray(),
        ];
    }

    /**
     * Lines and flights stay in the file as it was received; how they come to where they lie in the project is kept with it.
     *
     * @param array<string, mixed> $kept
     *
     * @return array<string, mixed>
     */
    private function keptWithLines(FileKind $kind, array $kept): array
    {
        if (!isset($kept['features']) && !isset($kept['flight']) && !Placer::staysInFile($kind)) {
            return $kept;
        }

        return $kept + ['known' => $this->known] + (null === $this->step ? [] : ['steps' => [(array) $this->step]]);
    }

    /** What was chosen by hand is there for the next file with such headings. */
    private function remember(Project $project, SurveyFile $file, Reading $reading): void
    {
        if ([] === $file->mapping() || isset($file->mapping()['memory'])) {
            return;
        }
        $shape = $this->formats->shape($file->sha256(), $file->name());
        if ('' !== $shape) {
            $label = \sprintf('%s like %s', $reading->kind()->label(), mb_substr($file->name(), 0, 40));
            $this->memories->remember($project, $file->author(), $shape, $label, $reading->kind()->value, $reading->kept());
        }
    }

    private function say(SurveyFile $file, Reading $reading, Meaning $meaning): void
    {
        $counts = $reading->counts();
        $words = array_map(static fn (int $c, string $w): string => $c.' '.(1 === $c ? rtrim($w, 's') : $w), $counts, array_keys($counts));
        $this->title = \sprintf('Accepted %s: %s, %s', $file->name(), $reading->kind()->label(), implode(', ', $words));
        if ('project' !== $meaning->frame) {
            $this->title .= 'local' === $meaning->frame ? ', known only locally' : ', brought over from '.$meaning->frame;
        }
    }

    private function waiting(Project $project): SurveyFile
    {
        return $this->files->waiting($project, $this->file, 'is accepted already');
    }
}
