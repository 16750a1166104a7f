<?php

declare(strict_types=1);

namespace Mensura\Gnss;

/** A baseline as it was solved: antenna to antenna. Metres, geocentric. */
final class BaselineSolution
{
    public const FIXED = 'fixed';
    public const FLOAT = 'float';
    public const CODE = 'code';

    public string $solution = self::FLOAT;

    /** @var array{float, float, float} antenna of the rover */
    public array $rover = [0.0, 0.0, 0.0];

    /** @var list<list<float>> of it against the base */
    public array $covariance = [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0], [0.0, 0.0, 0.0]];

    /** Of the squared norms of the second best to the best integers; null where none were tried. */
    public ?float $ratio = null;

    /** Of double-difference residuals, metres. */
    public float $rms = 0.0;

    public int $epochs = 0;

    public ?GpsTime $start = null;
    public ?GpsTime $end = null;

    /** @var array<string, array{epochs: int, slips: int, used: bool}> by satellite */
    public array $satellites = [];

    /**
     * @var list<array{
     *     time: GpsTime, position: array{float, float, float}, solution: string, satellites: int, covariance: list<list<float>>,
     * }>
     */
    public array $track = [];

    /** @var array<string, array<int, float>> residuals of a static solution, metres, by signal (as G05 L1) and epoch */
    public array $residuals = [];

    /** @var list<string> */
    public array $warnings = [];
}
