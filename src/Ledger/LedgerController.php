<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Ledger\View\BackPreview;
use App\Ledger\View\ChangeView;
use App\Ledger\View\EntryDetail;
use App\Ledger\View\EntryView;
use App\Ledger\View\LedgerView;
use App\Project\ProjectAccess;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;

#[Route('/api/projects/{id<\d+>}')]
final class LedgerController
{
    private const SHOWN_ENTRIES = 500;
    private const SHOWN_CHANGES = 60;

    public function __construct(
        private readonly ProjectAccess $access,
        private readonly EntityManagerInterface $entities,
        private readonly Ledger $ledger,
    ) {
    }

    #[Route('/lineage/{slot}', requirements: ['slot' => '.+'], methods: 'GET')]
    public function lineage(int $id, string $slot, Lineage $lineage): JsonResponse
    {
        return new JsonResponse($lineage->of($this->access->read($id), $slot));
    }

    #[Route('/ledger', methods: 'GET')]
    public function list(int $id): JsonResponse
    {
        $entries = $this->entities->getRepository(LedgerEntry::class)->findBy(['project' => $this->access->read($id)], ['seq' => 'DESC'], self::SHOWN_ENTRIES);

        return new JsonResponse(new LedgerView(array_map(self::view(...), $entries)));
    }

    #[Route('/ledger/{seq<\d+>}', methods: 'GET')]
    public function show(int $id, int $seq): JsonResponse
    {
        $project = $this->access->read($id);
        $entry = $this->entities->getRepository(LedgerEntry::class)->findOneBy(['project' => $project, 'seq' => $seq]) ?? throw new NoSuchEntry($seq);
        $changes = array_map(static function (array $c): ChangeView {
            $row = $c['after'] ?? $c['before'] ?? [];
            $name = $row['name'] ?? (isset($row['from_name']) ? $row['from_name'].' → '.$row['to_name'] : '#'.$c['id']);

            return new ChangeView($c['table'].' '.$name, $c['before'], $c['after']);
        }, \array_slice($this->ledger->changes($project, $seq), 0, self::SHOWN_CHANGES));

        return new JsonResponse(new EntryDetail(self::view($entry), $entry->detail, $changes));
    }

    #[Route('/ledger/{seq<\d+>}/undo', methods: 'POST')]
    public function undo(int $id, int $seq): JsonResponse
    {
        return new JsonResponse(['seq' => $this->ledger->undo($this->access->change($id), $this->access->user()->name(), $seq)]);
    }

    #[Route('/ledger/{seq<\d+>}/back', methods: 'GET')]
    public function previewBack(int $id, int $seq): JsonResponse
    {
        $entries = $this->entities->getRepository(LedgerEntry::class)->createQueryBuilder('l')->where('l.project = :p AND l.seq > :s')->setParameter('p', $this->access->read($id))->setParameter('s', $seq)->orderBy('l.seq', 'DESC')->getQuery()->getResult();

        return new JsonResponse(new BackPreview(array_values(array_map(self::view(...), $entries)), array_sum(array_map(static fn (LedgerEntry $e): int => $e->changeCount, $entries))));
    }

    #[Route('/ledger/{seq<\d+>}/back', methods: 'POST')]
    public function back(int $id, int $seq): JsonResponse
    {
        return new JsonResponse(['seq' => $this->ledger->backTo($this->access->change($id), $this->access->user()->name(), $seq)]);
    }

    private static function view(LedgerEntry $e): EntryView
    {
        return new EntryView($e->seq, $e->operation, $e->title, $e->authorName, $e->at->format('Y-m-d\TH:i:s\Z'), $e->changeCount, $e->undoneBy, $e->undoes);
    }
}
