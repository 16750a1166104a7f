<?php

declare(strict_types=1);

namespace App\Clouds\Flight;

use App\Clouds\KnownPoints;
use App\Design\FilePlacement;
use App\Project\Project;
use App\Store\FileStore;
use App\Survey\Point;
use App\Survey\PointRepository;
use App\Survey\PointRow;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\FlightJson\Mission;
use Mensura\Exchange\FlightJson\MissionReader;
use Mensura\Fault\UnusableInput;
use Mensura\Flight\FlightBlock;
use Mensura\Image\Block;
use Mensura\Image\Rotation;

/**
 * Photo flights that came in: missions, their images by name among the photos, and control of the project as it is marked in them.
 *
 * @phpstan-import-type Mark from FlightSettings
 * @phpstan-import-type Known from FlightBlock
 */
final class FlightFiles
{
    /** Metres north of an image at which it is asked where north is now. */
    private const BEYOND = 10.0;

    public function __construct(
        private readonly SurveyFileRepository $files, private readonly FileStore $store, private readonly FilePlacement $placement,
        private readonly PointRepository $points, private readonly KnownPoints $given,
    ) {
    }

    /** @return list<array{id: int, name: string, images: int, isGroup: bool}> */
    public function missions(Project $project): array
    {
        return array_values(array_map(static fn (SurveyFile $f): array => [
            'id' => $f->id(), 'name' => (string) ($f->mapping()['flight'] ?? $f->name()), 'images' => (int) ($f->mapping()['images'] ?? 0),
            'isGroup' => (bool) ($f->mapping()['isGroup'] ?? false),
        ], array_filter($this->files->of($project), self::isFlight(...))));
    }

    /**
     * @return array{Mission, list<array{float, float, float}>, list<?list<float>>} and positions where the project has them now, and
     *     rotations as it has them: north of the file need not be its north
     *
     * @throws UnusableInput
     */
    public function mission(Project $project, int $id): array
    {
        $file = $this->files->in($project, $id);
        if (null === $file || !self::isFlight($file)) {
            throw new UnusableInput('/mission', 'there is no such flight in the project');
        }
        $mission = MissionReader::read($this->store->get($file->sha256()));
        $axes = array_map(static fn (int $k): array => array_column($mission->positions, $k), [0, 1, 2]);
        [$e, $n, $h] = $this->placement->placed($project, $file, ...$axes);

        $beyond = array_map(static fn (float $v): float => $v + self::BEYOND, $axes[1]);
        [$to, $up] = $this->placement->placed($project, $file, $axes[0], $beyond, $axes[2]);
        $rotations = [];
        foreach ($mission->angles as $i => $angles) {
            $turn = rad2deg(atan2($e[$i] - $to[$i], $up[$i] - $n[$i]));
            $rotations[] = null === $angles ? null : Rotation::product(Rotation::of(0.0, 0.0, $turn), Rotation::of(...$angles));
        }

        return [$mission, array_map(static fn (float $x, float $y, float $z): array => [$x, $y, $z], $e, $n, $h), $rotations];
    }

    /** @return array<string, int> accepted photos of the project, the newest of a name */
    public function photos(Project $project): array
    {
        $photos = [];
        foreach ($this->files->of($project) as $f) {
            if (!$f->isWaiting() && FileKind::Photo->value === $f->kind()) {
                $photos[$f->name()] = $f->id();
            }
        }

        return $photos;
    }

    /**
     * @return list<?string> where the image of each lies on disk; null where it has not come in
     */
    public function paths(Project $project, Mission $mission): array
    {
        $hashes = [];
        foreach ($this->files->of($project) as $f) {
            if (!$f->isWaiting() && FileKind::Photo->value === $f->kind()) {
                $hashes[$f->name()] = $f->sha256();
            }
        }

        return array_map(fn (string $n): ?string => isset($hashes[$n]) ? $this->store->localPath($hashes[$n]) : null, $mission->files);
    }

    /**
     * Control and check points that are marked somewhere.
     *
     * @param list<Mark> $marks
     *
     * @return list<Known>
     *
     * @throws UnusableInput naming a mark that cannot be used
     */
    public function known(Project $project, Mission $mission, array $marks): array
    {
        $number = array_flip($mission->files);
        $known = [];
        foreach ($this->points->marks($project) as $p) {
            if (self::isGiven($p) && null !== $p->givenE && null !== $p->givenN && null !== $p->givenH) {
                $isHeld = 'enh' === $p->held || null === $p->sdE && null === $p->sdN && null === $p->sdH;
                $known[$p->name] = [
                    'id' => $p->name, 'role' => Point::CHECK === $p->role ? Block::CHECK : Block::CONTROL,
                    'place' => [$p->givenE, $p->givenN, $p->givenH],
                    'sd' => $isHeld ? null : [$p->sdE ?? 0.001, $p->sdN ?? 0.001, $p->sdH ?? 0.001], 'marks' => [],
                ];
            }
        }
        foreach ($marks as $i => $mark) {
            if (!isset($known[$mark['point']])) {
                $words = '%s is no control or check point with given easting, northing and height';
                throw new UnusableInput("/marks/$i/point", \sprintf($words, $mark['point']));
            }
            $image = $number[$mark['image']]
                ?? throw new UnusableInput("/marks/$i/image", \sprintf('%s is no image of this flight', $mark['image']));
            if ($mark['x'] > $mission->width || $mark['y'] > $mission->height) {
                $words = 'lies outside the image, %d by %d pixels';
                throw new UnusableInput("/marks/$i", \sprintf($words, $mission->width, $mission->height));
            }
            $known[$mark['point']]['marks'][$image] = [$mark['x'], $mark['y']];
        }

        return array_values(array_filter($known, static fn (array $k): bool => [] !== $k['marks']));
    }

    /**
     * Points that could be marked.
     *
     * @return list<array{name: string, role: string, e: float, n: float, h: float}>
     */
    public function markable(Project $project): array
    {
        return array_values($this->given->of($project));
    }

    private static function isGiven(PointRow $p): bool
    {
        return \in_array($p->role, [Point::CONTROL, Point::CHECK], true);
    }

    private static function isFlight(SurveyFile $file): bool
    {
        return !$file->isWaiting() && FileKind::Flight->value === $file->kind();
    }
}
