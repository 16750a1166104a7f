<?php

declare(strict_types=1);

namespace Batch\Convert;

use Batch\Input;
use Batch\Reference;
use Batch\Verb;
use Mensura\Exchange\Features\Displacement;
use Mensura\Exchange\Features\Feature;
use Mensura\Exchange\Features\FeatureReader;
use Mensura\Exchange\Features\FeatureSet;
use Mensura\Exchange\Features\FeatureWriters;
use Mensura\Exchange\Features\Transformed;
use Mensura\Exchange\Features\Write\LasRecords;
use Mensura\Exchange\Features\Write\LasWriter;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Crs\CoordinateSystem;
use Mensura\Reference\Crs\HorizontalSystem;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Operation\MissingGrid;
use Mensura\Reference\Operation\NoWay;
use Mensura\Reference\Operation\RouteFinder;
use Mensura\Reference\Operation\RouteSettings;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;

#[AsCommand('convert', 'Features of a file as another kind of file, read back; prints mensura-convert/1 JSON')]
final class ConvertVerb extends Verb
{
    protected function configure(): void
    {
        $this->addArgument('files', InputArgument::IS_ARRAY, 'the file, and the one that is written: its ending says the kind');
        $this->addOption('from-crs', null, InputOption::VALUE_REQUIRED, 'system the coordinates are in, where the file does not say it');
        $this->addOption('to-crs', null, InputOption::VALUE_REQUIRED, 'system they are wanted in');
        $this->addOption('layer', null, InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY, 'only this layer');
    }

    protected function answer(InputInterface $input): void
    {
        $files = array_map(strval(...), (array) $input->getArgument('files'));
        if (2 !== \count($files)) {
            $words = 'give two files, the one that is read and the one that is written, not %d';
            throw new UnusableInput('', \sprintf($words, \count($files)));
        }
        [$in, $out] = $files;
        // Features by the hundred thousand hold no cycles; looking for some would take a tenth of the time.
        gc_disable();
        $writer = FeatureWriters::for($out);
        $folder = \dirname($out);
        if (!is_dir($folder) || !is_writable($folder)) {
            throw new UnusableInput($out, \sprintf('%s is no folder that can be written to', $folder));
        }
        if (is_dir($out)) {
            throw new UnusableInput($out, 'is a folder');
        }
        $path = is_file($in) || is_dir($in) ? $in : Input::path($in);
        $reader = FeatureReader::of($path, $in);
        $look = $reader->look;
        $set = $reader->set;
        $lost = array_map(static fn (string $what): string => "not read: $what", $reader->left);
        $layers = array_values(array_map(strval(...), (array) $input->getOption('layer')));
        $this->choose($set, $layers, $in);
        $isBrought = $this->bring($set, $input, $out, $in);
        if (!$isBrought && [] === $layers && \in_array($look->kind, ['las', 'laz'], true) && $writer instanceof LasWriter) {
            // Nothing is changed: the records go over whole.
            [$writer, $lost] = [new LasRecords($path, $in), []];
        }
        // Written aside and read there: what goes to its place is whole.
        $aside = $folder.'/.convert-'.bin2hex(random_bytes(6));
        if (!mkdir($aside)) {
            throw new UnusableInput($out, 'cannot be written there');
        }
        try {
            $made = $aside.'/'.basename($out);
            try {
                $lost = [...$lost, ...$writer->write($set, $made)];
            } catch (UnusableInput $e) {
                throw new UnusableInput(trim("$in $e->where"), $e->reason);
            }
            $back = FeatureReader::of($made, basename($out));
            $written = $back->look;
            $result = [
                'format' => 'mensura-convert/1', 'read' => $look->toArray(), 'written' => $written->toArray(), 'lost' => $lost,
                'moved' => Displacement::greatest($set, $back->set),
            ];
            foreach (self::in($aside) as $file) {
                rename($file, $folder.'/'.basename($file));
            }
        } finally {
            array_map(unlink(...), array_filter(self::in($aside), is_file(...)));
            rmdir($aside);
        }
        $this->print($result);
    }

    /** @return list<string> files of a folder */
    private static function in(string $folder): array
    {
        $names = array_diff(scandir($folder) ?: [], ['.', '..']);

        return array_values(array_map(static fn (string $name): string => "$folder/$name", $names));
    }

    /** @param list<string> $layers */
    private function choose(FeatureSet $set, array $layers, string $in): void
    {
        if ([] === $layers) {
            return;
        }
        $unknown = array_diff($layers, $set->layers());
        if ([] !== $unknown) {
            $words = '%s has no layer "%s"; its layers are %s';
            throw new UnusableInput('--layer', \sprintf($words, $in, reset($unknown), implode(', ', $set->layers())));
        }
        $set->features = array_values(array_filter($set->features, static fn (Feature $f): bool => \in_array($f->layer, $layers, true)));
    }

    /** @return bool whether its coordinates are others now, or mean something they did not say */
    private function bring(FeatureSet $set, InputInterface $input, string $out, string $in): bool
    {
        $registry = Reference::registry();
        $from = self::text($input, 'from-crs');
        $to = self::text($input, 'to-crs');
        $said = null !== $from ? Reference::system($registry, '--from-crs', $from) : null;
        if (null !== $said) {
            Transformed::say($set, $said);
        }
        if (null === $to && 'kml' === strtolower(pathinfo($out, \PATHINFO_EXTENSION)) && (null !== $said || null !== $set->crs)) {
            $to = 'EPSG:4326';
        }
        if (null === $to) {
            return null !== $said;
        }
        $source = $said ?? (null === $set->crs ? null : Reference::system($registry, '--from-crs', $set->crs))
            ?? throw new UnusableInput('--to-crs', \sprintf('%s does not say which system it is in: name it with --from-crs', $in));
        $target = Reference::system($registry, '--to-crs', $to);
        foreach (['--from-crs' => $source, '--to-crs' => $target] as $option => $system) {
            if (HorizontalSystem::GEOCENTRIC === $system->horizontal->kind) {
                $words = 'is geocentric: X, Y and Z are not coordinates of features; name a geographic or projected system';
                throw new UnusableInput($option, $words);
            }
        }
        if (self::isSame($source, $target)) {
            return null !== $said;
        }
        try {
            $route = (new RouteFinder($registry, GridFiles::installed()))->route($source, $target, new RouteSettings());
            Transformed::bring($set, $source, $target, $route, $in);
        } catch (MissingGrid|NoWay $e) {
            throw new UnusableInput('--to-crs', $e->getMessage());
        }

        return true;
    }

    private static function isSame(CoordinateSystem $a, CoordinateSystem $b): bool
    {
        return null !== $a->horizontal->code && $a->horizontal->code === $b->horizontal->code;
    }
}
