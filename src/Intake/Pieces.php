<?php

declare(strict_types=1);

namespace App\Intake;

use App\Api\Upload;
use App\Project\Project;
use App\Store\StoreFault;
use Mensura\Fault\UnusableInput;

/** Files that are too large for one request: they come in pieces, one after the other, and are put together aside. */
final class Pieces
{
    /** Bytes of a file that comes in pieces. */
    public const MOST = 8 * 1024 * 1024 * 1024;
    /** Seconds after which a file that was not finished is given up. */
    private const KEPT = 86_400;
    private const KEY = '/^[0-9a-f]{32}$/D';
    private const DONE = '.done';

    /**
     * @param string $key   names the file while it comes, 32 hexadecimal digits
     * @param int    $at    where the piece begins
     * @param int    $whole bytes of the file
     *
     * @return ?string where the file lies once all of it is there; null before
     *
     * @throws UnusableInput
     * @throws StoreFault
     */
    public function take(Project $project, string $key, int $at, int $whole, Upload $piece): ?string
    {
        if (1 !== preg_match(self::KEY, $key)) {
            throw new UnusableInput('/key', 'names the file by 32 hexadecimal digits');
        }
        if ($whole < 1 || $whole > self::MOST) {
            throw new UnusableInput('/size', \sprintf('is more than %d GB, or nothing', self::MOST >> 30));
        }
        $path = self::path($project, $key);
        if (0 === $at) {
            self::clear();
        }
        clearstatcache(true, $path);
        $there = is_file($path) ? (int) filesize($path) : 0;
        $size = (int) filesize($piece->path);
        // A piece that is sent again because its answer was lost is there already.
        if ($there < $at + $size) {
            if ($there !== $at) {
                $words = '%d bytes have arrived; the next piece begins there. Bring the file in again';
                throw new UnusableInput('/at', \sprintf($words, $there));
            }
            $this->append($path, $piece->path, $at + $size);
        }

        return match ($at + $size <=> $whole) {
            0 => $path, -1 => null, default => $this->tooMuch($path),
        };
    }

    /** Says under which hash a file was kept, so that its last piece may be sent again when the answer was lost. */
    public function kept(Project $project, string $key, string $hash): void
    {
        @file_put_contents(self::path($project, $key).self::DONE, $hash);
    }

    /** Hash of a file that arrived whole and was kept; null for one that did not. */
    public function arrived(Project $project, string $key): ?string
    {
        $done = 1 === preg_match(self::KEY, $key) ? @file_get_contents(self::path($project, $key).self::DONE) : false;

        return false === $done || '' === $done ? null : $done;
    }

    private static function path(Project $project, string $key): string
    {
        return sys_get_temp_dir().\sprintf('/mensura-piece-%d-%s', $project->id(), $key);
    }

    private function append(string $path, string $piece, int $size): void
    {
        $to = @fopen($path, 'a');
        $from = @fopen($piece, 'r');
        if (false === $to || false === $from) {
            throw StoreFault::full(null);
        }
        stream_copy_to_stream($from, $to);
        fclose($from);
        $isWritten = fclose($to);
        clearstatcache(true, $path);
        if (!$isWritten || (int) filesize($path) !== $size) {
            @unlink($path);
            throw StoreFault::full(null);
        }
    }

    private function tooMuch(string $path): never
    {
        @unlink($path);
        throw new UnusableInput('/size', 'is less than what has come; bring the file in again');
    }

    private static function clear(): void
    {
        foreach (glob(sys_get_temp_dir().'/mensura-piece-*') ?: [] as $old) {
            if ((int) @filemtime($old) < time() - self::KEPT) {
                @unlink($old);
            }
        }
    }
}
