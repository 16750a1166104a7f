<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Ledger\Results;
use App\Project\Project;
use App\Store\FileStore;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;

/** Adjusted values become the project's coordinates. */
final class AcceptCoordinates implements Operation
{
    public const SLOT = 'coordinates';
    public const KIND = 'coordinates';

    private string $title = '';

    /** @var array<string, mixed> */
    private array $detail = [];

    public function __construct(private readonly Connection $connection, private readonly Results $results, private readonly FileStore $store)
    {
    }

    public function name(): string
    {
        return 'accept-coordinates';
    }

    public function title(): string
    {
        return $this->title;
    }

    public function detail(): array
    {
        return $this->detail;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $network = $this->results->current($project)[Adjuster::SLOT] ?? throw new UnusableInput('', 'there is no adjustment to accept; adjust the network first');
        if (isset($this->results->stale($project)[Adjuster::SLOT])) {
            throw new UnusableInput('', 'the adjustment is stale; adjust again, then accept');
        }
        if (true !== $network['summary']['converged']) {
            throw new UnusableInput('', 'the adjustment did not converge, so it has no coordinates to accept');
        }
        $existing = [];
        foreach ($this->connection->fetchAllAssociative('SELECT id, name, e, n, h FROM point WHERE project_id = ?', [$project->id()]) as $row) {
            $existing[(string) $row['name']] = $row;
        }
        $largest = 0.0;
        $where = '';
        $hash = hash_init('sha256');
        $stations = $this->store->getJson($network['output'])['stations'];
        foreach ($stations as $s) {
            if (null === $s['e']) {
                continue; // a height without a plan position
            }
            // To the hundredth of a millimetre: what is stored is what is shown and handed over.
            $values = ['e' => round($s['e'], 5), 'n' => round($s['n'], 5), 'h' => round($s['h'], 5), 'source' => 'adjusted'] + (Project::PLANE === $project->reference() ? [] : ['known' => 'global']);
            hash_update($hash, json_encode([$s['id'], $values], \JSON_THROW_ON_ERROR));
            $p = $existing[$s['id']] ?? null;
            if (null === $p) {
                $journal->insert('point', ['project_id' => $project->id(), 'name' => $s['id'], 'role' => 'adjusted', 'code' => '', 'known' => Project::PLANE === $project->reference() ? 'local' : 'global'] + $values);
                continue;
            }
            if (null !== $p['e'] && ($moved = hypot($values['e'] - $p['e'], $values['n'] - $p['n'])) > $largest) {
                $largest = $moved;
                $where = (string) $s['id'];
            }
            $journal->update('point', (int) $p['id'], $values);
        }
        $this->title = \sprintf('Accepted coordinates of %d stations from run %d%s', \count($stations), $network['run'], $largest > 0.0 ? \sprintf('; largest move %.1f mm at %s', 1000.0 * $largest, $where) : '');
        $this->detail = ['run' => $network['run'], 'largestMove' => $largest];
        $this->results->record($project, $journal, self::SLOT, self::KIND, 'Accepted coordinates', [], [Adjuster::SLOT], ['run' => $network['run']], ['stations' => \count($stations)], hash_final($hash));
    }
}
