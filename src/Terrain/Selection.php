<?php

declare(strict_types=1);

namespace App\Terrain;

use App\Survey\PointRow;
use Mensura\Fault\UnusableInput;
use Mensura\Surface\SurfaceLine;

/**
 * Which points make a surface: those of a role, of a code, of a name, inside an area, each where it is said; and those named
 * one by one, in or out, whatever the rest says.
 */
final readonly class Selection
{
    private const MOST_CORNERS = 5000;

    /** @var list<SurfaceLine> */
    private array $rings;

    /** @var array<string, int> */
    private array $ofRole;

    /** @var array<string, int> */
    private array $ofCode;

    /** @var array<string, int> */
    private array $in;

    /** @var array<string, int> */
    private array $out;

    /** @var list<string> */
    private array $patterns;

    /**
     * @param list<string>                      $roles
     * @param list<string>                      $codes   empty: all
     * @param string                            $pattern of names, with * and ?; several apart by blanks or commas; empty: all
     * @param list<list<array{float, float}>>   $areas   corners of boxes and lassos, metres; empty: everywhere
     * @param list<string>                      $include point names
     * @param list<string>                      $exclude point names
     */
    public function __construct(
        public array $roles, public array $codes = [], public string $pattern = '', public array $areas = [], public array $include = [],
        public array $exclude = [],
    ) {
        $rings = [];
        foreach ($areas as $corners) {
            $vertices = [];
            foreach ($corners as [$e, $n]) {
                $vertices[] = [$e, $n, null];
            }
            $rings[] = new SurfaceLine(SurfaceLine::BOUNDARY, 'area', $vertices);
        }
        $this->rings = $rings;
        $this->ofRole = array_flip($roles);
        $this->ofCode = array_flip($codes);
        $this->in = array_flip($include);
        $this->out = array_flip($exclude);
        $this->patterns = array_values(array_filter(preg_split('/[\s,;]+/', $pattern) ?: [], static fn (string $p): bool => '' !== $p));
    }

    /**
     * @param array<mixed> $areas
     *
     * @return list<list<array{float, float}>>
     *
     * @throws UnusableInput naming the field
     */
    public static function areas(array $areas): array
    {
        $read = [];
        foreach (array_values($areas) as $i => $area) {
            if (!\is_array($area) || \count($area) < 3 || \count($area) > self::MOST_CORNERS) {
                throw new UnusableInput("/areas/$i", 'is a list of three corners or more');
            }
            $corners = [];
            foreach (array_values($area) as $k => $v) {
                $isPlace = \is_array($v) && is_numeric($v[0] ?? null) && is_numeric($v[1] ?? null);
                $corners[] = $isPlace ? [(float) $v[0], (float) $v[1]]
                    : throw new UnusableInput("/areas/$i/$k", 'is [easting, northing]');
            }
            $read[] = $corners;
        }

        return $read;
    }

    public function takes(PointRow $p): bool
    {
        if (null === $p->h || isset($this->out[$p->name])) {
            return false;
        }

        return isset($this->in[$p->name]) || isset($this->ofRole[$p->role]) && ([] === $this->ofCode || isset($this->ofCode[$p->code]))
            && $this->isNamed($p->name) && $this->isInside((float) $p->e, (float) $p->n);
    }

    private function isNamed(string $name): bool
    {
        foreach ($this->patterns as $pattern) {
            if (fnmatch($pattern, $name)) {
                return true;
            }
        }

        return [] === $this->patterns;
    }

    /** Whether a place lies in one of the areas; anywhere where there are none. */
    public function isInside(float $e, float $n): bool
    {
        foreach ($this->rings as $ring) {
            if ($ring->contains($e, $n)) {
                return true;
            }
        }

        return [] === $this->rings;
    }
}
