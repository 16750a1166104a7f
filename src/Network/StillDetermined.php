<?php

declare(strict_types=1);

namespace App\Network;

use App\Project\Project;
use App\Survey\Observation as Stored;
use Mensura\Fault\UnusableInput;
use Mensura\Network\Adjustment;
use Mensura\Network\NetworkDefinition;
use Mensura\Observation\Observation;

/** Whether every station is still determined when some observations are set aside. */
final readonly class StillDetermined
{
    public function __construct(private NetworkAssembly $assembly)
    {
    }

    /**
     * @param list<Chosen> $rows
     *
     * @throws UnusableInput naming the stations that would be lost; nothing when the network is undetermined already
     */
    public function without(Project $project, array $rows): void
    {
        $free = NetworkSettings::of($project)->free;
        try {
            [$network, $ids] = $this->assembly->of($project);
            self::solve($network, $free);
        } catch (UnusableInput) {
            return;
        }
        $bits = [];
        foreach ($rows as $row) {
            $bits[$row->id] = ($bits[$row->id] ?? 0) | $row->bits();
        }
        $observations = $network->observations;
        foreach ($ids as $i => $id) {
            if (isset($bits[$id])) {
                $observations[$i] = self::aside($observations[$i], $bits[$id]);
            }
        }
        try {
            self::solve(new NetworkDefinition($network->frame, $network->settings, $network->stations, array_values($observations)), $free);
        } catch (UnusableInput $e) {
            throw new UnusableInput('/rows', 'without these the network is not determined any more: '.$e->reason);
        }
    }

    private static function aside(Observation $o, int $bits): Observation
    {
        $used = [];
        foreach (array_values(Stored::COMPONENTS) as $k => $bit) {
            $used[] = $o->used[$k] && 0 === ($bits & $bit);
        }

        return $o->with(['used' => [$used[0], $used[1], $used[2]]]);
    }

    private static function solve(NetworkDefinition $network, bool $free): void
    {
        (new Adjustment($network, $free, true))->run();
    }
}
