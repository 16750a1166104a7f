<?php

declare(strict_types=1);

namespace App\Clouds\Export;

use App\Clouds\Pass\MadePasses;
use App\Clouds\Pass\PassMaker;
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
use App\Store\FileStore;
use Mensura\Fault\UnusableInput;
use Mensura\Passes\PassComparison;
use Mensura\Passes\Station;
use Mensura\Passes\StationShift;
use Smalot\PdfParser\Parser;

/** The report of a pass laid onto another: how well both agree, control and check points, every station. */
final readonly class PassPdf implements OffersChoice, Report
{
    use WritesPages;

    /** Why a station is left out, in words. */
    private const REASONS = [
        Station::NO_POINTS => 'few points', Station::NO_REFERENCE => 'not seen', StationShift::GEOMETRY => 'plain walls',
        StationShift::AGREEMENT => 'does not fit', StationShift::TOO_FAR => 'too far off', Station::OUTLIER => 'off neighbours',
    ];

    public function __construct(
        private MadePasses $passes, private FileStore $store, private ProjectReference $references, private ReportHead $head,
    ) {
    }

    public static function key(): string
    {
        return 'pass-pdf';
    }

    public function about(): ExportAbout
    {
        return new ExportAbout(
            'Pass report', 'Write the pass report', 'pass', 'pdf', 'application/pdf', 'Pass report',
            'how well two drives agree, control and check points, every station', 44, 1,
        );
    }

    public function choices(Project $project): array
    {
        return array_map(static fn (Result $r): string => (string) $r->summary['name'], $this->passes->of($project));
    }

    public function restsOn(array $chosen): array
    {
        return [[], [PassMaker::PREFIX.($chosen[0] ?? 0)]];
    }

    public function pages(Project $project, array $chosen): array
    {
        $result = $this->chosen($project, $chosen);
        $figures = $this->store->getJson($result->output);
        $s = $result->summary;
        $as = new Shown($project);
        $mm = $as->smallUnit();
        $isCorrected = PassComparison::CORRECTED === $s['status'];
        $page = new ReportPages($project->name().': pass '.$s['name']);
        $this->head->open($page, $project, $result->slot);
        $page->sentence($project->name().', pass report', ReportPages::QUIET);
        $page->sentence((string) $s['name'], ReportPages::INK, 'B', 16.0);
        $isLaidOnto = '' !== $s['onto'];
        $page->sentence(match (true) {
            !$isCorrected => 'Not corrected: '.$s['reason'],
            $isLaidOnto => \sprintf('Both drives agree to %s %s.', $as->small((float) $s['rmsAfter']), $mm),
            default => \sprintf('Registered to control points, seen %d times.', $s['control']['count'] ?? 0),
        }, ReportPages::INK, 'B', 11.0);
        $page->sentence($this->agreement($s, $as), ReportPages::QUIET);
        $page->sentence(!$isLaidOnto ? \sprintf(
            '%s follows its control points; the greatest correction is %s %s.', $s['of'], $as->length((float) $s['greatest']), $as->length,
        ) : \sprintf(
            '%s was compared with %s at %d places; %d are used.%s', $s['of'], $s['onto'], $s['stations'], $s['used'],
            $isCorrected ? \sprintf(
                ' Before they agreed to %s %s; the greatest correction is %s %s.', $as->small((float) $s['rmsBefore']), $mm,
                $as->length((float) $s['greatest']), $as->length,
            ) : '',
        ));
        $page->sentence(\sprintf(
            '%s of its trajectory is in use. Compared %s UTC by %s. Reference %s.',
            $isCorrected ? 'Version '.$result->run : 'The first version', substr(strtr($result->at(), 'T', ' '), 0, 16),
            $result->authorName, $this->references->words($project),
        ), ReportPages::QUIET);
        $three = static fn (?array $v): array => null === $v ? ['', '', '']
            : array_map(static fn (float $d): string => $as->small($d), array_values($v));
        $targets = (array) ($figures['targets'] ?? []);
        if ([] !== $targets) {
            $page->heading('Control and check points, given minus seen');
            $page->beginTable([
                ['point', 80.0, 'L'], ['is', 50.0, 'L'], ['time s', 70.0, 'R'], ["before: de $mm", 70.0, 'R'], ["dn $mm", 45.0, 'R'],
                ["dh $mm", 45.0, 'R'], ["after: de $mm", 65.0, 'R'], ["dn $mm", 45.0, 'R'], ["dh $mm", 45.0, 'R'],
            ]);
            foreach ($targets as $t) {
                $page->row([
                    $t['target'], $t['role'], \sprintf('%.2f', $t['time']), ...$three($t['before']), ...$three($t['after']),
                ]);
            }
        }
        if ([] === $figures['stations']) {
            return [$page, []];
        }
        $page->heading('Stations along the pass');
        $page->beginTable([
            ['', 25.0, 'R'], ["easting $as->length", 80.0, 'R'], ["northing $as->length", 85.0, 'R'], ["east $mm", 50.0, 'R'],
            ["north $mm", 50.0, 'R'], ["height $mm", 55.0, 'R'], ["before $mm", 55.0, 'R'], ["after $mm", 50.0, 'R'], ['', 70.0, 'L'],
        ]);
        foreach ($figures['stations'] as $k => $station) {
            $page->row([
                (string) ($k + 1), $as->length((float) $station['e']), $as->length((float) $station['n']), ...$three($station['shift']),
                null === $station['rmsBefore'] ? '' : $as->small((float) $station['rmsBefore']),
                null === $station['rmsAfter'] ? '' : $as->small((float) $station['rmsAfter']),
                $station['used'] ? 'used' : self::REASONS[$station['reason']] ?? (string) $station['reason'],
            ]);
        }

        return [$page, []];
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        ['stations' => $stations, 'targets' => $targets] = $this->store->getJson($this->chosen($project, $chosen)->output);
        $text = (string) preg_replace('/\s+/', ' ', (new Parser())->parseFile($path)->getText());
        $as = new Shown($project);
        $there = array_filter($stations, static fn (array $s): bool => str_contains($text, $as->length((float) $s['e'])));

        $seen = array_filter($targets, static fn (array $t): bool => str_contains($text, (string) $t['target']));

        return [
            Check::count('stations', \count($stations), \count($there)), Check::count('targets', \count($targets), \count($seen)),
        ];
    }

    /**
     * How far control and check points are off, in words.
     *
     * @param array<string, mixed> $s summary
     */
    private function agreement(array $s, Shown $as): string
    {
        $mm = $as->smallUnit();
        $words = [];
        foreach (['check' => 'check points', 'control' => 'control points'] as $role => $name) {
            if (null !== $of = $s[$role] ?? null) {
                $words[] = \sprintf(
                    '%d %s of %s: off by %s %s in plan and %s %s in height (rms; before %s and %s).', $of['count'],
                    1 === $of['count'] ? 'sighting' : 'sightings', $name, $as->small($of['after'][0]), $mm,
                    $as->small($of['after'][1]), $mm, $as->small($of['before'][0]),
                    $as->small($of['before'][1]),
                );
            }
        }
        if (null !== $of = $s['without'] ?? null) {
            $words[] = \sprintf(
                'Each control point against what the others say: %s %s in plan, %s %s in height.', $as->small($of[0]), $mm,
                $as->small($of[1]), $mm,
            );
        }

        return [] === $words ? 'No control or check point is marked.' : implode(' ', $words);
    }

    /** @param list<int> $chosen */
    private function chosen(Project $project, array $chosen): Result
    {
        return $this->passes->of($project)[$chosen[0] ?? 0] ?? throw new UnusableInput('/surfaces', 'names no pass that there is');
    }
}
