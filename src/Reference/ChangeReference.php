<?php

declare(strict_types=1);

namespace App\Reference;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;

/**
 * Gives the project another system, other heights or another geoid. Everything known globally follows; what is known
 * only locally keeps its numbers and is marked so. All or nothing.
 *
 * @phpstan-type Row array{name: string, e: ?float, n: ?float, h: ?float, newE: ?float, newN: ?float, newH: ?float, known: string}
 */
final class ChangeReference implements Operation
{
    private string $title = '';

    /** @var array<string, mixed> */
    private array $detail = [];

    /** @param ?string $operation name of the transformation chosen; null takes the best for the points */
    public function __construct(
        private readonly Connection $connection,
        private readonly ProjectReference $references,
        private readonly string $reference,
        private readonly string $heights,
        private readonly string $geoid,
        private readonly ?string $operation = null,
        private readonly ?float $epoch = null,
    ) {
    }

    public function name(): string
    {
        return 'change-reference';
    }

    public function title(): string
    {
        return $this->title;
    }

    public function detail(): array
    {
        return $this->detail;
    }

    /**
     * What would move, without moving it.
     *
     * @return array{movement: ?Movement, rows: list<Row>, local: int}
     */
    public function preview(Project $project): array
    {
        $this->check($project);
        $movement = $this->movement($project);
        $rows = [];
        $local = 0;
        foreach ($this->connection->fetchAllAssociative('SELECT name, e, n, h, known FROM point WHERE project_id = ? AND e IS NOT NULL AND n IS NOT NULL ORDER BY role = \'surveyed\', id', [$project->id()]) as $p) {
            $h = null === $p['h'] ? null : (float) $p['h'];
            $moves = null !== $movement && 'global' === $p['known'];
            [$e, $n, $new] = $moves ? $movement->apply((string) $p['name'], (float) $p['e'], (float) $p['n'], $h) : [(float) $p['e'], (float) $p['n'], $h];
            $local += $moves ? 0 : 1;
            $rows[] = ['name' => (string) $p['name'], 'e' => (float) $p['e'], 'n' => (float) $p['n'], 'h' => $h, 'newE' => $e, 'newN' => $n, 'newH' => $new, 'known' => $moves ? 'global' : 'local'];
        }

        return ['movement' => $movement, 'rows' => $rows, 'local' => $local];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $this->check($project);
        $movement = $this->movement($project);
        $fields = ['reference' => $this->reference, 'heights' => $this->heights, 'geoid' => 'geoid' === $this->heights ? $this->geoid : ''];
        $moved = $stay = 0;
        $isPlane = \in_array(Project::PLANE, [$this->reference, $project->reference()], true);
        foreach ($this->connection->fetchAllAssociative('SELECT id, name, e, n, h, given_e, given_n, given_h, known FROM point WHERE project_id = ?', [$project->id()]) as $p) {
            $known = $isPlane ? 'local' : (string) $p['known'];
            if (null === $movement || 'global' !== $p['known']) {
                ++$stay;
                $journal->update('point', (int) $p['id'], ['known' => $known]);
                continue;
            }
            $journal->update('point', (int) $p['id'], $this->moved($movement, $p, ['e', 'n', 'h']) + $this->moved($movement, $p, ['given_e', 'given_n', 'given_h']) + ['known' => $known]);
            ++$moved;
        }
        if (null !== $movement) {
            SurfaceLines::move($this->connection, $journal, $project, static function (string $surface, float $e, float $n) use ($movement): array {
                [$x, $y] = $movement->apply('a line of surface '.$surface, $e, $n, null);

                return [$x, $y];
            });
        }
        $journal->update('project', $project->id(), $fields);
        $label = Project::PLANE === $this->reference ? 'plane local system' : ($this->references->system($project->id(), $this->reference)?->label() ?? $this->reference);
        $heights = match ($this->heights) {
            'geoid' => 'heights above '.$this->references->geoid($project->id(), $this->geoid)->name,
            'ellipsoidal' => 'ellipsoidal heights',
            default => 'local heights',
        };
        $this->title = \sprintf('Stated the reference: %s, %s%s%s', $label, $heights, $moved > 0 ? \sprintf('; %d points followed', $moved) : '', $stay > 0 && null !== $movement ? \sprintf(', %d known only locally stay', $stay) : '');
        $this->detail = [
            'from' => ['reference' => $project->reference(), 'heights' => $project->heights(), 'geoid' => $project->geoid()], 'to' => $fields, 'moved' => $moved, 'localOnly' => $stay,
            'operation' => null === $movement ? null : $movement->route->describe()['operation'],
        ];
    }

    private function check(Project $project): void
    {
        if (Project::PLANE === $this->reference) {
            if ('local' !== $this->heights) {
                throw new UnusableInput('/heights', 'a plane local system has local heights');
            }

            return;
        }
        $system = $this->references->projected($project->id(), $this->reference);
        if ('local' === $this->heights) {
            throw new UnusableInput('/heights', 'a projected system has ellipsoidal heights or heights above a geoid');
        }
        if ('geoid' === $this->heights) {
            $geoid = $this->references->geoid($project->id(), $this->geoid);
            ProjectReference::fits($geoid, $system);
            $extent = $this->references->extent($project);
            if (null !== $extent && Project::PLANE !== $project->reference() && $project->reference() === $this->reference && !$geoid->area()->covers($extent)) {
                throw new UnusableInput('/geoid', \sprintf('the geoid %s does not cover the project: it reaches from %.3f to %.3f degrees north and %.3f to %.3f degrees east', $geoid->name, $geoid->south, $geoid->north(), $geoid->west, $geoid->east()));
            }
        }
    }

    /** Points whose coordinates would move. */
    private function onGrid(Project $project): int
    {
        return (int) $this->connection->fetchOne("SELECT COUNT(*) FROM point WHERE project_id = ? AND known = 'global' AND (e IS NOT NULL OR given_e IS NOT NULL)", [$project->id()]);
    }

    private function movement(Project $project): ?Movement
    {
        $from = $this->references->of($project);
        $to = $this->references->system($project->id(), $this->reference);
        if (null === $from || null === $to || 0 === $this->onGrid($project)) {
            return null;
        }

        return Movement::between(
            $this->references, $project, $from, $this->references->geoidOf($project), $project->reference() === $this->reference ? $from : $to,
            'geoid' === $this->heights ? $this->references->geoid($project->id(), $this->geoid) : null, $this->references->extent($project), $this->operation, $this->epoch,
        );
    }

    /**
     * @param array<string, mixed>               $p
     * @param array{string, string, string} $columns
     *
     * @return array<string, ?float>
     */
    private function moved(Movement $movement, array $p, array $columns): array
    {
        [$ce, $cn, $ch] = $columns;
        if (null === $p[$ce] || null === $p[$cn]) {
            // A height alone follows where the point itself lies; without a place it cannot.
            if (null === $p[$ch] || null === $p['e'] || null === $p['n']) {
                return [];
            }

            return [$ch => $movement->apply((string) $p['name'], (float) $p['e'], (float) $p['n'], (float) $p[$ch])[2]];
        }
        $new = $movement->apply((string) $p['name'], (float) $p[$ce], (float) $p[$cn], null === $p[$ch] ? null : (float) $p[$ch]);

        return [$ce => $new[0], $cn => $new[1], $ch => $new[2]];
    }
}
