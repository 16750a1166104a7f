<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Project\Project;
use App\Store\Versioned;
use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;

/**
 * A run of a project's levelling book as it was typed or read: rows in order, metres. It may be unfinished; what is wrong
 * with it is said when it is worked out.
 *
 * @phpstan-type Row array{kind: string, point: string, reading: ?float, distance: ?float}
 */
#[ORM\Entity(repositoryClass: LevelRunRepository::class)]
#[ORM\Table(name: 'level_run')]
#[ORM\UniqueConstraint(name: 'level_run_name', columns: ['project_id', 'name'])]
#[ORM\Index(name: 'level_run_project', columns: ['project_id'])]
class LevelRun implements Versioned
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    #[ORM\Column(options: ['default' => 0])]
    private int $version = 0;

    /** @param list<Row> $rows */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')]
        public readonly Project $project,
        #[ORM\Column(length: 60)]
        public string $name,
        #[ORM\Column(length: 4)]
        public string $pattern,
        #[ORM\Column(name: 'sights', type: Types::JSON)]
        public array $rows,
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
    }

    public function version(): int
    {
        return $this->version;
    }

    public function changedBy(int $seq): void
    {
        $this->version = $seq;
    }

    /** A point has another name now. */
    public function rename(string $from, string $to): void
    {
        foreach ($this->rows as $i => $row) {
            if ($row['point'] === $from) {
                $this->rows[$i]['point'] = $to;
            }
        }
    }
}
