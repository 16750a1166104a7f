<?php

declare(strict_types=1);

namespace Batch\Baseline;

use Batch\Input;
use Batch\Verb;
use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\ObservationFile;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\SessionOf;
use Mensura\Exchange\Rinex\Sp3Reader;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\BaselineProcessor;
use Mensura\Gnss\BaselineSolution;
use Mensura\Gnss\GpsTime;
use Mensura\Gnss\Horizon;
use Mensura\Gnss\LeapSeconds;
use Mensura\Gnss\Options;
use Mensura\Gnss\Orbits;
use Mensura\Gnss\PreciseOrbits;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;

#[AsCommand('baseline', 'The vector between two receivers from their RINEX files; prints mensura-baseline/1 JSON')]
final class BaselineVerb extends Verb
{
    private const MASK = 10.0;

    protected function configure(): void
    {
        $this->addArgument('files', InputArgument::IS_ARRAY, 'more navigation files');
        foreach ([
            'base' => 'observations of the base, RINEX 2.11 or 3.02 to 3.05', 'rover' => 'observations of the rover',
            'base-position' => 'base marker, X,Y,Z geocentric in metres', 'mode' => 'static, kinematic or code',
            'mask' => 'least elevation, degrees (10)', 'start' => 'first instant, gps:YYYY-MM-DDThh:mm:ss or UTC ending in Z',
            'end' => 'last instant',
        ] as $name => $what) {
            $this->addOption($name, null, InputOption::VALUE_REQUIRED, $what);
        }
        $this->addOption('nav', null, InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY, 'broadcast ephemerides; may be repeated');
        $this->addOption(
            'sp3', null, InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
            'precise orbits, SP3-c or SP3-d; may be repeated',
        );
    }

    protected function answer(InputInterface $input): void
    {
        $baseName = self::text($input, 'base') ?? throw new UnusableInput('--base', 'name the observations of the base');
        $roverName = self::text($input, 'rover') ?? throw new UnusableInput('--rover', 'name the observations of the rover');
        $mode = self::text($input, 'mode') ?? BaselineProcessor::STATIC;
        if (!\in_array($mode, BaselineProcessor::MODES, true)) {
            throw new UnusableInput('--mode', \sprintf('"%s" is none of static, kinematic and code', $mode));
        }
        $mask = self::text($input, 'mask') ?? (string) self::MASK;
        if (!is_numeric($mask) || (float) $mask < 0.0 || (float) $mask >= 90.0) {
            throw new UnusableInput('--mask', \sprintf('"%s" is not an elevation from 0 to 90 degrees', $mask));
        }
        [$ephemerides, $klobuchar] = $this->navigation($input);
        $precise = null;
        foreach ((array) $input->getOption('sp3') as $file) {
            $precise ??= new PreciseOrbits();
            Sp3Reader::read(Input::contents((string) $file), (string) $file, $precise);
        }
        $base = ObservationReader::read(Input::contents($baseName), $baseName);
        $rover = ObservationReader::read(Input::contents($roverName), $roverName);
        $session = SessionOf::of(
            $base, $rover, $baseName, $roverName, self::time($input, 'start'), self::time($input, 'end'),
        );
        foreach ([...$base->warnings, ...$rover->warnings] as $warning) {
            $this->say('warning: '.$warning);
        }
        $stated = self::position($input);
        $marker = $stated ?? $base->statedPlace();
        if (null === $stated && null !== $marker) {
            $this->say("warning: $baseName: the base is where its header says about; give --base-position for a place that is known");
        }
        $antenna = null === $marker ? null : self::antenna($marker, $base);
        $processor = new BaselineProcessor($session, new Orbits($ephemerides, $precise), $klobuchar, new Options(deg2rad((float) $mask)));
        [$solution, $antenna] = $processor->run($mode, $antenna, null !== $stated);
        foreach ([...$processor->warnings, ...$solution->warnings] as $warning) {
            $this->say('warning: '.$warning);
        }
        $document = self::document($mode, $solution, $base, $rover, $antenna);
        fwrite($this->out, json_encode(
            $document,
            \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES,
        )."\n");
    }

    /** @return array{list<\Mensura\Gnss\Ephemeris>, ?array{float, float, float, float, float, float, float, float}} */
    private function navigation(InputInterface $input): array
    {
        $files = [...(array) $input->getOption('nav'), ...(array) $input->getArgument('files')];
        if ([] === $files) {
            throw new UnusableInput('--nav', 'name a navigation file');
        }
        $ephemerides = [];
        $klobuchar = null;
        foreach ($files as $file) {
            $read = NavigationReader::read(Input::contents((string) $file), (string) $file);
            array_push($ephemerides, ...$read->ephemerides);
            $klobuchar ??= $read->klobuchar;
        }
        if ([] === $ephemerides) {
            throw new UnusableInput(
                implode(', ', array_map(strval(...), $files)),
                'no usable ephemeris of GPS, Galileo or BeiDou is in it',
            );
        }

        return [$ephemerides, $klobuchar];
    }

