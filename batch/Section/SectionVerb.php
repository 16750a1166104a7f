<?php

declare(strict_types=1);

namespace Batch\Section;

use Batch\Input;
use Batch\Verb;
use Mensura\Exchange\GeoJson\LineFile;
use Mensura\Exchange\LandXml\LandXmlSurface;
use Mensura\Exchange\PointsCsv\PointsCsvReader;
use Mensura\Fault\UnusableInput;
use Mensura\Section\SectionLine;
use Mensura\Section\SurfaceSection;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;

#[AsCommand('section', 'Surfaces and points along a line; prints mensura-section/1 JSON')]
final class SectionVerb extends Verb
{
    protected function configure(): void
    {
        $this->addArgument('files', InputArgument::IS_ARRAY, 'none: all files are named by options');
        $this->addOption('line', null, InputOption::VALUE_REQUIRED, 'GeoJSON with the line, in the coordinates of the surfaces');
        $this->addOption('surface', null, InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY, 'LandXML surface; may be repeated');
        $this->addOption('points', null, InputOption::VALUE_REQUIRED, 'points with columns id,e,n,h beside the line');
        $this->addOption('offset', null, InputOption::VALUE_REQUIRED, 'farthest that points may lie off the line, metres');
    }

    protected function answer(InputInterface $input): void
    {
        $files = $input->getArgument('files');
        if (\is_array($files) && [] !== $files) {
            throw new UnusableInput((string) $files[0], 'is not expected; surfaces are named by --surface, points by --points');
        }
        $lineFile = self::text($input, 'line') ?? throw new UnusableInput('--line', 'names the line; it is missing');
        $surfaces = (array) $input->getOption('surface');
        if ([] === $surfaces) {
            throw new UnusableInput('--surface', 'names a surface; at least one is needed');
        }
        $points = self::text($input, 'points');
        $offset = self::distance($input, 'offset');
        if ((null === $points) !== (null === $offset)) {
            throw new UnusableInput(null === $points ? '--points' : '--offset', 'is missing: points and their greatest offset go together');
        }
        try {
            $line = LineFile::read(Input::contents($lineFile));
        } catch (UnusableInput $e) {
            throw str_starts_with($e->where, $lineFile) ? $e : new UnusableInput(trim("$lineFile {$e->where}"), $e->reason);
        }
        $result = ['format' => 'mensura-section/1', 'length' => $line->length, 'surfaces' => []];
        foreach ($surfaces as $file) {
            $path = Input::path((string) $file);
            try {
                $tin = LandXmlSurface::read($path);
            } catch (UnusableInput $e) {
                throw new UnusableInput($file.substr($e->where, \strlen($path)), $e->reason);
            }
            $result['surfaces'][] = ['file' => $file, 'pieces' => (new SurfaceSection($tin))->along($line)];
        }
        if (null !== $points && null !== $offset) {
            $result['points'] = self::beside($line, $points, $offset);
        }
        $this->print($result);
    }

    /** @return list<array{id: string, station: float, offset: float, h: float}> */
    private static function beside(SectionLine $line, string $file, float $offset): array
    {
        ['names' => $names, 'x' => $x, 'y' => $y, 'z' => $z] = PointsCsvReader::read(Input::open($file), $file);
        $found = [];
        foreach ($x as $i => $e) {
            if (null !== $foot = $line->foot($e, $y[$i], $offset)) {
                $found[] = ['id' => $names[$i], 'station' => $foot[0], 'offset' => $foot[1], 'h' => $z[$i]];
            }
        }

        return $found;
    }
}
