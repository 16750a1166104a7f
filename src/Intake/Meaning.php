<?php

declare(strict_types=1);

namespace App\Intake;

use Mensura\Fault\UnusableInput;

/** What the coordinates and heights of a waiting file mean, as far as it has been answered. */
final readonly class Meaning
{
    /**
     * @param string $frame   "project", "local", a system as "EPSG:n" or "custom:ID", or "localization:ID"
     * @param string $heights "ellipsoidal" or "geoid"; empty while not answered
     * @param string $geoid   the geoid they are above; empty takes the project's
     * @param ?bool  $swap    whether eastings and northings stand in each other's column; null while not answered
     * @param string $sign    whose sign is changed: "latitude", "longitude", "both" or "none"; empty while not answered
     * @param string $operation name of the transformation chosen; empty takes the best
     * @param bool   $far     that the points lie far from the project is known and meant
     * @param string $control what a control list is that states neither held nor a standard deviation: "hold", "weight" by
     *                        sigma, "check" points, or "information" only; empty while not answered
     * @param ?float $sigma   standard deviation of each coordinate, metres
     */
    public function __construct(
        public string $frame = 'project',
        public string $heights = '',
        public string $geoid = '',
        public ?bool $swap = null,
        public bool $far = false,
        public string $sign = '',
        public string $operation = '',
        public string $control = '',
        public ?float $sigma = null,
    ) {
    }

    /**
     * @param array<mixed> $data
     *
     * @throws UnusableInput
     */
    public static function fromArray(array $data): self
    {
        $frame = $data['frame'] ?? 'project';
        if (!\is_string($frame) || 1 !== preg_match('/^(project|local|EPSG:\d{4,6}|custom:\d+|localization:\d+)$/', $frame)) {
            throw new UnusableInput('/frame', 'is "project", "local", a system such as EPSG:25830, or a localization');
        }
        $heights = $data['heights'] ?? '';
        if (!\in_array($heights, ['', 'ellipsoidal', 'geoid'], true)) {
            throw new UnusableInput('/heights', 'are "ellipsoidal" or "geoid"');
        }
        $geoid = $data['geoid'] ?? '';
        $swap = $data['swap'] ?? null;
        $far = $data['far'] ?? false;
        if (!\is_string($geoid) || null !== $swap && !\is_bool($swap) || !\is_bool($far)) {
            throw new UnusableInput('/swap', 'is true, false or null');
        }

        $sign = $data['sign'] ?? '';
        if (!\in_array($sign, ['', 'latitude', 'longitude', 'both', 'none'], true)) {
            throw new UnusableInput('/sign', 'is "latitude", "longitude", "both" or "none"');
        }

        $operation = $data['operation'] ?? '';
        if (!\is_string($operation)) {
            throw new UnusableInput('/operation', 'is the name of a transformation');
        }

        $control = $data['control'] ?? '';
        if (!\in_array($control, ['', 'hold', 'weight', 'check', 'information'], true)) {
            throw new UnusableInput('/control', 'is "hold", "weight", "check" or "information"');
        }
        $sigma = $data['sigma'] ?? null;
        if (null !== $sigma && (!is_numeric($sigma) || !((float) $sigma > 0.0) || (float) $sigma > 100.0)) {
            throw new UnusableInput('/sigma', 'is a standard deviation in metres, above 0 and at most 100');
        }
        if ('weight' === $control && null === $sigma) {
            throw new UnusableInput('/sigma', 'is needed to weight by');
        }

        return new self($frame, $heights, $geoid, $swap, $far, $sign, $operation, $control, null === $sigma ? null : (float) $sigma);
    }

    /** @return array<string, string|bool|float|null> */
    public function toArray(): array
    {
        return [
            'frame' => $this->frame, 'heights' => $this->heights, 'geoid' => $this->geoid, 'swap' => $this->swap,
            'far' => $this->far, 'sign' => $this->sign, 'operation' => $this->operation,
            'control' => $this->control, 'sigma' => $this->sigma,
        ];
    }
}
