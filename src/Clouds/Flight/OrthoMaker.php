<?php

declare(strict_types=1);

namespace App\Clouds\Flight;

use App\Clouds\WorkFolder;
use App\Job\JobContext;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Reference\ProjectReference;
use App\Result\Outcome;
use App\Result\Recompute;
use App\Result\RecordNumbered;
use App\Result\Result;
use App\Result\Results;
use App\Store\FileStore;
use Mensura\Exchange\FlightJson\Mission;
use Mensura\Exchange\GeoTiff\GeoTiffWriter;
use Mensura\Fault\UnusableInput;
use Mensura\Flight\ElevationModel;
use Mensura\Flight\OrientedImages;
use Mensura\Flight\Orthoimage;

/** Heights and an orthoimage of an adjusted flight, as GeoTIFF in a zip. */
final class OrthoMaker implements Recompute
{
    public const PREFIX = 'ortho:';
    public const HEIGHTS = 'heights.tif';
    public const IMAGE = 'orthoimage.tif';
    public const PICTURE = 'picture.jpg';

    private const MOST_CELLS = 4_000_000;
    private const MOST_PIXELS = 60_000_000;
    private const PICTURE_SIZE = 1400;
    /** Ground pixels of a cell. */
    private const CELL = 4.0;

    public function __construct(
        private readonly FlightFiles $files, private readonly FileStore $store, private readonly Results $results,
        private readonly Ledger $ledger, private readonly ProjectReference $references,
    ) {
    }

    public static function kind(): string
    {
        return 'ortho';
    }

    public function again(JobContext $context, Result $newest): void
    {
        $settings = OrthoSettings::fromArray($newest->settings);
        $this->make($context->project, $context->authorName, $newest->number(), $settings, $context->report(...), $context->jobId);
    }

    /**
     * @param ?\Closure(string, float): void $progress
     *
     * @return int number it is kept under
     *
     * @throws UnusableInput
     */
    public function make(
        Project $project, string $authorName, ?int $number, OrthoSettings $settings, ?\Closure $progress = null, ?string $jobId = null,
    ): int {
        $report = $progress ?? static function (string $stage, float $fraction): void {};
        $slot = FlightMaker::PREFIX.$settings->flight;
        [$basis, [$mission, $paths, $flight, $points, $system]] = $this->results->reading(
            $project, [], [$slot], function (Project $project) use ($slot): array {
                $flight = $this->results->current($project)[$slot] ?? throw new UnusableInput('/flight', 'there is no such flight');
                if (isset($this->results->stale($project)[$slot])) {
                    throw new UnusableInput('/flight', 'is stale; adjust it again first');
                }
                [$mission] = $this->files->mission($project, FlightSettings::fromArray($flight->settings)->mission);
                $system = $this->references->of($project);
                $code = null !== $system && 1.0 === $system->unit ? (string) $system->code : '';

                return [
                    $mission, $this->files->paths($project, $mission), $flight,
                    array_column($this->files->markable($project), null, 'name'),
                    1 === preg_match('/^EPSG:(\d+)$/D', $code, $m) ? (int) $m[1] : null,
                ];
            },
        );
        $figures = $this->store->getJson($flight->output);
        $images = self::oriented($mission, $figures);
        $held = ImagesHeld::of($mission, $images, $paths, static fn (float $of) => $report('reading images', 0.01 + 0.08 * $of));
        [$box, $between] = self::reach($figures['tiePoints']);
        $ground = $images->groundPixel(0.5 * ($between[0] + $between[1]));
        $cell = $settings->cell ?? self::round(self::CELL * $held->scale * $ground);
        $pixel = $settings->pixel ?? self::round($ground);
        $area = ($box[2] - $box[0]) * ($box[3] - $box[1]);
        if ($area / $cell ** 2 > self::MOST_CELLS || $area / $pixel ** 2 > self::MOST_PIXELS) {
            throw new UnusableInput('/cell', 'makes more cells or pixels than are held at once; take larger ones');
        }
        $model = ElevationModel::of(
            $images, $held->grey, $box, $between, $cell, static fn (float $of) => $report('heights', 0.1 + 0.6 * $of),
        );
        $held->letGo();
        [$columns, $rows, $rgba] = Orthoimage::of(
            $images, $model, $held->open(...), $pixel, static fn (float $of) => $report('orthoimage', 0.7 + 0.2 * $of),
        );
        $report('keeping', 0.95);
        $output = $this->kept($model, $columns, $rows, $rgba, $pixel, $system);
        $off = [];
        foreach ($figures['known'] as $k) {
            $point = $points[$k['id']] ?? null;
            $h = null === $point ? null : $model->at($point['e'], $point['n']);
            if (null !== $point && null !== $h) {
                $off[] = ['id' => $k['id'], 'role' => $k['role'], 'off' => $h - $point['h']];
            }
        }
        $summary = [
            'name' => $settings->name, 'of' => (string) $flight->summary['name'], 'cell' => $cell, 'pixel' => $pixel,
            'columns' => $columns, 'rows' => $rows, 'completeness' => $model->completeness(),
            'box' => [$model->west, $model->north - $model->rows * $cell, $model->west + $model->columns * $cell, $model->north],
            'known' => $off,
        ];
        $outcome = new Outcome(
            self::PREFIX.$number, self::kind(), 'Orthoimage '.$settings->name, $basis, (array) $settings, $summary, $output,
        );
        $title = \sprintf('Orthoimage %s of flight %s: %d × %d pixels of %.3f m', $settings->name, $summary['of'], $columns, $rows, $pixel);
        $record = new RecordNumbered($this->results, $outcome, 'make-ortho', $title, 'orthoimage', ['known']);
        $this->ledger->carryOut($project, $authorName, $record, $jobId);

        return $record->number;
    }

