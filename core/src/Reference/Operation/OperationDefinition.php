<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

use Mensura\Reference\Crs\Datum;
use Mensura\Reference\Grid\GridFiles;
use Mensura\Reference\Registry\Registry;

/** Reads one transformation of the registry: its parameters in SI units, and the steps that carry it out. */
final class OperationDefinition
{
    private const FRAME = ['1032', '1056', '1066', '9607', '9636', '1034', '1039'];

    public function __construct(private readonly Registry $registry, private readonly GridFiles $files, private readonly ?float $epoch)
    {
    }

    /**
     * @param array<string, int|float|string|null> $row of coordinate_operation_view
     *
     * @return array{
     *     StepDescription, list<string>, list<string>, ?float, \Closure(): list<Step>, list<string>,
     * } description, missing grids, unsupported methods, reference epoch, steps, paths of its grids
     */
    public function read(array $row, Datum $from, Datum $to, bool $reverse, bool $spatial): array
    {
        $key = [$row['auth_name'], $row['code']];
        $source = $row['auth_name'].':'.$row['code'];
        $method = ($reverse ? 'Inverse of ' : '').($row['method_name'] ?? '');

        return match ($row['table_name']) {
            'helmert_transformation' => $this->helmert(
                $this->registry->row('SELECT * FROM helmert_transformation WHERE auth_name = ? AND code = ?', $key) ?? [],
                $method, $source, $from, $to, $reverse, $spatial,
            ),
            'grid_transformation' => $this->grid(
                $this->registry->row('SELECT * FROM grid_transformation WHERE auth_name = ? AND code = ?', $key) ?? [],
                $method, $source, $from, $to, $reverse,
            ),
            default => $this->offset(
                $this->registry->row('SELECT * FROM other_transformation WHERE auth_name = ? AND code = ?', $key) ?? [],
                $method, $source, $from, $to, $reverse, $spatial,
            ),
        };
    }

    /**
     * @param array<string, int|float|string|null> $h
     *
     * @return array{StepDescription, list<string>, list<string>, ?float, \Closure(): list<Step>, list<string>}
     */
    private function helmert(array $h, string $method, string $source, Datum $from, Datum $to, bool $reverse, bool $spatial): array
    {
        $length = fn (
            string $name, string $unit,
        ): float => null === $h[$name] ? 0.0 : (float) $h[$name] * $this->registry->unit((int) $h[$unit])[0];
        $angle = fn (
            string $name, string $unit,
        ): float => null === $h[$name] ? 0.0 : $this->registry->angle((float) $h[$name], (int) $h[$unit]);
        // Rates are stored per second of a year of 31 556 925.445 s (EPSG unit 1029); their factors say so.
        $year = 31556925.445;
        $sign = \in_array((string) $h['method_code'], self::FRAME, true) ? -1.0 : 1.0;
        $rates = null;
        if (null !== $h['rate_tx'] || null !== $h['rate_rx'] || null !== $h['rate_scale_difference']) {
            $rates = [
                'translation' => [
                    $year * $length('rate_tx', 'rate_translation_uom_code'),
                    $year * $length('rate_ty', 'rate_translation_uom_code'),
                    $year * $length('rate_tz', 'rate_translation_uom_code'),
                ],
                'rotation' => [
                    $sign * $year * $length('rate_rx', 'rate_rotation_uom_code'),
                    $sign * $year * $length('rate_ry', 'rate_rotation_uom_code'),
                    $sign * $year * $length('rate_rz', 'rate_rotation_uom_code'),
                ],
                'scale' => $year * $length('rate_scale_difference', 'rate_scale_difference_uom_code'),
            ];
        }
        $epoch = null === $h['epoch'] ? null : (float) $h['epoch'];
        $helmert = new Helmert(
            [$length('tx', 'translation_uom_code'), $length('ty', 'translation_uom_code'), $length('tz', 'translation_uom_code')],
            [
                $sign * $angle('rx', 'rotation_uom_code'), $sign * $angle('ry', 'rotation_uom_code'),
                $sign * $angle('rz', 'rotation_uom_code'),
            ],
            $length('scale_difference', 'scale_difference_uom_code'),
            [$length('px', 'pivot_uom_code'), $length('py', 'pivot_uom_code'), $length('pz', 'pivot_uom_code')],
            $rates, null === $rates ? null : $epoch,
        );
        $at = null === $this->epoch ? $helmert : $helmert->at($this->epoch);
        $seconds = static fn (float $radians): float => round(rad2deg($radians) * 3600.0, 12);
        $parameters = ['tx_m' => $at->translation[0], 'ty_m' => $at->translation[1], 'tz_m' => $at->translation[2]];
        if ([0.0, 0.0, 0.0] !== $at->rotation || 0.0 !== $at->scale) {
            $parameters += [
                'rx_arcsec' => $seconds($at->rotation[0]), 'ry_arcsec' => $seconds($at->rotation[1]),
                'rz_arcsec' => $seconds($at->rotation[2]), 'scale_ppm' => round(1e6 * $at->scale, 12),
                'convention' => 'position vector',
            ];
        }
        if ([0.0, 0.0, 0.0] !== $at->pivot) {
            $parameters += ['pivot_m' => $at->pivot];
        }
        if (null !== $rates) {
            $parameters += ['reference_epoch' => (float) $epoch, 'epoch' => $this->epoch ?? (float) $epoch];
        }
        // A null transformation says that coordinates are the same; two ellipsoids a tenth of a millimetre apart do not change them.
        $steps = static fn (): array => $at->isNull()
            && abs($from->ellipsoid->a - $to->ellipsoid->a) < 1e-3
            && abs($from->ellipsoid->f - $to->ellipsoid->f) < 1e-9
            ? []
            : [new GeocentricStep(
                $reverse ? $to->ellipsoid : $from->ellipsoid, $reverse ? $from->ellipsoid : $to->ellipsoid,
                $reverse ? $at->backward() : $at->forward(), !$spatial,
            )];

        return [new StepDescription($method, $source, $parameters), [], [], null === $rates ? null : $epoch, $steps, []];
    }

