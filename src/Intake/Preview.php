<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\View\AskView;
use App\Intake\View\ColumnView;
use App\Intake\View\FieldView;
use App\Intake\View\FindingView;
use App\Intake\View\KindView;
use App\Intake\View\MeaningView;
use App\Intake\View\PlacedPoint;
use App\Intake\View\PreviewView;
use App\Project\Project;
use App\Store\FileStore;
use Doctrine\DBAL\Connection;
use Mensura\Exchange\Delimited\Field;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Finding;
use Mensura\Fault\UnusableInput;
use Mensura\Quantity\Unit;

/** What a waiting file would bring: counts, places, questions, and what is odd about it against what the project knows. */
final class Preview
{
    private const SHOWN_FINDINGS = 200;
    private const DISTANCE_MISMATCH = 0.02;

    public function __construct(private readonly FileStore $store, private readonly Connection $connection, private readonly Placer $placer)
    {
    }

    public function of(SurveyFile $file): PreviewView
    {
        $kinds = array_map(static fn (FileKind $k): KindView => new KindView($k->value, $k->label()), FileKind::cases());
        try {
            $reading = FileReading::of($this->store, $file);
        } catch (UnusableInput $e) {
            return new PreviewView($file->id(), $file->name(), $file->size(), $file->sha256(), '', $kinds, [], [], [], 0, [], 0, [], null, [], [], $file->name().', '.$e->getMessage(), false, null);
        }
        $placed = $this->placer->place($file->project(), $reading);
        $known = $this->knownPoints($file->project()->id(), $placed->known);
        [$points, $rays] = $this->places($placed->records, $known);
        $findings = array_merge($this->twice($file), $placed->findings, $reading->reader->findings, $this->against($placed->records, $known));
        $questions = array_map(static fn (Field $f): string => \sprintf('In which unit is %s?', $f->label), $reading->mapping->questions());
        $errors = \count(array_filter($findings, static fn (Finding $f): bool => Finding::ERROR === $f->severity && null === $f->line));
        $e = array_map(static fn (PlacedPoint $p): float => $p->e, $points);
        $n = array_map(static fn (PlacedPoint $p): float => $p->n, $points);

        return new PreviewView(
            $file->id(), $file->name(), $file->size(), $file->sha256(), $reading->mapping->kind->value, $kinds,
            $this->columns($reading), $this->fields($reading), $reading->counts(), $reading->reader->leftOut,
            array_map(static fn (Finding $f): FindingView => new FindingView($f->severity, $f->line, $f->message), \array_slice($findings, 0, self::SHOWN_FINDINGS)),
            \count($findings), $questions, [] === $points ? null : [min($e), min($n), max($e), max($n)], $points, $rays, null,
            [] === $questions && [] === $placed->asks && 0 === $errors && [] !== $reading->reader->records, $this->meaning($file->project(), $reading, $placed),
        );
    }

    /** @return array<string, array{name: string, e: ?float, n: ?float, h: ?float}> */
    private function knownPoints(int $project, string $kind): array
    {
        $known = [];
        foreach ($this->connection->fetchAllAssociative('SELECT name, e, n, h FROM point WHERE project_id = ? AND known = ?', [$project, $kind]) as $row) {
            $known[(string) $row['name']] = ['name' => (string) $row['name'], 'e' => null === $row['e'] ? null : (float) $row['e'], 'n' => null === $row['n'] ? null : (float) $row['n'], 'h' => null === $row['h'] ? null : (float) $row['h']];
        }

        return $known;
    }

    /** @return list<ColumnView> */
    private function columns(FileReading $reading): array
    {
        $columns = [];
        foreach ($reading->table->header as $i => $heading) {
            $columns[] = new ColumnView($i, $heading, array_map(static fn (array $row): string => $row[$i] ?? '', \array_slice($reading->table->rows, 0, 4)));
        }

        return $columns;
    }

    /** @return list<FieldView> */
    private function fields(FileReading $reading): array
    {
        return array_map(static fn (Field $f): FieldView => new FieldView(
            $f->key, $f->label, $f->quantity, $reading->mapping->requires($f), $reading->mapping->columns[$f->key] ?? null,
            ($reading->mapping->units[$f->key] ?? null)?->value, array_map(static fn (Unit $u): string => $u->value, Unit::of($f->quantity)),
        ), $reading->mapping->kind->fields());
    }

    private function meaning(Project $project, FileReading $reading, Placement $placed): ?MeaningView
    {
        if (!\in_array($reading->mapping->kind, [FileKind::Control, FileKind::Points], true) || Project::PLANE === $project->reference()) {
            return null;
        }
        $m = $reading->meaning;

        return new MeaningView(
            $m->frame, $m->heights, $reading->mapping->heightsSaid($reading->table) ?? '', '' !== $m->geoid ? $m->geoid : $project->geoid(), $m->swap, $m->far, $m->sign, $m->operation, $reading->mapping->isGeographic(),
            isset($reading->mapping->columns['h']), array_map(static fn (string $key, string $text): AskView => new AskView($key, $text, 'sign' === $key ? $placed->offer : ''), array_keys($placed->asks), $placed->asks),
            $placed->ways,
        );
    }

