<?php

declare(strict_types=1);

namespace Mensura\Exchange\PassesJson;

use Mensura\Exchange\Json\JsonObject;
use Mensura\Fault\UnusableInput;
use Mensura\Passes\Pass;
use Mensura\Passes\PassSet;
use Mensura\Passes\Sighting;

/** Reads mensura-passes/1 and the trajectories it names. Every fault names its place. */
final class PassesJsonReader
{
    private const EVERY = 20.0;
    private const RADIUS = 1.0;

    /** @var array<string, string> trajectory as it is named, by pass */
    public array $trajectories = [];

    /** @param string $folder the names of files are relative to */
    public function __construct(private readonly string $folder)
    {
    }

    /** Where a file lies that the document names. */
    public function path(string $name): string
    {
        return str_starts_with($name, '/') ? $name : $this->folder.'/'.$name;
    }

    /** @throws UnusableInput */
    public function read(string $json): PassSet
    {
        $document = JsonObject::document($json, 'mensura-passes/1');
        $settings = $document->object('settings');
        $every = $settings->object('every');
        $distance = $every->positive('distance');
        $time = $every->positive('time');
        if (null !== $distance && null !== $time || $settings->has('every') && null === $distance && null === $time) {
            throw $settings->fault('every', 'gives a distance in metres or a time in seconds, one of them');
        }
        $radius = $settings->positive('radius') ?? self::RADIUS;
        $passes = [];
        $numbers = [];
        foreach ($document->objects('passes') as $row) {
            $id = $row->name('id');
            if (isset($numbers["p$id"])) {
                throw $row->fault('id', "pass \"$id\" is there twice");
            }
            $numbers["p$id"] = \count($passes);
            $passes[] = $this->pass($id, $row);
        }
        $reference = $document->name('reference');
        $targets = self::targets($document);
        $sightings = [];
        foreach ($document->has('sightings') ? $document->objects('sightings', true) : [] as $row) {
            [$isControl, $given] = $targets['t'.$row->name('target')]
                ?? throw $row->fault('target', \sprintf('there is no target "%s" in control', $row->name('target')));
            $pass = $numbers['p'.$row->name('pass')] ?? throw $row->fault('pass', \sprintf('there is no pass "%s"', $row->name('pass')));
            $sightings[] = new Sighting($row->name('target'), $isControl, $pass, $row->required('time'), self::place($row), $given);
        }

        return new PassSet(
            $passes, $numbers["p$reference"] ?? throw $document->fault('reference', "there is no pass \"$reference\""), $sightings,
            $time ?? $distance ?? self::EVERY, null !== $time, $radius,
        );
    }

    private function pass(string $id, JsonObject $row): Pass
    {
        $name = $this->trajectories[$id] = $row->name('trajectory');
        $trajectory = (new TimedCsv($this->path($name), $name))->trajectory();
        $points = null;
        if ($row->has('points')) {
            $file = $row->name('points');
            // A file that is not there is said before anything is computed.
            TimedPoints::of($this->path($file), $file);
            $points = fn (): iterable => TimedPoints::of($this->path($file), $file);
        }
        if (!$row->has('preShift')) {
            return new Pass($id, $trajectory, $points);
        }
        $pair = $row->object('preShift');
        [$from, $to] = [$pair->numbers('from'), $pair->numbers('to')];
        if (3 !== \count($from ?? []) || 3 !== \count($to ?? [])) {
            throw $row->fault('preShift', 'gives the same place picked in both: from [e, n, h] here, to [e, n, h] in the reference');
        }

        return new Pass($id, $trajectory, $points, [$to[0] - $from[0], $to[1] - $from[1], $to[2] - $from[2]]);
    }

    /** @return array<string, array{bool, array{float, float, float}}> whether it is control, and where it is, by id */
    private static function targets(JsonObject $document): array
    {
        $targets = [];
        foreach ($document->has('control') ? $document->objects('control', true) : [] as $row) {
            $id = $row->name('id');
            if (isset($targets["t$id"])) {
                throw $row->fault('id', "target \"$id\" is there twice");
            }
            $targets["t$id"] = ['check' !== $row->choice('role', ['control', 'check']), self::place($row)];
        }

        return $targets;
    }

    /** @return array{float, float, float} */
    private static function place(JsonObject $row): array
    {
        return [$row->required('e'), $row->required('n'), $row->required('h')];
    }
}