    /**
     * @param array<string, int|float|string|null> $g
     *
     * @return array{StepDescription, list<string>, list<string>, ?float, \Closure(): list<Step>, list<string>}
     */
    private function grid(array $g, string $method, string $source, Datum $from, Datum $to, bool $reverse): array
    {
        $name = (string) $g['grid_name'];
        $names = [$name];
        $flip = false;
        foreach ($this->registry->rows(
            'SELECT proj_grid_name p, old_proj_grid_name o, inverse_direction i FROM grid_alternatives WHERE original_grid_name = ?',
            [$name],
        ) as $row) {
            $names[] = (string) $row['p'];
            $names[] = (string) ($row['o'] ?? '');
        }
        $path = $this->files->find(array_values(array_unique($names)));
        $description = new StepDescription($method, $source, ['grid' => $name]);
        if (null === $path) {
            return [$description, [$name], [], null, static fn (): array => [], []];
        }
        // A file under another name may run the other way (the registry says so of the file, not of the operation).
        foreach ($this->registry->rows(
            'SELECT inverse_direction i FROM grid_alternatives WHERE original_grid_name = ? AND '
                .'lower(coalesce(old_proj_grid_name, proj_grid_name)) = ?',
            [$name, strtolower(basename($path))],
        ) as $row) {
            $flip = (bool) $row['i'] && strtolower($name) !== strtolower(basename($path));
        }
        if (!\in_array((string) $g['method_code'], ['9615', '9614'], true) && !str_ends_with(strtolower($path), '.gsb')) {
            return [$description, [], [\sprintf('%s (grid %s)', $g['method_name'], $name)], null, static fn (): array => [], []];
        }
        $files = $this->files;
        $meridian = $from->primeMeridian;
        // Grids between systems of different meridians carry the turn with them.
        $turn = deg2rad($to->primeMeridian - $from->primeMeridian);

        return [$description, [], [], null, static fn (): array => match (true) {
            0.0 === $turn => [new GridStep([$files->shifts($path)], $reverse xor $flip, $meridian)],
            $reverse => [new OffsetStep(0.0, -$turn, 0.0), new GridStep([$files->shifts($path)], !$flip, $meridian)],
            default => [new GridStep([$files->shifts($path)], $flip, $meridian), new OffsetStep(0.0, $turn, 0.0)],
        }, [$path]];
    }

    /**
     * @param array<string, int|float|string|null> $o
     *
     * @return array{StepDescription, list<string>, list<string>, ?float, \Closure(): list<Step>, list<string>}
     */
    private function offset(array $o, string $method, string $source, Datum $from, Datum $to, bool $reverse, bool $spatial): array
    {
        $offsets = [8601 => 0.0, 8602 => 0.0, 8603 => 0.0, 8604 => 0.0];
        $parameters = [];
        for ($i = 1; $i <= 7; ++$i) {
            $parameter = $o["param{$i}_code"] ?? null;
            if (null === $parameter) {
                break;
            }
            $unit = (int) $o["param{$i}_uom_code"];
            $value = (float) $o["param{$i}_value"];
            $offsets[(int) $parameter] = 8603 === (int) $parameter
                || 8604 === (int) $parameter ? $value * $this->registry->unit($unit)[0] : $this->registry->angle($value, $unit);
            $parameters[\sprintf('%s (%s)', $o["param{$i}_name"], $this->registry->unit($unit)[1])] = $value;
        }
        $description = new StepDescription($method, $source, $parameters);
        if (!\in_array((string) $o['method_code'], ['9601', '9618', '9619', '9660'], true)) {
            return [$description, [], [(string) $o['method_name']], null, static fn (): array => [], []];
        }
        $sign = $reverse ? -1.0 : 1.0;
        // Offsets are of longitudes from each system's own meridian; here all are from Greenwich.
        $turn = deg2rad($to->primeMeridian - $from->primeMeridian);
        $lon = $offsets[8602] + $turn;
        // Meridians and rotations are printed to different digits; what is left below 6 mm is their rounding.
        if (abs($lon) < 1e-9) {
            $lon = 0.0;
        }
        $h = $spatial ? $offsets[8603] + $offsets[8604] : 0.0;
        if ('9601' === (string) $o['method_code'] && 0.0 !== $lon) {
            // Another value for the same meridian than the systems themselves state: theirs rules.
            return [
                $description, [], [$o['method_name'].' by another value than the meridians of the systems'], null,
                static fn (): array => [], [],
            ];
        }
        $null = 0.0 === $lon && 0.0 === $offsets[8601] && 0.0 === $h;

        return [
            $description, [], [], null,
            static fn (): array => $null ? [] : [new OffsetStep($sign * $offsets[8601], $sign * $lon, $sign * $h)],
            [],
        ];
    }
}
