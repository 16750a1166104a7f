<?php

declare(strict_types=1);

namespace Mensura\Exchange\PassesJson;

use Mensura\Fault\UnusableInput;
use Mensura\Passes\Correction;

/** Corrected trajectories in a folder, numbered: what is there is never written over. */
final readonly class TrajectoryVersions
{
    /** @throws UnusableInput where there is no folder and none can be made */
    public function __construct(private string $folder)
    {
        if (!is_dir($folder) && !@mkdir($folder, 0o777, true) || !is_writable($folder)) {
            throw new UnusableInput('--out', "$folder is no folder that can be written to");
        }
    }

    /**
     * @param list<string> $ids of passes, all of which have to be names of files
     *
     * @throws UnusableInput
     */
    public static function refuseNames(array $ids): void
    {
        foreach ($ids as $id) {
            if (1 !== preg_match('#^[^/\\\\\x00-\x1F]{1,200}$#', $id) || str_starts_with($id, '.')) {
                throw new UnusableInput('passes', "\"$id\" cannot be the name of a file; give the pass another id");
            }
        }
    }

    /**
     * The next version: every line as it was but for its place.
     *
     * @return array{string, int} file, and its number
     *
     * @throws UnusableInput
     */
    public function write(string $id, TimedCsv $csv, Correction $correction): array
    {
        $part = @tempnam($this->folder, '.pass');
        $to = false === $part ? false : fopen($part, 'w');
        if (false === $part || false === $to) {
            throw new UnusableInput('--out', "{$this->folder} cannot be written to");
        }
        try {
            foreach ($csv->lines() as [$line, $row]) {
                if (null !== $row) {
                    [$e, $n, $h] = $correction->at($row[0]);
                    $line = $csv->withPlace($line, [$row[1] + $e, $row[2] + $n, $row[3] + $h]);
                }
                if (\strlen($line) !== @fwrite($to, $line)) {
                    throw new UnusableInput('--out', "{$this->folder} has no room for what is written");
                }
            }
            fclose($to);
            chmod($part, 0o666 & ~umask());
            $number = 1 + $this->highest($id);
            // A link, for it fails where somebody wrote that number meanwhile.
            while (!@link($part, $file = "{$this->folder}/$id.v$number.csv")) {
                if (!file_exists($file)) {
                    throw new UnusableInput('--out', "$file cannot be written");
                }
                ++$number;
            }
        } finally {
            @unlink($part);
        }

        return [$file, $number];
    }

    private function highest(string $id): int
    {
        $highest = 0;
        foreach (scandir($this->folder) ?: [] as $name) {
            if (1 === preg_match('/^'.preg_quote($id, '/').'\.v(\d{1,15})\.csv$/', $name, $found)) {
                $highest = max($highest, (int) $found[1]);
            }
        }

        return $highest;
    }
}
