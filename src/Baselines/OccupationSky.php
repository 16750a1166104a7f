<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Baselines\View\SkyRow;
use App\Baselines\View\SkyView;
use App\Project\Project;
use App\Store\FileStore;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\Packed;
use Mensura\Exchange\Rinex\Tracking;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/** The satellites of an occupation as its strip shows them. */
final readonly class OccupationSky
{
    private const CELLS = 60;

    public function __construct(private OccupationRepository $occupations, private FileStore $store)
    {
    }

    public function of(Project $project, int $occupation): SkyView
    {
        $o = $this->occupations->in($project, $occupation) ?? throw new NotFoundHttpException('There is no such occupation.');
        $bytes = Packed::contents($this->store->get($o->file->sha256()), $o->file->name());
        $tracking = new Tracking(ObservationReader::read($bytes, $o->file->name()), self::CELLS);
        $rows = [];
        foreach ($tracking->satellites as $id => $row) {
            $rows[] = new SkyRow((string) $id, $row['tracked'], $row['strength'], $row['lost']);
        }

        return new SkyView($o->recorded()->from, $tracking->span, $tracking->count, $rows);
    }
}
