<?php

declare(strict_types=1);

namespace Batch\Cloud;

use Batch\Input;
use Batch\Verb;
use Mensura\Cloud\CloudFigures;
use Mensura\Cloud\CloudSteps;
use Mensura\Cloud\Crop;
use Mensura\Cloud\PointBlock;
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
        $figures = new CloudFigures($systems->writtenMetre);
        $writer = null === $out ? null : new Written($out, fn (string $path): CloudOut => $this->writer($path, $sources, $systems));
        $hasColours = [] !== array_filter($sources, static fn (CloudReader $s): bool => $s->hasColours());
        $tree = null === $tiles ? null : new Tiles($tiles, hasColours: $hasColours);
        $outs = array_values(array_filter([$writer?->out, $tree]));
        $source = $sources[0];
        $give = static function (PointBlock $points) use ($systems, &$source, $figures, $outs): void {
            $points = $systems->isFirst ? $points : $systems->bring($points, $source);
            $figures->take($points);
            foreach ($outs as $out) {
                $out->write($points);
            }
        };
        $noise = (bool) $input->getOption('noise');
        $ground = (bool) $input->getOption('ground');
        $steps = new CloudSteps($side, $noise, $ground, $classes, $systems->metre, $give);
        try {
            foreach ($sources as $source) {
                foreach ($source->blocks(null !== $tree) as $block) {
                    $read += $block->count();
                    $block = null === $crop ? $block : $crop->of($block);
                    $steps->take($systems->isFirst ? $systems->bring($block, $source) : $block);
                }
            }
            $source = $sources[0];
            $steps->finish();
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
        if (null !== $sources[0]->las && !LasOut::isAlike($sources)) {
            $this->say('The files are of several formats: intensity, returns, times and colours do not go over.');
        }

        return LasOut::of($path, $sources, null !== $systems->target, $systems->projection($sources[0]), $systems->isGeographic);
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
