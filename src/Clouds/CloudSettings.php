<?php

declare(strict_types=1);

namespace App\Clouds;

use App\Clouds\Group\DenseMaker;
use App\Clouds\Pass\PassMaker;
use App\Clouds\Request\CloudRequest;
use App\Reference\ReferenceContent;
use App\Survey\GivenContent;
use Mensura\Fault\UnusableInput;

/**
 * What a cloud is made of, and what is done to it; kept with it, so that it can be made again. Metres.
 *
 * @phpstan-type Seen array{target: string, e: float, n: float, h: float}
 */
final readonly class CloudSettings
{
    /**
     * @param list<int>                 $files   received clouds it is made of
     * @param list<int>                 $clouds  and those made before
     * @param list<Seen>                $targets control and check points as it shows them, by which it is moved before anything else
     * @param string                    $paint   what its points are coloured by, time or deviation; empty as they came
     * @param string                    $against slot of what they deviate from
     * @param float                     $range   deviation at which the colours end
     * @param list<int>                 $dense   and dense points of images
     * @param list<int>                 $passes  and scans of passes, as those are corrected
     * @param list<array{float, float}> $crop    easting and northing of corners; empty for all of it
     * @param bool                      $outside whether what lies outside them is kept instead
     * @param ?float                    $thin    side of cubes that keep one point each
     * @param list<int>                 $classes that are kept; empty for all
     * @param int                       $onto    cloud it is laid onto before anything else; 0 for none
     * @param float                     $within  how far off it may be then
     */
    public function __construct(
        public string $name, public array $files, public array $clouds = [], public array $crop = [], public bool $outside = false,
        public ?float $thin = null, public bool $noise = false, public bool $ground = false, public array $classes = [],
        public int $onto = 0, public float $within = 1.0, public array $passes = [], public array $dense = [],
        public array $targets = [],
        public string $paint = '', public string $against = '', public float $range = 0.05,
    ) {
    }

    /** @throws UnusableInput */
    public static function of(CloudRequest $r): self
    {
        if ([] === [...$r->files, ...$r->clouds, ...$r->passes, ...$r->dense]) {
            throw new UnusableInput('/files', 'are none; choose the clouds it is made of');
        }
        if (null !== $r->number && \in_array($r->number, $r->clouds, true)) {
            throw new UnusableInput('/clouds', 'hold the cloud itself; keep it under another name');
        }
        if (0 !== $r->onto && (\in_array($r->onto, $r->clouds, true) || $r->onto === $r->number)) {
            throw new UnusableInput('/onto', 'is the cloud itself; choose another to lay it onto');
        }
        if (0 !== $r->onto && [] !== $r->targets) {
            throw new UnusableInput('/onto', 'is one way to move it, targets are another; choose one of them');
        }
        if (CloudPaint::DEVIATION === $r->paint && \in_array($r->against, ['', CloudMaker::PREFIX.$r->number], true)) {
            throw new UnusableInput('/against', 'is what the points deviate from: another cloud, or heights of a flight');
        }
        if ([] !== $r->crop && \count($r->crop) < 3) {
            throw new UnusableInput('/crop', 'needs at least three corners');
        }

        return self::fromArray((array) $r);
    }

    /** @param array<string, mixed> $s */
    public static function fromArray(array $s): self
    {
        $whole = static fn (string $key): array => array_values(array_map(intval(...), (array) ($s[$key] ?? [])));
        $crop = array_map(static fn (array $v): array => [(float) ($v[0] ?? 0.0), (float) ($v[1] ?? 0.0)], (array) ($s['crop'] ?? []));

        return new self(
            trim((string) $s['name']), $whole('files'), $whole('clouds'), array_values($crop), (bool) ($s['outside'] ?? false),
            isset($s['thin']) ? (float) $s['thin'] : null, (bool) ($s['noise'] ?? false), (bool) ($s['ground'] ?? false), $whole('classes'),
            (int) ($s['onto'] ?? 0), (float) ($s['within'] ?? 1.0), $whole('passes'), $whole('dense'),
            array_map(static fn (array $t): array => [
                'target' => (string) $t['target'], 'e' => (float) $t['e'], 'n' => (float) $t['n'], 'h' => (float) $t['h'],
            ], array_values((array) ($s['targets'] ?? []))),
            (string) ($s['paint'] ?? ''), (string) ($s['against'] ?? ''), (float) ($s['range'] ?? 0.05),
        );
    }

    /** @return list<string> contents it rests on: a file never changes, only where it lies */
    public function contents(): array
    {
        $targets = [] === $this->targets ? [] : [GivenContent::kind()];

        return [] === $this->files && [] === $targets ? [] : [...$targets, ReferenceContent::kind()];
    }

    /** @return list<string> slots it rests on */
    public function slots(): array
    {
        $clouds = array_filter([...$this->clouds, $this->onto]);

        $all = [CloudMaker::PREFIX => array_unique($clouds), PassMaker::PREFIX => $this->passes, DenseMaker::PREFIX => $this->dense];
        $slots = CloudPaint::DEVIATION === $this->paint ? [$this->against] : [];
        foreach ($all as $prefix => $numbers) {
            foreach ($numbers as $n) {
                $slots[] = $prefix.$n;
            }
        }

        return $slots;
    }

    /** @return list<string> what is done, in words */
    public function words(): array
    {
        return array_values(array_filter([
            [] === $this->targets ? '' : 'moved by targets', [] === $this->crop ? '' : ($this->outside ? 'cut out' : 'cropped'),
            null === $this->thin ? '' : \sprintf('one point each %s m', $this->thin),
            $this->noise ? 'noise found' : '', $this->ground ? 'ground found' : '',
            '' === $this->paint ? '' : 'coloured by '.$this->paint, [] === $this->classes ? '' : 'classes '.implode(', ', $this->classes),
        ]));
    }
}
