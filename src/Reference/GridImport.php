<?php

declare(strict_types=1);

namespace App\Reference;

use App\Store\FileStore;
use Mensura\Fault\UnusableInput;
use Mensura\Reference\Grid\GeoidExtract;
use Mensura\Reference\Grid\GeoidFile;
use Mensura\Reference\Grid\GeoidGrid;
use Mensura\Reference\Grid\Gtx;
use Mensura\Reference\Grid\Ntv2Grid;
use Mensura\Reference\Grid\UnreadableGrid;

/** Brings grids into a project: files that arrive, and extracts that are made. */
final class GridImport
{
    private const NTV2 = 'NUM_OREC';
    private const LONGEST_ELLIPSOID = 60;

    public function __construct(private readonly FileStore $store, private readonly ReferenceOperations $operations)
    {
    }

    /**
     * @param string $ellipsoid the one its heights are above, where the file does not say
     *
     * @throws UnusableInput
     */
    public function file(string $name, string $bytes, string $ellipsoid): Keep
    {
        $name = preg_replace('/[^\p{L}\p{N}._ -]/u', '_', $name) ?? 'grid';
        $ellipsoid = mb_substr(trim($ellipsoid), 0, self::LONGEST_ELLIPSOID);
        try {
            if (str_starts_with($bytes, self::NTV2)) {
                new Ntv2Grid($name, $bytes);
                $kind = GridFile::SHIFT;
                $info = ['notes' => ['used wherever a transformation asks for a grid of this name']];
                $what = 'shift grid';
            } else {
                $grid = GeoidFile::read($name, $bytes);
                $kind = GridFile::GEOID;
                $own = '' === $grid->ellipsoid ? 'WGS 84' : $grid->ellipsoid;
                $info = self::info($grid, '' === $ellipsoid ? $own : $ellipsoid);
                $what = \sprintf('geoid, %d by %d nodes', $grid->rows, $grid->columns);
            }
        } catch (UnreadableGrid $e) {
            throw new UnusableInput('/file', $e->getMessage());
        }
        $new = new NewGrid($name, $kind, GridFile::IMPORTED, $this->store->put($bytes), \strlen($bytes), $info);

        return $this->operations->keepGrid(
            'import-grid', $new, \sprintf('Imported %s: %s', $name, $what),
            ['file' => $name, 'sha256' => $new->sha256],
        );
    }

    /**
     * @return array{Keep, array{count: int, largest: float, mean: float, rms: float}} and how it compares with its source
     *
     * @throws UnusableInput
     */
    public function extract(PlannedExtract $planned): array
    {
        $name = $planned->name;
        try {
            $grid = $planned->plan->make($name, $planned->ellipsoid, $planned->route);
            $bytes = Gtx::write($grid);
            // The file handed over is the file checked: read back, and compared with the source at random places.
            $check = GeoidExtract::verify(Gtx::read($name, $bytes), $planned->source, $planned->route);
        } catch (\DomainException $e) {
            throw new UnusableInput('/geoid', $e->getMessage());
        }
        $words = 'checked at %d random places against %s: largest difference %.4f m, rms %.4f m';
        $note = \sprintf($words, $check['count'], $planned->source->name, $check['largest'], $check['rms']);
        $info = self::info($grid, $planned->ellipsoid) + ['notes' => array_values(array_filter([$note, $planned->warning()]))];
        $new = new NewGrid($name, GridFile::GEOID, GridFile::EXTRACT, $this->store->put($bytes), \strlen($bytes), $info);
        $title = \sprintf('Made the geoid extract %s; %s', $name, $note);

        return [
            $this->operations->keepGrid('geoid-extract', $new, $title, ['source' => $planned->source->name, 'check' => $check]),
            $check,
        ];
    }

    /** @return array{bounds: list<float>, step: float, ellipsoid: string} */
    private static function info(GeoidGrid $grid, string $ellipsoid): array
    {
        return ['bounds' => $grid->area()->bounds(), 'step' => $grid->dLat, 'ellipsoid' => $ellipsoid];
    }
}
