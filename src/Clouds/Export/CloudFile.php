<?php

declare(strict_types=1);

namespace App\Clouds\Export;

use App\Clouds\MadeClouds;
use App\Export\Check;
use App\Export\ExportAbout;
use App\Export\OffersChoice;
use App\Project\Project;
use App\Reference\ProjectReference;
use Mensura\Exchange\Cloud\CloudOut;
use Mensura\Exchange\Cloud\CloudReader;

/** A cloud as one file of points, read back and counted. */
abstract readonly class CloudFile implements OffersChoice
{
    use OfOneCloud;

    /** Metres: what the formats round to. */
    private const ALLOWED = 0.001;

    public function __construct(private MadeClouds $clouds, protected ProjectReference $references)
    {
    }

    /** @return array{string, string, string, int} ending, media type, what it is called, and its place on the page */
    abstract protected static function format(): array;

    abstract protected function out(Project $project, CloudReader $cloud, string $path): CloudOut;

    /** @return list<string> what the format does not hold, in words */
    abstract protected static function lost(): array;

    public static function key(): string
    {
        return 'cloud-'.static::format()[0];
    }

    public function about(): ExportAbout
    {
        [$ending, $type, $name, $place] = static::format();

        return new ExportAbout(
            "Cloud as $name", 'Write the cloud', 'cloud', $ending, $type, "Point cloud as $name", 'a point cloud, all its points',
            $place, 1,
        );
    }

    public function write(Project $project, array $chosen, string $path): array
    {
        $cloud = $this->clouds->opened($this->chosen($project, $chosen));
        $out = $this->out($project, $cloud, $path);
        foreach ($cloud->blocks() as $block) {
            $out->write($block);
        }
        $out->finish();

        return static::lost();
    }

    public function check(Project $project, array $chosen, string $path): array
    {
        $s = $this->chosen($project, $chosen)->summary;
        $count = 0;
        $extent = [\INF, \INF, \INF, -\INF, -\INF, -\INF];
        foreach (CloudReader::open($path, basename($path))->blocks() as $b) {
            $count += $b->count();
            foreach ([$b->x, $b->y, $b->z] as $k => $axis) {
                [$extent[$k], $extent[$k + 3]] = [min($extent[$k], min($axis)), max($extent[$k + 3], max($axis))];
            }
        }
        $off = array_map(static fn (float $a, mixed $b): float => abs($a - (float) $b), $extent, array_values((array) $s['extent']));

        return [Check::count('points', (int) $s['points'], $count), Check::difference('extent', max($off), self::ALLOWED)];
    }
}
