<?php

declare(strict_types=1);

namespace Demo\Flight;

use App\Account\User;
use App\Account\UserRepository;
use App\Clouds\Flight\FlightMaker;
use App\Clouds\Flight\FlightSettings;
use App\Clouds\Flight\OrthoMaker;
use App\Clouds\Flight\OrthoSettings;
use App\Clouds\Group\DenseMaker;
use App\Clouds\Group\DenseSettings;
use App\Job\JobContext;
use App\Job\JobHandler;
use App\Job\Jobs;

/** Renders the flight, brings it in, adjusts it and makes its orthoimage, while the office is open already. */
final class FlightDemoHandler implements JobHandler
{
    public function __construct(
        private readonly FlightDemo $demo, private readonly UserRepository $users, private readonly FlightMaker $flights,
        private readonly OrthoMaker $orthos, private readonly DenseMaker $dense, private readonly Jobs $jobs,
    ) {
    }

    public static function kind(): string
    {
        return 'demo-flight';
    }

    public function run(JobContext $context): void
    {
        $owner = $this->users->named((string) $context->payload['owner']) ?? throw new \LogicException('The owner is gone.');
        if ('rover' === ($context->payload['part'] ?? '')) {
            $this->rover($context, $owner);

            return;
        }
        $part = static fn (string $stage, float $from, float $to): \Closure => static fn (float $of) => $context->report(
            $stage, $from + $of * ($to - $from),
        );
        [$mission, $marks] = $this->demo->bring($context->project, $owner, null, $part('rendering images', 0.0, 0.25));
        $number = $this->flights->make(
            $context->project, $owner->name(), null, new FlightSettings('field, May', $mission, $marks),
            static fn (string $stage, float $of) => $context->report($stage, 0.25 + 0.5 * $of),
        );
        $this->orthos->make(
            $context->project, $owner->name(), null, new OrthoSettings('field, May', $number),
            static fn (string $stage, float $of) => $context->report($stage, 0.75 + 0.25 * $of),
        );
        $context->outcome(['number' => $number]);
        // One after the other: a worker stays free for what is asked meanwhile.
        $this->jobs->start($context->project, $owner, self::kind(), 'Prepare the images of the rover', [
            'owner' => $owner->username(), 'part' => 'rover',
        ]);
    }

    /** Both groups of images of the barn, oriented, and the dense points of the first. */
    private function rover(JobContext $context, User $owner): void
    {
        $all = array_map(array_keys(...), FlightDemo::rover()->scene->truth);
        $groups = $this->demo->bringGroups(
            $context->project, $owner, $all, static fn (float $of) => $context->report('rendering images', 0.2 * $of),
        );
        $numbers = [];
        foreach ($groups as $k => $group) {
            $numbers[] = $this->flights->make(
                $context->project, $owner->name(), null, new FlightSettings(array_keys($all)[$k], $group),
                static fn (string $stage, float $of) => $context->report($stage, 0.2 + 0.3 * ($k + $of)),
            );
        }
        $this->dense->make(
            $context->project, $owner->name(), null, new DenseSettings('barn', \array_slice($numbers, 0, 1)),
            static fn (string $stage, float $of) => $context->report($stage, 0.8 + 0.2 * $of),
        );
    }
}
