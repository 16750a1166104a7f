<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Api\Id;
use App\Ledger\View\BackPreview;
use App\Ledger\View\ChangeView;
use App\Ledger\View\EntryDetail;
use App\Ledger\View\EntryView;
use App\Ledger\View\LedgerView;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT)]
final class LedgerController
{
    private const SHOWN_ENTRIES = 500;
    private const SHOWN_CHANGES = 60;

    public function __construct(
        private readonly LedgerEntryRepository $entries,
        private readonly Ledger $ledger,
        private readonly Desk $desk,
    ) {
    }

    #[Route('/ledger', methods: 'GET')]
    public function list(#[Reads] Project $project): JsonResponse
    {
        return new JsonResponse(new LedgerView(array_map(self::view(...), $this->entries->newest($project, self::SHOWN_ENTRIES))));
    }

    #[Route('/ledger/{seq'.Id::NUMBER.'}', methods: 'GET')]
    public function show(#[Reads] Project $project, int $seq): JsonResponse
    {
        $entry = $this->entries->numbered($project, $seq);

        return new JsonResponse(new EntryDetail(self::view($entry), $entry->detail, $this->changes($entry)));
    }

    #[Route('/ledger/{seq'.Id::NUMBER.'}/undo', methods: 'POST')]
    public function undo(#[Changes] Project $project, int $seq): JsonResponse
    {
        $count = $this->entries->numbered($project, $seq)->changeCount;

        return $count <= ReversalHandler::MOST_AT_ONCE
            ? new JsonResponse($this->desk->undo($project, $seq))
            : new JsonResponse(
                $this->desk->start($project, ReversalHandler::kind(), "Undo entry $seq", ['seq' => $seq, 'all' => false]),
                202,
            );
    }

    #[Route('/ledger/{seq'.Id::NUMBER.'}/back', methods: 'GET')]
    public function previewBack(#[Reads] Project $project, int $seq): JsonResponse
    {
        $entries = $this->entries->after($project, $seq);
        $changes = array_sum(array_map(static fn (LedgerEntry $e): int => $e->changeCount, $entries));

        return new JsonResponse(new BackPreview(array_map(self::view(...), $entries), $changes));
    }

    #[Route('/ledger/{seq'.Id::NUMBER.'}/back', methods: 'POST')]
    public function back(#[Changes] Project $project, int $seq): JsonResponse
    {
        $count = array_sum(array_map(static fn (LedgerEntry $e): int => $e->changeCount, $this->entries->after($project, $seq)));

        return $count <= ReversalHandler::MOST_AT_ONCE
            ? new JsonResponse($this->desk->backTo($project, $seq))
            : new JsonResponse(
                $this->desk->start($project, ReversalHandler::kind(), "Go back to $seq", ['seq' => $seq, 'all' => true]),
                202,
            );
    }

    /** @return list<ChangeView> the first of what an entry changed */
    private function changes(LedgerEntry $entry): array
    {
        $views = [];
        foreach ($this->ledger->changes($entry)->images() as $images) {
            foreach ($images->rows as [$id, $before, $after]) {
                $before = null === $before ? null : array_combine($images->columns, $before);
                $after = null === $after ? null : array_combine($images->columns, $after);
                $row = $after ?? $before ?? [];
                $name = $row['name'] ?? (isset($row['from_name']) ? $row['from_name'].' → '.$row['to_name'] : '#'.$id);
                $views[] = new ChangeView($images->table.' '.$name, $before, $after);
                if (\count($views) >= self::SHOWN_CHANGES) {
                    return $views;
                }
            }
        }

        return $views;
    }

    private static function view(LedgerEntry $e): EntryView
    {
        return new EntryView(
            $e->seq, $e->operation, $e->title, $e->authorName, $e->at->format('Y-m-d\TH:i:s\Z'), $e->changeCount, $e->undoneBy, $e->undoes,
        );
    }
}
