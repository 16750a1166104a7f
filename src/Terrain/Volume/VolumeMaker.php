<?php

declare(strict_types=1);

namespace App\Terrain\Volume;

use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Result\Outcome;
use App\Result\Recompute;
use App\Result\RecordNumbered;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Exchange\MeshBytes\MeshCodec;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\Contours;
use Mensura\Surface\Overlay;
use Mensura\Surface\RimSurface;
use Mensura\Surface\SurfaceCut;
use Mensura\Surface\SurfaceLine;
use Mensura\Surface\Tin;
use Mensura\Surface\Volume;
use Mensura\Surface\VolumeSlices;

/** Computes a volume and keeps its figures, its slices and what lies between as a surface of its own: the isopach. */
final class VolumeMaker implements Recompute
{
    public const PREFIX = 'volume:';

    /** Triangles of both surfaces together of which the isopach is kept; it has about three times as many. */
    public const MOST_WITH_ISOPACH = 150_000;

    public function __construct(private readonly FileStore $store, private readonly Results $results, private readonly Ledger $ledger)
    {
    }

    public static function kind(): string
    {
        return 'volume';
    }

    public function again(JobContext $context, Result $newest): void
    {
        $settings = VolumeSettings::fromArray($newest->settings);
        $this->make($context->project, $context->authorName, $newest->number(), $settings, $context->report(...));
    }

    /**
     * @param ?int                           $number   of the volume that is computed anew; null for a new one
     * @param ?\Closure(string, float): void $progress
     *
     * @return int number it is kept under
     */
    public function make(
        Project $project, string $authorName, ?int $number, VolumeSettings $settings, ?\Closure $progress = null, ?string $jobId = null,
    ): int {
        $report = $progress ?? static function (string $stage, float $fraction): void {};
        $report('surfaces', 0.05);
        [$basis, [$tin, $name, $other, $words]] = $this->results->reading(
            $project, [], $settings->slots(), fn (Project $project): array => $this->surfaces($project, $settings),
        );
        if ([] !== $settings->boundary) {
            $ring = array_map(static fn (array $v): array => [$v[0], $v[1], null], $settings->boundary);
            $boundary = new SurfaceLine(SurfaceLine::BOUNDARY, 'the boundary', $ring);
            $boundary->refuseUnusableRing();
            $tin = (new SurfaceCut($tin, [$boundary]))->cut();
            if (0 === $tin->triangleCount()) {
                throw new UnusableInput('/boundary', 'holds nothing of the surface');
            }
            $words .= ', inside a boundary';
        }
        $report('cut and fill', 0.2);
        $summary = ['name' => $settings->name, 'of' => $name, 'against' => $words];
        $size = $tin->triangleCount() + ($other instanceof Tin ? $other->triangleCount() : 0);
        if ($size > self::MOST_WITH_ISOPACH) {
            $summary += $other instanceof Tin ? Volume::againstSurface($tin, $other) : Volume::againstElevation($tin, $other);
            $output = hash('sha256', json_encode([(array) $settings, $summary], \JSON_THROW_ON_ERROR));
        } else {
            $overlay = $other instanceof Tin ? Overlay::withSurface($tin, $other) : Overlay::withElevation($tin, $other);
            $isopach = $overlay->isopach();
            $summary += Volume::ofOverlay($overlay);
            $report('slices', 0.6);
            $s = $isopach->statistics();
            $summary += [
                'thickest' => max(0.0, $s['hMax']), 'deepest' => max(0.0, -$s['hMin']),
                'depths' => VolumeSlices::byDepth($overlay, $settings->slice),
                'elevations' => VolumeSlices::byElevation($overlay, $settings->slice),
                'contours' => $this->store->putJson(Contours::of($isopach, $settings->slice)),
            ];
            $output = $this->store->put(MeshCodec::encode($isopach));
        }
        $report('keeping', 0.95);
        $outcome = new Outcome(
            self::PREFIX.$number, self::kind(), 'Volume '.$settings->name, $basis, (array) $settings, $summary, $output,
        );
        $title = 'Volume %s of %s against %s: cut %.1f m³, fill %.1f m³';
        $title = \sprintf($title, $settings->name, $name, $words, $summary['cut'], $summary['fill']);
        $record = new RecordNumbered($this->results, $outcome, 'compute-volume', $title, 'volume', ['depths', 'elevations']);
        $this->ledger->carryOut($project, $authorName, $record, $jobId);

        return $record->number;
    }

    /**
     * @return array{Tin, string, Tin|float, string} surface and its name, what it is compared with and that in words
     *
     * @throws UnusableInput
     */
    private function surfaces(Project $project, VolumeSettings $settings): array
    {
        [$tin, $name] = $this->surface($project, $settings->surface, '/surface');
        switch ($settings->against) {
            case VolumeSettings::SURFACE:
                [$other, $words] = $this->surface($project, $settings->other, '/other');

                return [$tin, $name, $other, $words];
            case VolumeSettings::RIM:
                return [$tin, $name, RimSurface::of($tin), 'the surface through its own edge'];
            default:
                return [$tin, $name, $settings->elevation, \sprintf('the elevation %.3f m', $settings->elevation)];
        }
    }

    /** @return array{Tin, string} */
    private function surface(Project $project, int $id, string $field): array
    {
        $slot = 'surface:'.$id;
        $result = $this->results->current($project)[$slot] ?? throw new UnusableInput($field, 'is not computed; compute the surface first');
        if (isset($this->results->stale($project)[$slot])) {
            throw new UnusableInput($field, 'is stale; recompute the surface first');
        }

        return [MeshCodec::decode($this->store->get($result->output)), $result->inWords()];
    }
}
