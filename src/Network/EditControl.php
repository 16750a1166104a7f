<?php

declare(strict_types=1);

namespace App\Network;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;

/** Changes what is given about a control mark, or makes a point one. */
final class EditControl implements Operation
{
    private string $title = '';

    /** @param array{e: ?float, n: ?float, h: ?float, held: string, sdE: ?float, sdN: ?float, sdH: ?float} $values */
    public function __construct(private readonly Connection $connection, private readonly string $point, private readonly array $values)
    {
    }

    public function name(): string
    {
        return 'edit-control';
    }

    public function title(): string
    {
        return $this->title;
    }

    public function detail(): array
    {
        return ['point' => $this->point, 'values' => $this->values];
    }

    public function apply(Project $project, Journal $journal): void
    {
        $p = $this->connection->fetchAssociative('SELECT * FROM point WHERE project_id = ? AND name = ?', [$project->id(), $this->point]);
        if (false === $p) {
            throw new UnusableInput('/point', \sprintf('there is no point %s', $this->point));
        }
        $v = $this->values;
        foreach (['e' => $v['e'], 'n' => $v['n'], 'h' => $v['h']] as $c => $value) {
            if (null === $value && str_contains($v['held'], $c)) {
                throw new UnusableInput("/$c", \sprintf('%s cannot be held without a value', $c));
            }
        }
        $fields = ['role' => 'control', 'given_e' => $v['e'], 'given_n' => $v['n'], 'given_h' => $v['h'], 'held' => $v['held'], 'sd_e' => $v['sdE'], 'sd_n' => $v['sdN'], 'sd_h' => $v['sdH']];
        if ('adjusted' !== $p['source']) {
            $fields += ['e' => $v['e'], 'n' => $v['n'], 'h' => $v['h']];
        }
        $journal->update('point', (int) $p['id'], $fields);
        $moved = null !== $p['given_e'] && null !== $v['e'] ? \sprintf(', moved %.3f m in plan', hypot($v['e'] - $p['given_e'], (float) $v['n'] - $p['given_n'])) : '';
        $this->title = \sprintf('Changed control %s%s', $this->point, $moved);
    }
}
