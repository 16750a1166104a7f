<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Api\Refusal;

/** Two people edited one thing; the second sees what the first did before deciding whose values stand. */
final class EditedMeanwhile extends \RuntimeException implements Refusal
{
    /** @param array<string, mixed> $theirs what is there now, in the fields of the form */
    public function __construct(
        string $what,
        private readonly ?LedgerEntry $entry,
        private readonly array $theirs,
        private readonly string $version,
    ) {
        $by = null === $entry ? '' : \sprintf(' by %s at %s UTC: %s', $entry->authorName, $entry->at->format('Y-m-d H:i'), $entry->title);
        parent::__construct(\sprintf('%s was changed while you edited it%s. Keep theirs, or save yours over it.', $what, $by));
    }

    public function status(): int
    {
        return 409;
    }

    public function title(): string
    {
        return 'Someone else changed this.';
    }

    public function more(): array
    {
        return [
            'author' => $this->entry?->authorName, 'at' => $this->entry?->at->format('Y-m-d\TH:i:s\Z'), 'change' => $this->entry?->title,
            'theirs' => $this->theirs, 'version' => $this->version,
        ];
    }
}
