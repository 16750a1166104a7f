<?php

declare(strict_types=1);

namespace App\Transfer;

use App\Job\JobContext;
use App\Job\JobHandler;
use App\Store\FileStore;

/** Writes a project as an archive. It changes nothing of the project, so the job's outcome keeps it. */
final class ArchiveHandler implements JobHandler
{
    public function __construct(private readonly ArchiveWriter $writer, private readonly FileStore $store)
    {
    }

    public static function kind(): string
    {
        return 'archive-project';
    }

    public function run(JobContext $context): void
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'archive');
        try {
            $manifest = $this->writer->write($context->project, $path, $context->report(...));
            // It is what the page offers: read back before it is.
            $read = ProjectArchive::open($path);
            $size = (int) filesize($path);
            $context->outcome([
                'file' => $this->store->take($path), 'bytes' => $size, 'name' => $read->name(), 'written' => $manifest['written'],
                'fingerprint' => $manifest['fingerprint'], 'rows' => $manifest['rows'], 'files' => \count(array_filter(
                    array_keys($read->entries()), static fn (string $p): bool => str_starts_with($p, 'files/'),
                )),
            ]);
        } finally {
            @unlink($path);
        }
    }
}
