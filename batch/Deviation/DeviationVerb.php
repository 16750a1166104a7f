<?php

declare(strict_types=1);

namespace Batch\Deviation;

use Batch\Input;
use Batch\Output;
use Batch\Verb;
use Mensura\Deviation\Along;
use Mensura\Deviation\DeviationStatistics;
use Mensura\Deviation\ElevationReference;
use Mensura\Deviation\FittedPlane;
use Mensura\Deviation\MeshReference;
use Mensura\Deviation\Reference;
use Mensura\Exchange\Faces\FaceFile;
use Mensura\Exchange\Points\PointFile;
use Mensura\Exchange\PointsCsv\PointsCsvReader;
use Mensura\Fault\UnusableInput;
use Mensura\Mesh\Mesh;
use Mensura\Surface\SurfaceBuilder;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;

#[AsCommand('deviation', 'Measured points against a surface, mesh, plane or elevation; prints mensura-deviation/1 JSON')]
final class DeviationVerb extends Verb
{
    private const PLANE = 'plane';
    private const SURFACE = 'surface';

    protected function configure(): void
    {
        $this->addArgument('files', InputArgument::IS_ARRAY, 'the measured points: CSV id,e,n,h, LAS, LAZ, PLY or XYZ');
        foreach ([
            'reference' => 'LandXML surface, DXF faces, PLY mesh, CSV of points, or an elevation',
            'reference-as' => 'surface or plane: what points of a reference stand for (surface)',
            'along' => 'vertical, or normal of the reference',
            'ignore' => 'leave out deviations of a greater size, metres',
            'bands' => 'limits between bands, growing, as -0.01,0,0.01',
            'out' => 'file the deviation of every point is written to, as CSV',
        ] as $name => $what) {
            $this->addOption($name, null, InputOption::VALUE_REQUIRED, $what);
        }
    }

    protected function answer(InputInterface $input): void
    {
        $file = self::onlyFile($input, 'measured');
        $along = Along::tryFrom(self::text($input, 'along') ?? '')
            ?? throw new UnusableInput('--along', \sprintf('"%s" is neither vertical nor normal', self::text($input, 'along')));
        $as = self::text($input, 'reference-as') ?? self::SURFACE;
        if (!\in_array($as, [self::SURFACE, self::PLANE], true)) {
            throw new UnusableInput('--reference-as', \sprintf('"%s" is neither surface nor plane', $as));
        }
        $wanted = self::text($input, 'reference') ?? throw new UnusableInput('--reference', 'names what to compare with; it is missing');
        if ('-' === $file && '-' === $wanted) {
            throw new UnusableInput('--reference', 'standard input holds one file, not two');
        }
        $ignore = self::distance($input, 'ignore');
        $edges = self::edges(self::text($input, 'bands'));
        new DeviationStatistics([], null, $edges); // bands are looked at before files
        $reference = $this->reference($wanted, $as);
        $measured = PointFile::read(Input::path($file), $file);
        if ([] === $measured->x) {
            throw new UnusableInput($file, 'holds no points');
        }
        $deviations = $reference->deviations($measured->x, $measured->y, $measured->z, $along);
        $statistics = new DeviationStatistics($deviations, $ignore, $edges);
        if (0 === $statistics->used) {
            $nearest = null === $statistics->nearestBeyond ? '' : \sprintf('; the nearest is %.3f m away', $statistics->nearestBeyond);
            $this->say("warning: $file: no measured point lies on the reference within the limit$nearest");
        }
        if (null !== $out = self::text($input, 'out')) {
            Output::whole($out, static fn ($stream) => self::table($stream, $measured, $deviations));
        }
        $this->print(self::result($measured, $deviations, $statistics, $reference));
    }

    private function reference(string $wanted, string $as): Reference
    {
        if (is_numeric($wanted)) {
            return is_finite((float) $wanted)
                ? new ElevationReference((float) $wanted)
                : throw new UnusableInput('--reference', \sprintf('"%s" is no elevation', $wanted));
        }
        $path = Input::path($wanted);
        $faces = FaceFile::read($path, $wanted);
        try {
            foreach ($faces->warnings ?? [] as $warning) {
                $this->say("warning: $wanted: $warning");
            }
            if (null !== $faces) {
                return self::PLANE === $as
                    ? FittedPlane::through($faces->x, $faces->y, $faces->z)
                    : new MeshReference(Mesh::of($faces->x, $faces->y, $faces->z, $faces->triangles));
            }
            ['names' => $names, 'x' => $x, 'y' => $y, 'z' => $z] = PointsCsvReader::read(Input::open($path), $wanted);
            if (self::PLANE === $as) {
                return FittedPlane::through($x, $y, $z);
            }
            $builder = new SurfaceBuilder($x, $y, $z, $names, [], false);
            $tin = $builder->build(null);
        } catch (UnusableInput $e) {
            throw str_starts_with($e->where, $wanted) ? $e : new UnusableInput(trim("$wanted {$e->where}"), $e->reason);
        }
        foreach ($builder->warnings as $warning) {
            $this->say("warning: $warning");
        }

        return new MeshReference(Mesh::of($tin->x, $tin->y, $tin->z, $tin->triangles));
    }

    /** @return list<float> */
    private static function edges(?string $text): array
    {
        $edges = [];
        foreach (null === $text ? [] : explode(',', $text) as $part) {
            if (!is_numeric(trim($part)) || !is_finite((float) $part)) {
                throw new UnusableInput('--bands', \sprintf('"%s" is not a number', $part));
            }
            $edges[] = (float) $part;
        }

        return $edges;
    }

    /**
     * @param resource    $stream
     * @param list<float> $deviations
     */
    private static function table($stream, PointFile $measured, array $deviations): void
    {
        fwrite($stream, "id,e,n,h,deviation\n");
        foreach ($deviations as $i => $d) {
            $id = $measured->names[$i] ?? (string) ($i + 1);
            $id = 1 === preg_match('/[",\r\n]/', $id) ? '"'.strtr($id, ['"' => '""']).'"' : $id;
            $coordinates = json_encode($measured->x[$i]).','.json_encode($measured->y[$i]).','.json_encode($measured->z[$i]);
            fwrite($stream, $id.','.$coordinates.','.(is_nan($d) ? '' : \sprintf('%.9F', $d))."\n");
        }
    }

    /**
     * @param list<float> $deviations
     *
     * @return array<string, mixed>
     */
    private static function result(PointFile $measured, array $deviations, DeviationStatistics $s, Reference $reference): array
    {
        $result = [
            'format' => 'mensura-deviation/1', 'measured' => $s->measured, 'used' => $s->used,
            'ignored' => ['beyond' => $s->beyond, 'outside' => $s->outside],
            'mean' => $s->mean, 'rms' => $s->rms, 'sd' => $s->sd, 'min' => $s->min, 'max' => $s->max, 'median' => $s->median,
            'bands' => $s->bands,
        ];
        if ($reference instanceof FittedPlane) {
            $result['plane'] = ['normal' => $reference->normal, 'point' => $reference->point, 'sd' => $reference->sd];
        }

        return $result + ['worst' => array_map(static fn (int $i): array => [
            'id' => $measured->names[$i] ?? (string) ($i + 1), 'e' => $measured->x[$i], 'n' => $measured->y[$i], 'h' => $measured->z[$i],
            'deviation' => $deviations[$i],
        ], $s->worst)];
    }
}