    /**
     * @param list<array<string, mixed>> $records
     * @param array<string, array{name: string, e: ?float, n: ?float, h: ?float}> $known
     *
     * @return array{list<PlacedPoint>, list<list<int>>} points, and pairs of them that observations join
     */
    private function places(array $records, array $known): array
    {
        $points = $rays = $number = [];
        $place = static function (string $name, ?float $e, ?float $n, bool $isKnown) use (&$points, &$number): ?int {
            if (isset($number[$name])) {
                return $number[$name];
            }
            if (null === $e || null === $n) {
                return null;
            }
            $number[$name] = \count($points);
            $points[] = new PlacedPoint($name, $e, $n, $isKnown);

            return $number[$name];
        };
        $seen = [];
        foreach ($records as $record) {
            if (isset($record['name'])) {
                $place($record['name'], $record['e'], $record['n'], isset($known[$record['name']]));
                continue;
            }
            [$from, $to] = [$record['station'] ?? $record['from'], $record['target'] ?? $record['to']];
            $a = $place($from, $known[$from]['e'] ?? null, $known[$from]['n'] ?? null, true);
            $b = $place($to, $known[$to]['e'] ?? null, $known[$to]['n'] ?? null, true);
            if (null !== $a && null !== $b && !isset($seen["$a $b"])) {
                $seen["$a $b"] = true;
                $rays[] = [$a, $b];
            }
        }

        return [$points, $rays];
    }

    /** @return list<Finding> */
    private function twice(SurveyFile $file): array
    {
        $other = $this->connection->fetchAssociative("SELECT name, accepted_at FROM survey_file WHERE project_id = ? AND sha256 = ? AND id <> ? AND state = 'accepted'", [$file->project()->id(), $file->sha256(), $file->id()]);

        return false === $other ? [] : [new Finding(Finding::WARNING, null, \sprintf('the same file is already here as %s, accepted %s UTC', $other['name'], substr($other['accepted_at'], 0, 16)))];
    }

    /**
     * Names and distances against what is known.
     *
     * @param list<array<string, mixed>> $records
     * @param array<string, array{name: string, e: ?float, n: ?float, h: ?float}> $known
     *
     * @return list<Finding>
     */
    private function against(array $records, array $known): array
    {
        $findings = [];
        $plain = [];
        foreach (array_keys($known) as $name) {
            $plain[self::plain((string) $name)][] = (string) $name;
        }
        $asked = [];
        foreach ($records as $record) {
            foreach (isset($record['name']) ? [$record['name']] : [$record['station'] ?? $record['from'], $record['target'] ?? $record['to']] as $name) {
                if (isset($asked[$name])) {
                    continue;
                }
                $asked[$name] = true;
                if (isset($known[$name])) {
                    if (isset($record['name'], $record['e']) && null !== $known[$name]['e']) {
                        $apart = hypot($record['e'] - $known[$name]['e'], $record['n'] - (float) $known[$name]['n']);
                        $findings[] = new Finding(Finding::WARNING, $record['line'], \sprintf('%s is known already, %.3f m away in plan%s', $name, $apart, null !== $record['h'] && null !== $known[$name]['h'] ? \sprintf(' and %+.3f m in height', $record['h'] - $known[$name]['h']) : ''));
                    }
                    continue;
                }
                $alike = $plain[self::plain($name)] ?? [];
                if ([] !== $alike) {
                    $findings[] = new Finding(Finding::WARNING, $record['line'], \sprintf('%s is new, but looks like %s; rename one of them if they are one mark', $name, implode(', ', $alike)));
                }
            }
            if (isset($record['distance'])) {
                $a = $known[$record['station']] ?? null;
                $b = $known[$record['target']] ?? null;
                if (null !== $a && null !== $b && null !== $a['e'] && null !== $b['e']) {
                    $expected = hypot($a['e'] - $b['e'], (float) $a['n'] - (float) $b['n']);
                    $expected = hypot($expected, (float) $a['h'] - (float) $b['h']);
                    if ($expected > 1.0 && abs($record['distance'] / $expected - 1.0) > self::DISTANCE_MISMATCH) {
                        $ratio = $record['distance'] / $expected;
                        $feet = abs($ratio - 1 / 0.3048) < 0.05 ? '; these look like feet read as metres' : (abs($ratio - 0.3048) < 0.01 ? '; these look like metres read as feet' : '');
                        $findings[] = new Finding(Finding::WARNING, $record['line'], \sprintf('distance %s to %s is %.3f m, their coordinates say %.1f m%s', $record['station'], $record['target'], $record['distance'], $expected, $feet));
                    }
                }
            }
        }

        return $findings;
    }

    /** KT1, KT01 and kt-1 are alike. */
    private static function plain(string $name): string
    {
        return (string) preg_replace(['/[^a-z0-9]/', '/(?<![0-9])0+(?=[0-9])/'], '', strtolower($name));
    }
}