    private static function time(InputInterface $input, string $option): ?GpsTime
    {
        $text = self::text($input, $option);
        if (null === $text) {
            return null;
        }
        if (1 !== preg_match('/^(gps:)?(\d{4})-(\d\d)-(\d\d)T(\d\d):(\d\d):(\d\d(?:\.\d+)?)(Z?)$/', $text, $m)
            || ('' === $m[1]) === ('' === $m[8])
        ) {
            throw new UnusableInput(
                "--$option",
                \sprintf('"%s" is no time; write gps:2031-05-04T09:00:00, or UTC with Z at its end', $text),
            );
        }
        $ahead = 'Z' === $m[8] ? LeapSeconds::at("$m[2]-$m[3]-$m[4]") : 0;

        return GpsTime::civil((int) $m[2], (int) $m[3], (int) $m[4], (int) $m[5], (int) $m[6], (float) $m[7] + $ahead);
    }

    /** @return ?array{float, float, float} */
    private static function position(InputInterface $input): ?array
    {
        $text = self::text($input, 'base-position');
        if (null === $text) {
            return null;
        }
        $cells = explode(',', $text);
        if (3 !== \count($cells) || 3 !== \count(array_filter($cells, is_numeric(...)))) {
            throw new UnusableInput('--base-position', \sprintf('"%s" is not X,Y,Z', $text));
        }

        return [(float) $cells[0], (float) $cells[1], (float) $cells[2]];
    }

    /**
     * @param array{float, float, float} $marker
     *
     * @return array{float, float, float}
     */
    private static function antenna(array $marker, ObservationFile $file): array
    {
        [$up, $east, $north] = $file->antennaOffset;

        return Horizon::of($marker)->shifted($marker, $east, $north, $up);
    }

    /**
     * @param array{float, float, float} $antenna
     *
     * @return array{float, float, float}
     */
    private static function marker(array $antenna, ObservationFile $file): array
    {
        [$up, $east, $north] = $file->antennaOffset;

        return Horizon::of($antenna)->shifted($antenna, -$east, -$north, -$up);
    }

    /**
     * @param array{float, float, float} $antenna of the base
     *
     * @return array<string, mixed>
     */
    private static function document(
        string $mode, BaselineSolution $s, ObservationFile $base, ObservationFile $rover, array $antenna,
    ): array {
        $from = self::marker($antenna, $base);
        $to = self::marker($s->rover, $rover);
        $place = static fn (array $p): array => ['x' => round($p[0], 5), 'y' => round($p[1], 5), 'z' => round($p[2], 5)];
        $vector = ['dx' => round($to[0] - $from[0], 5), 'dy' => round($to[1] - $from[1], 5), 'dz' => round($to[2] - $from[2], 5)];
        $local = Horizon::of($to)->turned($s->covariance);
        $satellites = [];
        foreach ($s->satellites as $id => $about) {
            $satellites[] = ['id' => (string) $id] + $about;
        }
        $document = [
            'format' => 'mensura-baseline/1', 'solution' => $s->solution, 'mode' => $mode,
            'from' => ['marker' => $base->marker] + $place($from), 'to' => ['marker' => $rover->marker] + $place($to), 'vector' => $vector,
            'covariance' => $s->covariance, 'ratio' => null === $s->ratio ? null : round($s->ratio, 2), 'rms' => round($s->rms, 5),
            'epochs' => $s->epochs, 'start' => (string) $s->start, 'end' => (string) $s->end, 'satellites' => $satellites,
            'horizontalPrecision' => round(sqrt($local[0][0] + $local[1][1]), 5), 'verticalPrecision' => round(sqrt($local[2][2]), 5),
        ];
        if (BaselineProcessor::STATIC !== $mode) {
            $document['track'] = array_map(static function (array $t) use ($rover, $place): array {
                $q = Horizon::of($t['position'])->turned($t['covariance']);

                return ['time' => (string) $t['time']] + $place(self::marker($t['position'], $rover)) + [
                    'solution' => $t['solution'], 'satellites' => $t['satellites'],
                    'sd' => ['e' => round(sqrt($q[0][0]), 4), 'n' => round(sqrt($q[1][1]), 4), 'u' => round(sqrt($q[2][2]), 4)],
                ];
            }, $s->track);
        }

        return $document;
    }
}
