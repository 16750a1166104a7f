<?php

declare(strict_types=1);

namespace App\Network\Report;

use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\ExportKind;
use App\Network\Adjuster;
use App\Network\NetworkReport;
use App\Network\View\RowView;
use App\Network\View\StationView;
use App\Project\Project;
use App\Reference\ProjectReference;
use App\Result\Results;
use Dompdf\Dompdf;
use Dompdf\Options;
use Mensura\Fault\UnusableInput;
use Mensura\Quantity\Angle;
use Smalot\PdfParser\Parser;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Twig\Environment;

/** The adjustment report as PDF. */
final class AdjustmentPdf implements ExportKind
{
    private const WORST_ROWS = 400;

    public function __construct(
        private readonly NetworkReport $network,
        private readonly Results $results,
        private readonly Environment $twig,
        private readonly ProjectReference $references,
        #[Autowire('%kernel.project_dir%')] private readonly string $root,
    ) {
    }

    public static function key(): string
    {
        return 'pdf';
    }

    public function about(): ExportAbout
    {
        return new ExportAbout('Adjustment report', 'Write the adjustment report', 'adjustment', 'pdf', 'application/pdf');
    }

    public function restsOn(array $surfaces): array
    {
        return [[], [Adjuster::SLOT]];
    }

    public function write(Project $project, array $surfaces, string $path): array
    {
        $result = $this->results->current($project)[Adjuster::SLOT] ?? null;
        if (null === $result) {
            throw new UnusableInput('', 'there is no adjustment to report; adjust the network first');
        }
        $view = $this->network->of($project);
        $rows = array_filter($view->rows, static fn (RowView $r): bool => $r->used);
        usort($rows, static fn (RowView $a, RowView $b): int => abs($b->standardized ?? 0.0) <=> abs($a->standardized ?? 0.0));
        $aside = array_values(array_filter($view->rows, static fn (RowView $r): bool => !$r->used));
        file_put_contents($path, $this->pdf($this->twig->render('report/adjustment.html.twig', [
            'project' => $project, 'reference' => $this->references->words($project), 'network' => $view, 'run' => $view->runs[0],
            'rows' => array_map(self::row(...), \array_slice($rows, 0, self::WORST_ROWS)), 'aside' => array_map(self::row(...), $aside),
            'total' => \count($rows), 'sketch' => 'data:image/svg+xml;base64,'.base64_encode(NetworkSketch::svg($view)), 'inputs' => $result->inputs,
        ])));
        $more = \count($rows) - self::WORST_ROWS;

        return $more > 0 ? [\sprintf('%d observations below the %d worst', $more, self::WORST_ROWS)] : [];
    }

    private function pdf(string $html): string
    {
        $options = new Options();
        $options->setIsRemoteEnabled(false);
        $options->setIsPhpEnabled(false);
        $options->setChroot([$this->root.'/templates']);
        $options->setTempDir(sys_get_temp_dir());
        $options->setDefaultFont('Helvetica');
        $pdf = new Dompdf($options);
        $pdf->loadHtml($html);
        $pdf->setPaper('A4');
        $pdf->render();
        $font = (string) $pdf->getFontMetrics()->getFont('Helvetica');
        $pdf->getCanvas()->page_text(500, 812, '{PAGE_NUM} / {PAGE_COUNT}', $font, 7);

        return (string) $pdf->output();
    }

    public function check(Project $project, array $surfaces, string $path): array
    {
        $view = $this->network->of($project);
        $text = (new Parser())->parseFile($path)->getText();
        $plain = preg_replace('/\s+/', ' ', $text) ?? '';
        $isThere = static fn (StationView $s): bool => str_contains($plain, $s->name.' ')
            && str_contains($plain, \sprintf('%.4f', $s->e)) && str_contains($plain, \sprintf('%.4f', $s->h));
        $factor = $view->runs[0]->varianceFactor;

        return [
            Check::count('stations with their coordinates', \count($view->stations), \count(array_filter($view->stations, $isThere))),
            Check::count('verdict', 1, (int) str_contains($plain, $view->runs[0]->headline)),
            Check::count('variance factor', null === $factor ? 0 : 1, null === $factor ? 0 : (int) str_contains($plain, \sprintf('%.2f', $factor))),
        ];
    }

    /** @return array<string, string> */
    private static function row(RowView $r): array
    {
        $angular = \in_array($r->kind, ['direction', 'zenith', 'azimuth', 'angle'], true);

        return [
            'kind' => $r->kind.(null === $r->component ? '' : ' '.$r->component), 'at' => $r->at.('' === $r->set || 'vector' === $r->kind ? '' : '/'.$r->set), 'to' => $r->to,
            'observed' => $angular ? Angle::format($r->observed) : \sprintf('%.4f', $r->observed),
            'residual' => null === $r->residual ? '' : ($angular ? \sprintf('%+.1f"', 3600.0 * $r->residual) : \sprintf('%+.1f mm', 1000.0 * $r->residual)),
            'standardized' => null === $r->standardized ? '' : \sprintf('%+.2f', $r->standardized), 'redundancy' => null === $r->redundancy ? '' : \sprintf('%.2f', $r->redundancy),
            'mdb' => null === $r->detectable ? '' : ($angular ? \sprintf('%.1f"', 3600.0 * $r->detectable) : \sprintf('%.1f mm', 1000.0 * $r->detectable)),
            'source' => (string) $r->file.(null === $r->line ? '' : ' '.$r->line), 'reason' => $r->reason, 'by' => (string) $r->asideBy, 'when' => substr((string) $r->asideAt, 0, 10), 'flagged' => $r->flagged ? '1' : '',
        ];
    }
}