    /** @param array<string, mixed> $figures of a flight */
    public static function oriented(Mission $mission, array $figures): OrientedImages
    {
        $positions = $rotations = [];
        foreach ($figures['images'] as $i => $image) {
            if (null !== $image['position']) {
                $positions[$i] = $image['position'];
                $rotations[$i] = $image['rotation'];
            }
        }

        return new OrientedImages($figures['camera'], $positions, $rotations, $mission->width, $mission->height);
    }

    /**
     * What the tie points cover, and the heights they lie between, with room about them.
     *
     * @param list<float> $places
     *
     * @return array{array{float, float, float, float}, array{float, float}}
     *
     * @throws UnusableInput
     */
    private static function reach(array $places): array
    {
        $e = $n = $h = [];
        foreach (array_chunk($places, 3) as [$x, $y, $z]) {
            [$e[], $n[], $h[]] = [$x, $y, $z];
        }
        if (\count($h) < 20) {
            throw new UnusableInput('/flight', 'has too few tie points to say where the ground is');
        }
        sort($h);
        $room = 0.05 * ($h[(int) (0.99 * \count($h))] - $h[(int) (0.01 * \count($h))]) + 1.0;

        return [
            [min($e), min($n), max($e), max($n)], [$h[(int) (0.005 * \count($h))] - $room, $h[(int) (0.995 * (\count($h) - 1))] + $room],
        ];
    }

    /** To two figures. */
    private static function round(float $v): float
    {
        $power = 10.0 ** (floor(log10($v)) - 1.0);

        return round($v / $power) * $power;
    }

    private function kept(ElevationModel $model, int $columns, int $rows, string $rgba, float $pixel, ?int $system): string
    {
        $folder = WorkFolder::make();
        try {
            GeoTiffWriter::heights(
                $folder->path.'/'.self::HEIGHTS, $model->columns, $model->rows, $model->h, $model->west, $model->north, $model->cell,
                $system,
            );
            GeoTiffWriter::colours($folder->path.'/'.self::IMAGE, $columns, $rows, $rgba, $model->west, $model->north, $pixel, $system);
            self::picture($folder->path.'/'.self::PICTURE, $columns, $rows, $rgba);
            $zip = new \ZipArchive();
            $zip->open($folder->path.'/all.zip', \ZipArchive::CREATE);
            foreach ([self::HEIGHTS, self::IMAGE, self::PICTURE] as $name) {
                $zip->addFile($folder->path.'/'.$name, $name);
                $zip->setCompressionName($name, \ZipArchive::CM_STORE);
                // The same result gives the same bytes.
                $zip->setMtimeName($name, 315_532_800);
            }
            $zip->close();

            return $this->store->take($folder->path.'/all.zip');
        } finally {
            $folder->clear();
        }
    }

    /** Small, to be looked at. */
    private static function picture(string $path, int $columns, int $rows, string $rgba): void
    {
        $step = max(1, (int) ceil(max($columns, $rows) / self::PICTURE_SIZE));
        [$w, $h] = [intdiv($columns + $step - 1, $step), intdiv($rows + $step - 1, $step)];
        $image = imagecreatetruecolor(max(1, $w), max(1, $h)) ?: throw new \RuntimeException('No image can be made.');
        for ($y = 0; $y < $h; ++$y) {
            for ($x = 0; $x < $w; ++$x) {
                $k = 4 * ($y * $step * $columns + $x * $step);
                $isThere = "\0" !== $rgba[$k + 3];
                $c = $isThere ? (\ord($rgba[$k]) << 16) | (\ord($rgba[$k + 1]) << 8) | \ord($rgba[$k + 2]) : 0xF4F1EA;
                imagesetpixel($image, $x, $y, $c);
            }
        }
        imagejpeg($image, $path, 88);
    }
}
