<?php

declare(strict_types=1);

namespace App\Design;

use App\Ledger\Journal;
use App\Ledger\Operation;
use App\Project\Project;
use App\Survey\ImportedPoint;
use App\Survey\Point;
use App\Survey\PointRepository;
use App\Survey\SurveyFileRepository;
use Mensura\Fault\UnusableInput;

/**
 * Corners of a drawing become points of the project, named one after the other. In the order they are given: the points of a line
 * under a code of their own are a breakline wherever lines run along codes.
 */
final class TakePoints implements Operation
{
    private const MOST = 20_000;

    private string $title = '';

    /** @var array<string, mixed> */
    private array $detail = [];

    /** @param list<int> $corners of the drawing */
    public function __construct(
        private readonly SurveyFileRepository $files,
        private readonly DesignFiles $designs,
        private readonly PointRepository $points,
        private readonly int $file,
        private readonly array $corners,
        private readonly string $prefix,
        private readonly string $code,
        private readonly float $metre,
    ) {
    }

    public function name(): string
    {
        return 'take-points';
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
        if ([] === $this->corners || \count($this->corners) > self::MOST) {
            throw new UnusableInput('/corners', \sprintf('are one to %d corners of the drawing', self::MOST));
        }
        $drawing = $this->designs->drawing($project, $this->file);
        $file = $this->files->in($project, $this->file) ?? throw new UnusableInput('/design', 'there is no such design file');
        $names = [];
        for ($i = 1, $n = \count($this->corners); $i <= $n; ++$i) {
            $names[] = $this->prefix.$i;
        }
        if ([] !== $taken = array_keys($this->points->allNamed($project, $names))) {
            throw new UnusableInput('/prefix', \sprintf('there is a point %s already; choose another beginning of the names', $taken[0]));
        }
        [$x, $y, $z] = $this->designs->coordinates($project, $this->file, $drawing, $this->metre);
        $made = [];
        foreach ($this->corners as $i => $c) {
            if (!isset($drawing->x[$c])) {
                throw new UnusableInput("/corners/$i", \sprintf('the drawing has no corner %d', $c));
            }
            $made[] = new ImportedPoint(
                0, $names[$i], $this->code, self::place($x[$c]), self::place($y[$c]), self::place($z[$c]),
            );
        }
        $known = $project->isPlane() ? Point::LOCALLY : Point::GLOBALLY;
        $this->points->import($project, $journal, $file, Point::SURVEYED, $known, $made);
        $this->title = \sprintf('Took %d points %s to %s from %s', $n, $names[0], $names[$n - 1], $file->name());
        $this->detail = ['file' => $file->name(), 'points' => $n, 'prefix' => $this->prefix, 'code' => $this->code];
    }

    /** To the hundredth of a millimetre, as every coordinate of a project. */
    private static function place(float $value): float
    {
        return round($value, 5);
    }
}
