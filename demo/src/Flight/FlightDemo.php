<?php

declare(strict_types=1);

namespace Demo\Flight;

use App\Account\User;
use App\Intake\IntakeOperations;
use App\Intake\Meaning;
use App\Ledger\Ledger;
use App\Project\Members;
use App\Project\Project;
use App\Project\ProjectRepository;
use App\Project\Role;
use Demo\TruthModel;
use Psr\Clock\ClockInterface;

/** A project of its own with a flight over a field, brought in through the operations the interface uses. */
final class FlightDemo
{
    public const PROJECT = 'Kestrel field flight';

    public function __construct(
        private readonly ProjectRepository $projects, private readonly Members $members, private readonly IntakeOperations $intake,
        private readonly Ledger $ledger, private readonly ClockInterface $clock,
    ) {
    }

    /** The project, without its files yet; null where it is there already. */
    public function found(User $owner, User $reviewer): ?Project
    {
        if (null !== $this->projects->findOneBy(['name' => self::PROJECT])) {
            return null;
        }
        $project = new Project(self::PROJECT, TruthModel::SYSTEM, 'ellipsoidal', $this->clock->now());
        $this->projects->found($project, $owner);
        $this->members->change($project, $reviewer->username(), Role::Reviewer);

        return $project;
    }

    public static function files(): FlightFilesMade
    {
        return new FlightFilesMade(new FlightScene(493800.0, 6028300.0, 231.0));
    }

    /**
     * Control, check points, the mission and its images.
     *
     * @param ?list<int>              $only     images that are rendered and flown; null for all
     * @param ?\Closure(float): void  $progress
     *
     * @return array{int, list<array{point: string, image: string, x: float, y: float}>} database id of the mission, and marks of
     *                                                                                  control
     */
    public function bring(Project $project, User $owner, ?array $only, ?\Closure $progress = null): array
    {
        $made = self::files();
        $images = $only ?? array_keys($made->scene->truth);
        $this->take($project, $owner, FlightFilesMade::CONTROL, $made->control(), null);
        $this->take($project, $owner, FlightFilesMade::CHECKS, $made->checks(), new Meaning(control: 'check'));
        $mission = json_decode($made->mission(), true, 64, \JSON_THROW_ON_ERROR);
        $mission['images'] = array_values(array_intersect_key($mission['images'], array_flip($images)));
        $json = json_encode($mission, \JSON_PRETTY_PRINT | \JSON_UNESCAPED_SLASHES | \JSON_THROW_ON_ERROR);
        $id = $this->take($project, $owner, FlightFilesMade::MISSION, $json."\n", null);
        foreach ($images as $k => $image) {
            if (null !== $progress) {
                $progress($k / \count($images));
            }
            $this->take($project, $owner, FlightFilesMade::name($image), $made->image($image), null);
        }
        $names = array_map(FlightFilesMade::name(...), $images);
        $marks = array_filter($made->marks(), static fn (array $m): bool => \in_array($m['image'], $names, true));

        return [$id, array_values($marks)];
    }

    public static function rover(): WallFilesMade
    {
        return new WallFilesMade(new WallScene(493880.0, 6028300.0, 231.0));
    }

    /**
     * Groups of images that a rover took of a barn beside the field.
     *
     * @param array<string, list<int>> $only     images of each group
     * @param ?\Closure(float): void   $progress
     *
     * @return list<int> database ids of the groups
     */
    public function bringGroups(Project $project, User $owner, array $only, ?\Closure $progress = null): array
    {
        $made = self::rover();
        $ids = [];
        $done = 0;
        foreach ($only as $group => $images) {
            $file = json_decode($made->group($group), true, 64, \JSON_THROW_ON_ERROR);
            $file['images'] = array_values(array_intersect_key($file['images'], array_flip($images)));
            $json = json_encode($file, \JSON_PRETTY_PRINT | \JSON_UNESCAPED_SLASHES | \JSON_THROW_ON_ERROR);
            $ids[] = $this->take($project, $owner, WallFilesMade::file($group), $json."\n", null);
            foreach ($images as $image) {
                if (null !== $progress) {
                    $progress($done++ / array_sum(array_map(count(...), $only)));
                }
                $this->take($project, $owner, WallFilesMade::name($group, $image), $made->image($group, $image), null);
            }
        }

        return $ids;
    }

    private function take(Project $project, User $owner, string $name, string $contents, ?Meaning $meaning): int
    {
        $received = $this->intake->receive($name, $contents, $owner);
        $this->ledger->carryOut($project, $owner->name(), $received);
        if (null !== $meaning) {
            $this->ledger->carryOut($project, $owner->name(), $this->intake->mean($received->id(), $meaning));
        }
        $this->ledger->carryOut($project, $owner->name(), $this->intake->accept($received->id(), false));

        return $received->id();
    }
}
