<?php

declare(strict_types=1);

namespace Mensura\Reference\Grid;

/** Where grid files are looked for: files named one by one, then folders. Names are compared without their case. */
final class GridFiles
{
    /** @var array<string, Ntv2Grid> */
    private array $shifts = [];

    /** @var array<string, GeoidGrid> */
    private array $geoids = [];

    /** @var list<string> */
    private array $namedShifts = [];

    /** @var list<string> */
    private array $namedGeoids = [];

    /** @var array<string, array<string, string>> folder => lower-case name => path */
    private array $listed = [];

    /**
     * @param list<string>          $folders
     * @param array<string, string> $files   name => path
     */
    public function __construct(private readonly array $folders, private readonly array $files = [])
    {
    }

    /** The folders of proj-data on this machine. */
    public static function installed(): self
    {
        return new self(['/usr/share/proj', '/usr/local/share/proj']);
    }

    /** @param array<string, string> $files name => path */
    public function naming(array $files): self
    {
        return new self($this->folders, $files + $this->files);
    }

    /**
     * These files too, asked for by name: found before all others, read at once, so that one that cannot be read is said
     * whether or not something needs it.
     *
     * @param list<string> $paths
     *
     * @throws UnreadableGrid
     */
    public function with(array $paths): self
    {
        $files = $this->files;
        foreach ($paths as $path) {
            $files[basename($path)] = $path;
        }
        $with = new self($this->folders, $files);
        foreach ($paths as $path) {
            if (Ntv2Grid::isOne(self::bytes($path))) {
                $with->shifts($path);
                $with->namedShifts[] = $path;
            } else {
                $with->geoid($path);
                $with->namedGeoids[] = $path;
            }
        }

        return $with;
    }

    /** @return list<string> paths of the shift grids asked for by name */
    public function namedShifts(): array
    {
        return $this->namedShifts;
    }

    /** @return list<string> paths of the geoid grids asked for by name */
    public function namedGeoids(): array
    {
        return $this->namedGeoids;
    }

    /**
     * Path of the first of these names that is there.
     *
     * @param list<string> $names
     */
    public function find(array $names): ?string
    {
        foreach ($names as $name) {
            if ('' === $name) {
                continue;
            }
            $key = strtolower($name);
            foreach ($this->files as $file => $path) {
                if (strtolower($file) === $key
                    || strtolower(pathinfo($file, \PATHINFO_FILENAME)) === strtolower(pathinfo($name, \PATHINFO_FILENAME))
                ) {
                    return $path;
                }
            }
            foreach ($this->folders as $folder) {
                $path = $this->list($folder)[$key] ?? null;
                if (null !== $path) {
                    return $path;
                }
            }
        }

        return null;
    }

    public function shifts(string $path): Ntv2Grid
    {
        return $this->shifts[$path] ??= new Ntv2Grid(basename($path), self::bytes($path));
    }

    public function geoid(string $path): GeoidGrid
    {
        return $this->geoids[$path] ??= GeoidFile::read(basename($path), self::bytes($path));
    }

    private static function bytes(string $path): string
    {
        $bytes = is_dir($path) ? false : @file_get_contents($path);

        return false !== $bytes ? $bytes : throw new UnreadableGrid(\sprintf('%s cannot be read; is the path right?', $path));
    }

    /** @return array<string, string> */
    private function list(string $folder): array
    {
        if (!isset($this->listed[$folder])) {
            $this->listed[$folder] = [];
            foreach (is_dir($folder) ? (scandir($folder) ?: []) : [] as $entry) {
                $this->listed[$folder][strtolower($entry)] = $folder.'/'.$entry;
            }
        }

        return $this->listed[$folder];
    }
}
