<?php

declare(strict_types=1);

namespace App\Survey;

use App\Api\Id;
use App\Api\PackedAnswer;
use App\Ledger\LedgerEntryRepository;
use App\Project\Project;
use App\Project\Reads;
use App\Survey\View\PointsView;
use App\Survey\View\PointView;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapQueryParameter;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT)]
final class PointsController
{
    public function __construct(
        private readonly PointRepository $points,
        private readonly PointChanges $changes,
        private readonly LedgerEntryRepository $entries,
    ) {
    }

    /** @param ?int $since entry of the ledger whose points the page has */
    #[Route('/points', methods: 'GET')]
    public function points(
        #[Reads] Project $project,
        #[MapQueryParameter(filter: \FILTER_VALIDATE_INT, options: ['min_range' => 0], validationFailedStatusCode: 422)] ?int $since = null,
    ): Response {
        // Read first: what is done while the points are read comes again with the next changes.
        $seq = $this->entries->lastSeq($project);
        $ids = null === $since ? null : $this->changes->since($project, $since);
        $rows = null === $ids ? $this->points->rows($project) : $this->points->rowsOf($project, $ids);
        $views = (static function () use ($rows): \Generator {
            foreach ($rows as $row) {
                yield PointView::of($row);
            }
        })();
        if (null !== $ids) {
            $views = iterator_to_array($views, false);
            $gone = array_values(array_diff($ids, array_column($views, 'id')));
        }

        return PackedAnswer::of(new PointsView($seq, null === $ids, $gone ?? [], $views), ['points' => PointView::class]);
    }
}
