<?php

declare(strict_types=1);

namespace App\Terrain\Section;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\Export\Report;
use App\Export\ReportHead;
use App\Export\ReportPages;
use App\Export\ReportProfile;
use App\Export\WritesPages;
use App\Project\Project;
use App\Project\Shown;
use App\Reference\ProjectReference;
use Smalot\PdfParser\Parser;

/** A profile and its cross-sections, true to scale. */
final readonly class SectionPdf implements OffersChoice, Report
{
    use WritesPages;

    private const MOST_POINTS = 60;

    public function __construct(private SectionDrawing $drawing, private ProjectReference $references, private ReportHead $head)
    {
    }

    public static function key(): string
    {
        return 'section-pdf';
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Sections as PDF', 'Write the sections', 'section', 'pdf', 'application/pdf', 'Sections',
            'a profile with its cross-sections, true to scale', 42, 1,
        );
    }

    public function choices(Project $project): array
    {
        return $this->drawing->choices($project);
    }

    public function restsOn(array $surfaces): array
    {
        return [[], [SectionMaker::PREFIX.($surfaces[0] ?? 0)]];
    }

    public function pages(Project $project, array $surfaces): array
    {
        [$result, $d] = $this->drawing->of($project, $surfaces);
        $as = new Shown($project);
        $s = $result->summary;
        $page = new ReportPages($project->name().': section '.$s['name']);
        $this->head->open($page, $project, $result->slot);
        $page->sentence($project->name().', section', ReportPages::QUIET);
        $page->sentence((string) $s['name'], ReportPages::INK, 'B', 16.0);
        $page->sentence(\sprintf(
            'From station %s to %s %s, %s. Cut %s UTC by %s, run %d. Reference %s.', $as->length($d['start']),
            $as->length($d['start'] + $s['length']), $as->length, implode(', ', array_column($d['surfaces'], 'name')),
            substr(strtr($result->at(), 'T', ' '), 0, 16), $result->authorName, $result->run, $this->references->words($project),
        ), ReportPages::QUIET);
        $lines = array_map(static fn (array $x): array => [$x['name'], $x['pieces']], $d['surfaces']);
        $page->heading('Profile');
        ReportProfile::draw($page, (string) $s['name'], $lines, $as, $d['points'], $d['start']);
        if ([] !== $d['points']) {
            $page->heading('Points beside the line');
            $page->beginTable([
                ['point', 130.0, 'L'], ["station $as->length", 110.0, 'R'], ["offset, right $as->length", 110.0, 'R'],
                ["height $as->length", 90.0, 'R'],
            ]);
            foreach (\array_slice($d['points'], 0, self::MOST_POINTS) as $p) {
                $page->row([$p['name'], $as->length($d['start'] + $p['station']), $as->length($p['offset']), $as->height($p['h'])]);
            }
        }
        if ([] !== $d['crosses']) {
            $page->heading('Cross-sections');
            foreach ($d['crosses'] as $c) {
                $across = [];
                foreach ($c['surfaces'] as $k => $pieces) {
                    $across[] = [$d['surfaces'][$k]['name'], $pieces];
                }
                ReportProfile::draw($page, 'station '.$as->length($c['station']), $across, $as);
            }
        }
        $more = \count($d['points']) - self::MOST_POINTS;

        return [$page, $more > 0 ? [\sprintf('%d points in the table, which stops after %d', $more, self::MOST_POINTS)] : []];
    }

    public function check(Project $project, array $surfaces, string $path): array
    {
        [, $d] = $this->drawing->of($project, $surfaces);
        $as = new Shown($project);
        $text = (string) preg_replace('/\s+/', ' ', (new Parser())->parseFile($path)->getText());
        $cut = array_filter($d['crosses'], static fn (array $c): bool => [] !== array_filter($c['surfaces']));
        $there = array_filter($cut, static fn (array $c): bool => str_contains($text, 'station '.$as->length($c['station'])));

        return [Check::count('cross-sections that cut something', \count($cut), \count($there))];
    }
}
