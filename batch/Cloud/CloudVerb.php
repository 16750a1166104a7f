<?php

declare(strict_types=1);

namespace Batch\Cloud;

use Batch\Input;
use Batch\Verb;
use Mensura\Cloud\CloudFigures;
use Mensura\Cloud\Crop;
use Mensura\Cloud\Ground;
use Mensura\Cloud\Noise;
use Mensura\Cloud\PointBlock;
use Mensura\Cloud\Thin;
use Mensura\Exchange\Cloud\CloudOut;
use Mensura\Exchange\Cloud\CloudReader;
use Mensura\Exchange\Cloud\E57Out;
use Mensura\Exchange\Cloud\LasOut;
use Mensura\Exchange\Cloud\PlyOut;
use Mensura\Exchange\Cloud\Tiles;
use Mensura\Exchange\Cloud\XyzOut;
use Mensura\Fault\UnusableInput;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;

#[AsCommand('cloud', 'Crops, thins, classifies and writes point clouds; prints mensura-cloud/1 JSON')]
final class CloudVerb extends Verb
{
    /** Points that are held at once where all have to be known: for noise and ground. */
    private const MOST = 10_000_000;
    private const AT_ONCE = 8_000;
    private const NOISE = 7;
    private const HIGH_NOISE = 18;
    private const GROUND = 2;
    private const UNCLASSIFIED = 1;
    private const WRITTEN = ['las', 'ply', 'xyz', 'e57'];

    protected function configure(): void
    {
        $this->addArgument('files', InputArgument::IS_ARRAY, 'LAS, LAZ, E57, PLY or text of coordinates; several are taken together');
        foreach ([
            'crop' => 'W,S,E,N, or a GeoJSON of polygons, in the coordinates of the cloud',
            'thin' => 'one point a cube of this side, metres',
            'class' => 'only points of these classes, as 2,6',
            'to-crs' => 'system the points are wanted in',
            'out' => 'file that is written: .las, .ply, .xyz or .e57',
            'tiles' => 'folder the points are written to as 3D Tiles',
        ] as $name => $what) {
            $this->addOption($name, null, InputOption::VALUE_REQUIRED, $what);
        }
        $this->addOption('noise', null, InputOption::VALUE_NONE, 'points that stand alone get class 7');
        $this->addOption('ground', null, InputOption::VALUE_NONE, 'ground gets class 2, the rest of unclassified 1');
        $this->addOption('merge', null, InputOption::VALUE_NONE, 'several clouds become one');
    }

    protected function answer(InputInterface $input): void
    {
        gc_disable();
        $files = array_values(array_map(strval(...), (array) $input->getArgument('files')));
        if ([] === $files) {
            throw new UnusableInput('', 'give a point cloud');
        }
        $side = self::positive($input, 'thin');
        $classes = self::classes($input);
        $out = self::text($input, 'out');
        $tiles = self::text($input, 'tiles');
        $this->refuseUnwritable($out, $tiles);
        $crop = self::crop($input);
        $sources = array_map(static fn (string $f): CloudReader => CloudReader::open(
            is_file($f) || is_dir($f) ? $f : Input::path($f), '-' === $f ? 'standard input' : $f,
        ), $files);
        $systems = new CloudSystems($sources, self::text($input, 'to-crs'));
        $isMetric = null !== $side || $input->getOption('noise') || $input->getOption('ground');
        if ($isMetric) {
            $systems->refuseDegrees();
        }

        $read = 0;
        $held = null;
        $thin = null === $side ? null : new Thin($side / $systems->metre);
        $figures = new CloudFigures($systems->writtenMetre);
        $writer = null === $out ? null : new Written($out, fn (string $path): CloudOut => $this->writer($path, $sources, $systems));
        $tree = null === $tiles ? null : new Tiles($tiles);
        $outs = array_values(array_filter([$writer?->out, $tree]));
        $whole = $input->getOption('noise') || $input->getOption('ground');
        try {
            foreach ($sources as $source) {
                foreach ($source->blocks() as $block) {
                    $read += $block->count();
                    $block = self::cropped($block, $crop);
                    if ($systems->isFirst) {
                        $block = $systems->bring($block, $source);
                    }
                    if (null !== $thin) {
                        $thin->take($block);
                    } elseif ($whole) {
                        ($held ??= new PointBlock())->add($block);
                        self::limit($held);
                    } else {
                        $this->give($block, $classes, $systems, $source, $figures, $outs);
                    }
                }
            }
            $held = null !== $thin ? $thin->kept : $held;
            if (null !== $held) {
                self::limit($held);
                self::classify($held, $input, $systems->metre);
                for ($from = 0, $n = $held->count(); $from < $n; $from += self::AT_ONCE) {
                    $part = $held->only(range($from, min($n, $from + self::AT_ONCE) - 1));
                    $this->give($part, $classes, $systems, $sources[0], $figures, $outs);
                }
            }
            $tree?->finish();
            $writer?->finish();
        } finally {
            $writer?->clear();
        }
        $this->print([
            'format' => 'mensura-cloud/1', 'read' => $read, 'written' => $figures->count, 'classes' => (object) $figures->classes(),
            'extent' => $figures->extent(), 'density' => $figures->density(), 'spacing' => $figures->spacing(),
        ]);
    }

    /**
     * @param ?array<int, true> $classes
     * @param list<CloudOut>    $outs
     */
    private function give(
        PointBlock $points, ?array $classes, CloudSystems $systems, CloudReader $source, CloudFigures $figures, array $outs,
    ): void {
        $points = self::chosen($points, $classes);
        if (!$systems->isFirst) {
            $points = $systems->bring($points, $source);
        }
        $figures->take($points);
        foreach ($outs as $out) {
            $out->write($points);
        }
    }

