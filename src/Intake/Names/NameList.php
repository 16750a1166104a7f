<?php

declare(strict_types=1);

namespace App\Intake\Names;

use App\Intake\Format\Formats;
use App\Intake\Meaning;
use App\Intake\Placer;
use App\Intake\PlainName;
use App\Intake\View\NameQuestionView;
use App\Project\Project;
use App\Survey\Point;
use App\Survey\PointRepository;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Fault\UnusableInput;

/** Every name of the waiting files that may be another mark's, in one list across all of them. */
final class NameList
{
    /** Metres in plan within which two names are asked about; a tripod is set up closer. */
    private const NEAR = 0.10;
    /** Metres in plan or height beyond which two determinations of one name are asked about; centring explains less. */
    private const SAME = 0.02;
    /** Bytes: what is larger is a surface, not a list of marks. */
    private const LARGEST_FILE = 1 << 20;
    private const MOST = 300;

    public function __construct(
        private readonly SurveyFileRepository $files,
        private readonly PointRepository $points,
        private readonly Formats $formats,
        private readonly Placer $placer,
    ) {
    }

    /** @return list<NameQuestionView> */
    public function of(Project $project): array
    {
        $seen = new Marks(self::NEAR);
        foreach ($this->points->known($project, $project->isPlane() ? Point::LOCALLY : Point::GLOBALLY) as $p) {
            $seen->add($p->name, $p->e, $p->n, $p->h, 'the project');
        }
        $questions = [];
        foreach ($this->files->of($project) as $file) {
            if (!$file->isWaiting() || $file->size() > self::LARGEST_FILE || \count($questions) >= self::MOST) {
                continue;
            }
            $marks = $this->marks($project, $file);
            foreach ($marks as $name => $mark) {
                array_push($questions, ...$this->asked($file, (string) $name, $mark, $seen));
            }
            foreach ($marks as $name => [$e, $n, $h]) {
                $seen->add((string) $name, $e, $n, $h, $file->name());
            }
        }

        return \array_slice($questions, 0, self::MOST);
    }

    /**
     * @param array{?float, ?float, ?float} $mark
     *
     * @return list<NameQuestionView>
     */
    private function asked(SurveyFile $file, string $name, array $mark, Marks $seen): array
    {
        $from = array_search($name, $file->names(), true);
        $asked = \is_string($from) ? $from : $name;
        $answer = $file->names()[$asked] ?? null;
        if ($seen->has($asked)) {
            // The same name is the same mark; two determinations that lie apart are asked about.
            $other = $seen->named($asked, $mark);
            $isApart = null !== $other && max(abs($other->plan ?? 0.0), abs($other->height ?? 0.0)) > self::SAME;

            return $isApart || null !== $answer && null !== $other ? [self::question($file, $asked, $other, $answer)] : [];
        }
        $other = null !== $answer && $answer !== $asked ? $seen->named($answer, $mark) : $seen->like($asked, $mark);

        return null === $other ? [] : [self::question($file, $asked, $other, $answer)];
    }

    private static function question(SurveyFile $file, string $name, Mark $other, ?string $answer): NameQuestionView
    {
        $alike = PlainName::of($name) === PlainName::of($other->name);

        return new NameQuestionView(
            $file->id(), $file->name(), $name, $other->name, $other->where, $alike, $other->plan, $other->height, $answer,
        );
    }

    /** @return array<string, array{?float, ?float, ?float}> e, n, h by name, as far as the file places them */
    private function marks(Project $project, SurveyFile $file): array
    {
        try {
            $reading = $this->formats->read($file);
        } catch (UnusableInput) {
            return []; // its preview says why
        }
        $marks = [];
        $placed = $this->placer->place($project, $reading, Meaning::fromArray($file->meaning()));
        foreach ($reading->kind()->hasMarks() ? $placed->records : [] as $r) {
            $marks[$r->name] = [$r->e, $r->n, $r->h];
        }
        foreach ($reading->observations() as $o) {
            $marks[$o->from] ??= [null, null, null];
            $marks[$o->to] ??= [null, null, null];
        }

        return $marks;
    }
}
