<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\Report;
use App\Export\ReportPages;
use App\Export\WritesPages;
use App\Project\Project;
use App\Project\Shown;
use Mensura\Fault\UnusableInput;
use Mensura\Levelling\LevelledBook;
use Mensura\Levelling\LevelledPoint;
use Smalot\PdfParser\Parser;

/** The level report: sections and loops against their allowable, heights, and every reading. */
final readonly class LevelsPdf implements Report
{
    use WritesPages;

    /** Widths and sides of {@see LevelWords::SECTIONS}. */
    public const SECTIONS = [
        [60.0, 'L'], [62.0, 'L'], [62.0, 'L'], [42.0, 'R'], [54.0, 'R'], [66.0, 'R'], [62.0, 'R'], [58.0, 'R'], [48.0, 'R'],
    ];
    private const HEIGHTS = [['point', 110.0, 'L'], ['height', 90.0, 'R'], ['  is', 90.0, 'L'], ['run', 70.0, 'L'], ['again', 154.0, 'L']];
    private const READINGS = [
        ['setup', 40.0, 'R'], ['  sight', 74.0, 'L'], ['point', 100.0, 'L'], ['reading', 70.0, 'R'],
        ['distance', 60.0, 'R'], ['running height', 84.0, 'R'],
        ['  remark', 86.0, 'L'],
    ];

    public function __construct(private LevelRunRepository $runs, private LevelDesk $desk)
    {
    }

    public static function key(): string
    {
        return 'levels-pdf';
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Level report', 'Write the level report', 'levels', 'pdf', 'application/pdf', 'Level report',
            'sections and loops against their allowable, heights, readings', 32,
        );
    }

    public function restsOn(array $chosen): array
    {
        return [['levels'], []];
    }

    public function pages(Project $project, array $chosen): array
    {
        if ([] === $this->runs->all($project)) {
            throw new UnusableInput('', 'the levelling book is empty; write a run on the Levels page of the network first');
        }
        $book = $this->desk->work($project);
        $as = new Shown($project);
        $page = new ReportPages($project->name().': level report');
        $failed = \count(array_filter($book->sections, static fn ($s): bool => false === $s->passed))
            + \count(array_filter($book->loops, static fn ($l): bool => false === $l->passed));
        $page->sentence($project->name().', level report', ReportPages::QUIET);
        $page->sentence(0 === $failed ? 'Every section that can be tested closes' : \sprintf(
            '%d of the closures exceed%s what is allowed', $failed, 1 === $failed ? 's' : '',
        ), ReportPages::INK, 'B', 16.0);
        $page->Ln(2.0);
        $page->sentence($this->settings($project, $as), ReportPages::QUIET);
        self::sections($page, $book, $as);
        foreach ($book->warnings as $warning) {
            $page->sentence($warning, ReportPages::BAD);
        }
        $page->heading('Heights');
        $page->beginTable(self::HEIGHTS);
        foreach ($book->points as $p) {
            $again = array_map(static fn (array $a): string => $as->small($a['difference'], true).' ('.$a['run'].')', $p->again);
            $page->row([
                $p->id, $as->height($p->h), '  '.$p->role.($p->adjusted ? ', shared' : ''), (string) $p->run,
                implode(', ', $again),
            ]);
        }
        $this->readings($page, $project, $as);

        return [$page, []];
    }

    private function settings(Project $project, Shown $as): string
    {
        $s = $this->desk->core($project);
        $benchmarks = [];
        foreach ($this->desk->benchmarks($project) as $id => $h) {
            $benchmarks[] = substr($id, 1).' '.$as->height($h);
        }

        return \sprintf(
            'Allowable %s %s times the root of the %s; misclosures shared out by %s; %s; staff %.1f ppm. %s. Benchmarks: %s.',
            $as->small((float) $s->allowable), $as->smallUnit(), 'km' === $s->per ? 'kilometres' : 'setups',
            'length' === $s->distribute ? 'length' : 'setups',
            $s->curvature ? 'corrected for curvature and refraction' : 'without curvature',
            $s->scalePpm, ucfirst($as->lengthName()), implode(', ', \array_slice($benchmarks, 0, 30)),
        );
    }

    private static function sections(ReportPages $page, LevelledBook $book, Shown $as): void
    {
        $page->heading('Sections');
        self::closures($page, LevelWords::sections($book, $as), LevelWords::loops($book, $as));
    }

    /**
     * @param list<array{cells: list<string>, fails: bool}> $sections
     * @param list<array{words: string, fails: bool}>       $loops
     */
    public static function closures(ReportPages $page, array $sections, array $loops): void
    {
        $page->beginTable(array_map(static fn (string $title, array $as): array => [$title, ...$as], LevelWords::SECTIONS, self::SECTIONS));
        foreach ($sections as $row) {
            $page->row($row['cells'], $row['fails']);
        }
        foreach ($loops as $loop) {
            $page->sentence($loop['words'], $loop['fails'] ? ReportPages::BAD : ReportPages::INK);
        }
    }

    private function readings(ReportPages $page, Project $project, Shown $as): void
    {
        foreach ($this->runs->all($project) as $run) {
            $page->heading('Run '.$run->name.', '.$run->pattern);
            $page->beginTable(self::READINGS);
            $draft = $this->desk->draft($project, $run->pattern, $run->rows);
            foreach ($run->rows as $i => $row) {
                $d = $draft->rows[$i];
                $remark = $d['fault'] ?? (null !== $d['misclosure'] ? 'closes by '.$as->small(
                    $d['misclosure'], true,
                ) : ($d['isBeyond'] ? 'repeats too far' : ''));
                $page->row([
                    (string) $d['setup'], '  '.$row['kind'], $row['point'], null === $row['reading'] ? '' : $as->length($row['reading']),
                    null === $row['distance'] ? '' : \sprintf('%.1f', $row['distance']),
                    null === $d['h'] ? '' : $as->height($d['h']), '  '.$remark,
                ], null !== $d['fault'] || $d['isBeyond']);
            }
        }
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $book = $this->desk->work($project);
        $as = new Shown($project);
        $plain = (string) preg_replace('/\s+/', ' ', (new Parser())->parseFile($path)->getText());
        $isThere = static fn (LevelledPoint $p): bool => str_contains($plain, $p->id) && str_contains($plain, $as->height($p->h));

        return [Check::count('points with their heights', \count($book->points), \count(array_filter($book->points, $isThere)))];
    }
}
