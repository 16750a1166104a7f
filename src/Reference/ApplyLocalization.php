<?php

declare(strict_types=1);

namespace App\Reference;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use Doctrine\DBAL\Connection;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Localization\Localization;
use Mensura\Reference\Localization\LocalizationJson;
use Mensura\Reference\Localization\UnusablePairs;

/** Brings everything known only locally onto the grid of a localization; a plane project becomes one in that system. */
final class ApplyLocalization implements Operation
{
    private string $title = '';

    /** @var array<string, mixed> */
    private array $detail = [];

    public function __construct(private readonly Connection $connection, private readonly ProjectReference $references, private readonly int $localization)
    {
    }

    public function name(): string
    {
        return 'apply-localization';
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
        [$name, $system, $heights, $l] = self::read($this->connection, $project, $this->localization);
        [$kind, $geoid] = explode('|', $heights, 2) + [1 => ''];
        $wasPlane = Project::PLANE === $project->reference();
        if (!$wasPlane && ($project->reference() !== $system || $project->heights() !== $kind || $project->geoid() !== $geoid)) {
            throw new UnusableInput('/localization', \sprintf('"%s" leads to %s with %s heights, but the project is in %s with %s heights; change the project\'s system first', $name, $system, $kind, $project->reference(), $project->heights()));
        }
        if ($wasPlane) {
            $target = $this->references->projected($project->id(), $system);
            if ('geoid' === $kind) {
                ProjectReference::fits($this->references->geoid($project->id(), $geoid), $target);
            }
        }
        $moved = 0;
        foreach ($this->connection->fetchAllAssociative("SELECT id, e, n, h, given_e, given_n, given_h FROM point WHERE project_id = ? AND known = 'local'", [$project->id()]) as $p) {
            $fields = ['known' => 'global'];
            foreach ([['e', 'n', 'h'], ['given_e', 'given_n', 'given_h']] as [$ce, $cn, $ch]) {
                if (null !== $p[$ce] && null !== $p[$cn]) {
                    [$e, $n] = $l->toGrid((float) $p[$ce], (float) $p[$cn]);
                    $fields += [$ce => $e, $cn => $n, $ch => null === $p[$ch] ? null : $l->heightToGrid((float) $p[$ce], (float) $p[$cn], (float) $p[$ch])];
                } elseif (null !== $p[$ch] && null !== $p['e'] && null !== $p['n']) {
                    // A height given alone follows where the point itself lies.
                    $fields += [$ch => $l->heightToGrid((float) $p['e'], (float) $p['n'], (float) $p[$ch])];
                }
            }
            $journal->update('point', (int) $p['id'], $fields);
            ++$moved;
        }
        if (0 === $moved && !$wasPlane) {
            throw new UnusableInput('/localization', 'no point of the project is known only locally; there is nothing to bring onto the grid');
        }
        if ($wasPlane) {
            SurfaceLines::move($this->connection, $journal, $project, static fn (string $surface, float $e, float $n): array => $l->toGrid($e, $n));
            $journal->update('project', $project->id(), ['reference' => $system, 'heights' => $kind, 'geoid' => $geoid]);
        }
        $this->title = \sprintf('Applied the localization %s: %d points now in %s', $name, $moved, $system);
        $this->detail = ['localization' => $name, 'moved' => $moved, 'system' => $system, 'heights' => $heights];
    }

    /** @return array{string, string, string, Localization} name, system, heights ("kind" or "geoid|which"), localization */
    public static function read(Connection $connection, Project $project, int $id): array
    {
        $row = $connection->fetchAssociative('SELECT name, file FROM localization WHERE id = ? AND project_id = ?', [$id, $project->id()]);
        if (false === $row) {
            throw new UnusableInput('/localization', 'there is no such localization in this project');
        }
        try {
            $file = LocalizationJson::read((string) $row['file']);
        } catch (UnusablePairs $e) {
            throw new UnusableInput('/localization', $e->getMessage());
        }

        return [(string) $row['name'], $file['system'], $file['heights'], $file['localization']];
    }
}
