<?php

declare(strict_types=1);

namespace Batch\Rinex;

use Batch\Input;
use Batch\Verb;
use Mensura\Exchange\Rinex\NavigationReader;
use Mensura\Exchange\Rinex\NavigationWriter;
use Mensura\Exchange\Rinex\ObservationFile;
use Mensura\Exchange\Rinex\ObservationReader;
use Mensura\Exchange\Rinex\ObservationWriter;
use Mensura\Exchange\Rinex\Recorded;
use Mensura\Exchange\Rinex\Recording;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\Ephemeris;
use Mensura\Gnss\GpsTime;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;

#[AsCommand('rinex', 'Says what a receiver log or a recorded RTCM 3 stream holds, and writes it as RINEX; prints mensura-rinex/1 JSON')]
final class RinexVerb extends Verb
{
    protected function configure(): void
    {
        $this->addArgument('in', InputArgument::REQUIRED, 'receiver log or RTCM 3 stream');
        foreach ([
            'out' => 'observations to write', 'nav-out' => 'navigation file to write', 'version' => '3.04 (as it stands) or 2.11',
            'date' => 'UTC date of the first observation, YYYY-MM-DD, where the stream names no week', 'marker' => 'marker name',
            'antenna-height' => 'of the reference point above the marker, metres',
        ] as $name => $what) {
            $this->addOption($name, null, InputOption::VALUE_REQUIRED, $what);
        }
    }

    protected function answer(InputInterface $input): void
    {
        $name = (string) $input->getArgument('in');
        $version = self::text($input, 'version') ?? '3.04';
        if (!\in_array($version, ObservationWriter::VERSIONS, true)) {
            throw new UnusableInput('--version', \sprintf('"%s" is neither 3.04 nor 2.11', $version));
        }
        $recording = Recorded::read(Input::contents($name), $name, self::week($input));
        foreach ($recording->warnings as $warning) {
            $this->say("warning: $name: $warning");
        }
        $file = $recording->file;
        $file->marker = self::text($input, 'marker') ?? $file->marker;
        $height = self::text($input, 'antenna-height');
        if (null !== $height) {
            if (!is_numeric($height)) {
                throw new UnusableInput('--antenna-height', \sprintf('"%s" is not a number', $height));
            }
            $file->antennaOffset[0] = (float) $height;
        }
        $written = null;
        if (null !== $out = self::text($input, 'out')) {
            if ([] === $file->times) {
                throw new UnusableInput($name, 'holds no observations to write');
            }
            $writer = new ObservationWriter();
            $text = $writer->write($file, $version);
            $written = [
                'observations' => $out, 'lost' => $writer->lost,
                'worst' => self::difference($file, ObservationReader::read($text, $out), '2.11' === $version),
            ];
            file_put_contents($out, $text);
        }
        if (null !== $out = self::text($input, 'nav-out')) {
            if ([] === $recording->ephemerides) {
                throw new UnusableInput($name, 'holds no ephemerides to write');
            }
            $text = NavigationWriter::write(array_values($recording->ephemerides), $version);
            $written = ($written ?? []) + ['navigation' => $out, 'ephemerides' => \count(NavigationReader::read($text, $out)->ephemerides)];
            file_put_contents($out, $text);
        }
        fwrite(
            $this->out,
            json_encode(
                self::document($recording, $written), \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES,
            )."\n",
        );
    }

    private static function week(InputInterface $input): ?int
    {
        $date = self::text($input, 'date');
        if (null === $date) {
            return null;
        }
        if (1 !== preg_match('/^(\d{4})-(\d\d)-(\d\d)$/', $date, $m)) {
            throw new UnusableInput('--date', \sprintf('"%s" is no date, as 2031-05-04', $date));
        }

        return GpsTime::civil((int) $m[1], (int) $m[2], (int) $m[3], 0, 0, 0.0)->week;
    }

    /** Greatest difference of what was read back, in the file's own units; nothing may be missing but what the version cannot hold. */
    private static function difference(ObservationFile $a, ObservationFile $b, bool $isShort): float
    {
        $worst = 0.0;
        if (\count($a->times) !== \count($b->times) || $a->satellite !== $b->satellite) {
            throw new \LogicException('What was written does not come back.');
        }
        foreach ($isShort ? [] : $a->satellite as $i => $satellite) {
            foreach ($a->types[$satellite[0]] as $k => $type) {
                $place = $b->place($satellite[0], $type) ?? throw new \LogicException("$type does not come back.");
                $one = $a->value[$a->valueStart[$i] + $k];
                $two = $b->value[$b->valueStart[$i] + $place];
                if (is_nan($one) !== is_nan($two)) {
                    throw new \LogicException("$type of $satellite does not come back.");
                }
                $worst = is_nan($one) ? $worst : max($worst, abs($one - $two));
            }
        }

        return round($worst, 6);
    }

    /**
     * @param ?array<string, mixed> $written
     *
     * @return array<string, mixed>
     */
    private static function document(Recording $r, ?array $written): array
    {
        $f = $r->file;
        $count = \count($f->times);
        $satellites = array_values(array_unique($f->satellite));
        sort($satellites);
        $ephemerides = array_values(array_unique(array_map(static fn (Ephemeris $e): string => $e->satellite, $r->ephemerides)));
        sort($ephemerides);
        $messages = [];
        foreach ($r->messages as $kind => $n) {
            $messages[] = ['kind' => (string) $kind, 'count' => $n];
        }

        return [
            'format' => 'mensura-rinex/1', 'kind' => $r->kind, 'messages' => $messages, 'marker' => $f->marker,
            'receiver' => $f->receiverType,
            'antenna' => $f->antennaType, 'antennaHeight' => $f->antennaOffset[0],
            'position' => null === $f->approximate ? null : [
                'x' => $f->approximate[0], 'y' => $f->approximate[1], 'z' => $f->approximate[2],
            ],
            'epochs' => $count, 'interval' => $f->interval(), 'start' => 0 === $count ? null : (string) $f->times[0],
            'end' => 0 === $count ? null : (string) $f->times[$count - 1], 'satellites' => $satellites, 'types' => $f->types,
            'ephemerides' => $ephemerides,
            'warnings' => $r->warnings, 'written' => $written,
        ];
    }
}
