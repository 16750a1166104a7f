<?php

declare(strict_types=1);

namespace App\Checks\CheckPoint;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\Export\Report;
use App\Export\ReportHead;
use App\Export\ReportPages;
use App\Export\WritesPages;
use App\Project\Project;
use App\Project\Shown;
use App\Reference\ProjectReference;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Deviation\CheckAccuracy;
use Mensura\Fault\UnusableInput;
use Smalot\PdfParser\Parser;

/** The check point report: accuracy at 95 %, root mean squares, every difference. */
final readonly class CheckPointPdf implements OffersChoice, Report
{
    use WritesPages;

    private const AXES = ['e' => 'easting', 'n' => 'northing', 'h' => 'height'];

    public function __construct(
        private Results $results, private FileStore $store, private ProjectReference $references, private ReportHead $head,
    ) {
    }

    public static function key(): string
    {
        return 'check-pdf';
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Check point report', 'Write the check point report', 'check-points', 'pdf', 'application/pdf', 'Check point report',
            'accuracy at 95 %, root mean squares, every difference', 43, 1,
        );
    }

    public function choices(Project $project): array
    {
        $names = [];
        foreach ($this->results->current($project) as $slot => $result) {
            if (str_starts_with($slot, CheckPointMaker::PREFIX)) {
                $names[$result->number()] = (string) $result->summary['name'];
            }
        }
        ksort($names);

        return $names;
    }

    public function restsOn(array $surfaces): array
    {
        return [[], [CheckPointMaker::PREFIX.($surfaces[0] ?? 0)]];
    }

    public function pages(Project $project, array $surfaces): array
    {
        [$result, $points] = $this->chosen($project, $surfaces);
        $view = CheckPointPage::view($result, []);
        $as = new Shown($project);
        $mm = $as->smallUnit();
        $page = new ReportPages($project->name().': check points of '.$view->name);
        $this->head->open($page, $project, $result->slot);
        $page->sentence($project->name().', check point report', ReportPages::QUIET);
        $page->sentence($view->name, ReportPages::INK, 'B', 16.0);
        $page->sentence(self::verdict($view->horizontal, $view->vertical, $as), ReportPages::INK, 'B', 11.0);
        $page->sentence(\sprintf(
            '%d of %d check points compared with %s. Differences are computed minus known. Check points are held out of every adjustment '
            .'and surface.', $view->used, $view->count, $view->against,
        ));
        $page->sentence(\sprintf(
            'Accuracy at 95 %% after FGDC-STD-007.3-1998: vertical 1.9600 times the root mean square, horizontal 2.4477 times the mean of '
            .'those of easting and northing.%s Compared %s UTC by %s, run %d. Reference %s.',
            $view->used < CheckAccuracy::ENOUGH ? \sprintf(' The standard asks for %d points or more.', CheckAccuracy::ENOUGH) : '',
            substr(strtr($view->at, 'T', ' '), 0, 16), $view->author, $view->run, $this->references->words($project),
        ), ReportPages::QUIET);
        $page->heading('Figures');
        $page->beginTable([
            ['', 90.0, 'L'], ['points', 50.0, 'R'], ["mean $mm", 70.0, 'R'], ["root mean square $mm", 100.0, 'R'], ["sd $mm", 70.0, 'R'],
            ["least $mm", 65.0, 'R'], ["greatest $mm", 65.0, 'R'],
        ]);
        foreach ($view->axes as $a) {
            $page->row([
                self::AXES[$a->axis], (string) $a->count, $as->small($a->mean), $as->small($a->rms),
                null === $a->sd ? '' : $as->small($a->sd), $as->small($a->min), $as->small($a->max),
            ]);
        }
        $page->heading('Check points');
        $page->beginTable([
            ['point', 90.0, 'L'], ["easting $as->length", 85.0, 'R'], ["northing $as->length", 90.0, 'R'],
            ["height $as->length", 65.0, 'R'], ['measured as', 75.0, 'L'], ["de $mm", 35.0, 'R'],
            ["dn $mm", 35.0, 'R'], ["dh $mm", 35.0, 'R'],
        ]);
        $small = static fn (?float $d): string => null === $d ? '' : $as->small($d);
        foreach ($points as $p) {
            $page->row([
                $p['name'], null === $p['e'] ? '' : $as->length($p['e']), null === $p['n'] ? '' : $as->length($p['n']),
                null === $p['h'] ? '' : $as->height($p['h']), $p['by'], $small($p['de']), $small($p['dn']), $small($p['dh']),
            ]);
        }

        return [$page, []];
    }

    public function check(Project $project, array $surfaces, string $path): array
    {
        [, $points] = $this->chosen($project, $surfaces);
        $text = (string) preg_replace('/\s+/', ' ', (new Parser())->parseFile($path)->getText());
        $there = array_filter($points, static fn (array $p): bool => str_contains($text, $p['name']));

        return [Check::count('check points', \count($points), \count($there))];
    }

    /** The answer first. */
    private static function verdict(?float $horizontal, ?float $vertical, Shown $as): string
    {
        $parts = [];
        if (null !== $horizontal) {
            $parts[] = \sprintf('%s %s in plan', $as->small($horizontal), $as->smallUnit());
        }
        if (null !== $vertical) {
            $parts[] = \sprintf('%s %s in height', $as->small($vertical), $as->smallUnit());
        }

        return [] === $parts ? 'Nothing could be compared.' : 'Accurate to '.implode(' and ', $parts).' at 95 %.';
    }

    /**
     * @param list<int> $surfaces
     *
     * @return array{Result, list<array{name: string, e: ?float, n: ?float, h: ?float, by: string, de: ?float, dn: ?float, dh: ?float}>}
     */
    private function chosen(Project $project, array $surfaces): array
    {
        $result = $this->results->current($project)[CheckPointMaker::PREFIX.($surfaces[0] ?? 0)]
            ?? throw new UnusableInput('/surfaces', 'names no check that there is');

        return [$result, $this->store->getJson($result->output)['points']];
    }
}
