<?php

declare(strict_types=1);

namespace App\Export;

use App\Project\Project;
use Symfony\Component\DependencyInjection\Attribute\Exclude;

/** A report as HTML: the same pages, read on a screen. */
#[Exclude]
final class HtmlTwin implements OffersChoice
{
    public const ENDING = '-html';

    public function __construct(private readonly Report $report)
    {
    }

    public static function key(): string
    {
        throw new \LogicException('A twin is called after its report.');
    }

    public function about(): ExportAbout
    {
        $a = $this->report->about();
        $label = preg_replace('/ as PDF$/', '', $a->label).' as HTML';

        return new ExportAbout($label, $a->doing, $a->what, 'html', 'text/html; charset=utf-8', $a->title, $a->holds, $a->place, $a->takes);
    }

    public function choices(Project $project): array
    {
        return $this->report instanceof OffersChoice ? $this->report->choices($project) : [];
    }

    public function restsOn(array $chosen): array
    {
        return $this->report->restsOn($chosen);
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        [$page, $leftOut] = $this->report->pages($project, $chosen);
        file_put_contents($path, $page->html());

        return $leftOut;
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        [$page] = $this->report->pages($project, $chosen);
        $document = new \DOMDocument();
        $isRead = $document->loadHTML((string) file_get_contents($path), \LIBXML_NOERROR | \LIBXML_NONET);
        $rows = 0;
        foreach ($isRead ? $document->getElementsByTagName('tr') : [] as $tr) {
            $rows += (int) ('note' !== $tr->getAttribute('class') && null === $tr->getElementsByTagName('th')->item(0));
        }

        return [Check::count('rows of tables', $page->rows(), $rows)];
    }
}