    /** @param ?array<int, true> $classes */
    private static function chosen(PointBlock $points, ?array $classes): PointBlock
    {
        return null === $classes ? $points
            : $points->only(array_keys(array_filter($points->classes, static fn (int $c): bool => isset($classes[$c]))));
    }

    private static function classify(PointBlock $points, InputInterface $input, float $metre): void
    {
        if (0 === $points->count()) {
            return;
        }
        $in = $points->scaled($metre);
        if ($input->getOption('noise')) {
            $in->classify(Noise::of($in->x, $in->y, $in->z), self::NOISE);
        }
        if ($input->getOption('ground')) {
            $noise = [];
            foreach ($in->classes as $i => $class) {
                if (self::NOISE === $class || self::HIGH_NOISE === $class) {
                    $noise[$i] = true;
                }
            }
            $ground = Ground::of($in->x, $in->y, $in->z, $noise);
            $in->classes = array_map(static fn (int $c): int => 0 === $c ? self::UNCLASSIFIED : $c, $in->classes);
            $in->classify($ground, self::GROUND);
        }
        $points->classes = $in->classes;
    }

    private static function limit(PointBlock $held): void
    {
        if ($held->count() > self::MOST) {
            $words = 'more than %d points: noise and ground need all of them at once; crop the cloud, or thin it';
            throw new UnusableInput('', \sprintf($words, self::MOST));
        }
    }

    private static function cropped(PointBlock $points, ?Crop $crop): PointBlock
    {
        if (null === $crop) {
            return $points;
        }
        $kept = [];
        foreach ($points->x as $i => $x) {
            if ($crop->holds($x, $points->y[$i])) {
                $kept[] = $i;
            }
        }

        return \count($kept) === $points->count() ? $points : $points->only($kept);
    }

    /** @param non-empty-list<CloudReader> $sources */
    private function writer(string $path, array $sources, CloudSystems $systems): CloudOut
    {
        return match (strtolower(pathinfo($path, \PATHINFO_EXTENSION))) {
            'xyz' => new XyzOut($path, $systems->isGeographic),
            'ply' => new PlyOut($path),
            'e57' => new E57Out($path, $systems->code),
            default => $this->las($path, $sources, $systems),
        };
    }

    /** @param non-empty-list<CloudReader> $sources */
    private function las(string $path, array $sources, CloudSystems $systems): LasOut
    {
        $first = $sources[0]->las;
        $isAlike = null !== $first;
        $asTheyAre = null === $systems->target;
        foreach ($sources as $source) {
            $las = $source->las;
            if (null === $first || null === $las || $las->format !== $first->format || $las->size !== $first->size) {
                $isAlike = false;
            } elseif ($las->scale !== $first->scale || $las->offset !== $first->offset) {
                $asTheyAre = false;
            }
        }
        if (null !== $first && !$isAlike) {
            $this->say('The files are of several formats: intensity, returns, times and colours do not go over.');
        }

        return new LasOut(
            $path, $isAlike ? $first : null, $isAlike ? $sources[0]->head() : '', $asTheyAre,
            $systems->projection($sources[0]), $systems->isGeographic,
        );
    }

    private function refuseUnwritable(?string $out, ?string $tiles): void
    {
        if (null !== $out) {
            $ending = strtolower(pathinfo($out, \PATHINFO_EXTENSION));
            if ('laz' === $ending) {
                throw new UnusableInput('--out', 'LAZ is read only, for there is no encoder; write .las');
            }
            if (!\in_array($ending, self::WRITTEN, true)) {
                throw new UnusableInput('--out', \sprintf('%s does not end in .las, .ply, .xyz or .e57', $out));
            }
            if (!is_dir(\dirname($out)) || !is_writable(\dirname($out)) || is_dir($out)) {
                throw new UnusableInput('--out', \sprintf('%s cannot be written: its folder is not there, or may not be written to', $out));
            }
        }
        if (null !== $tiles && (is_file($tiles) || !is_dir(\dirname($tiles)))) {
            throw new UnusableInput('--tiles', \sprintf('%s is no folder and none can be made there', $tiles));
        }
    }

    /** @return ?array<int, true> */
    private static function classes(InputInterface $input): ?array
    {
        $text = self::text($input, 'class');
        if (null === $text) {
            return null;
        }
        $classes = [];
        foreach (explode(',', $text) as $class) {
            if (1 !== preg_match('/^\s*\d{1,3}\s*$/', $class) || (int) $class > 255) {
                throw new UnusableInput('--class', \sprintf('"%s" is no list of classes from 0 to 255, as 2,6', $text));
            }
            $classes[(int) $class] = true;
        }

        return $classes;
    }

    private static function crop(InputInterface $input): ?Crop
    {
        $text = self::text($input, 'crop');
        if (null === $text) {
            return null;
        }
        if (is_file($text)) {
            return CropFile::read($text);
        }
        $numbers = array_map(trim(...), explode(',', $text));
        $isNumber = static fn (string $n): bool => is_numeric($n) && is_finite((float) $n);
        if (4 !== \count($numbers) || $numbers !== array_filter($numbers, $isNumber)) {
            throw new UnusableInput('--crop', \sprintf('"%s" is neither W,S,E,N nor a file', $text));
        }

        return Crop::box(...array_map(floatval(...), $numbers));
    }
}
