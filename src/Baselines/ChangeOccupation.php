<?php

declare(strict_types=1);

namespace App\Baselines;

use App\Baselines\Request\OccupationRequest;
use App\Ledger\EditedMeanwhile;
use App\Ledger\Journal;
use App\Ledger\LedgerEntryRepository;
use App\Ledger\Operation;
use App\Project\Project;
use Mensura\Fault\UnusableInput;
use Mensura\Gnss\AntennaHeight;
use Mensura\Gnss\Overlaps;

/** Makes the marker, the antenna or its height right, or trims a session. */
final class ChangeOccupation implements Operation
{
    /** @var list<string> */
    private array $changes = [];

    private string $marker = '';

    /** @param ?string $seen version of the occupation that was edited */
    public function __construct(
        private readonly OccupationRepository $occupations,
        private readonly LedgerEntryRepository $entries,
        private readonly int $id,
        private readonly OccupationRequest $request,
        private readonly ?string $seen,
    ) {
    }

    public function name(): string
    {
        return 'change-occupation';
    }

    public function title(): string
    {
        return \sprintf('Occupation %s: %s', $this->marker, implode('; ', $this->changes));
    }

    public function detail(): array
    {
        return ['occupation' => $this->id] + (array) $this->request;
    }

    public function apply(Project $project, Journal $journal): void
    {
        $o = $this->occupations->in($project, $this->id) ?? throw new UnusableInput('', 'the occupation is not there any more');
        if (null !== $this->seen && (string) $o->version() !== $this->seen) {
            $entry = $o->version() > 0 ? $this->entries->numbered($project, $o->version()) : null;
            throw new EditedMeanwhile('Occupation '.$o->marker, $entry, [
                'marker' => $o->marker, 'heightKind' => $o->heightKind, 'heightValue' => $o->heightValue,
                'heightRadius' => $o->heightRadius,
                'heightAbove' => $o->heightAbove, 'antenna' => $o->antenna, 'trimFrom' => $o->trimFrom, 'trimTo' => $o->trimTo,
            ], (string) $o->version());
        }
        $r = $this->request;
        $this->marker = '' === $o->marker ? $o->file->name() : $o->marker;
        $height = new AntennaHeight(
            $r->heightKind, $r->heightValue, AntennaHeight::SLANT === $r->heightKind ? $r->heightRadius : 0.0, $r->heightAbove,
        );
        if (trim($r->marker) !== $o->marker) {
            $this->changes[] = 'marker is '.trim($r->marker);
            $o->marker = trim($r->marker);
        }
        if ((array) $height !== (array) $o->height()) {
            $this->changes[] = 'antenna height '.$height->words();
            [
                $o->heightKind, $o->heightValue, $o->heightRadius, $o->heightAbove,
            ] = [$height->kind, $height->value, $height->radius, $height->above];
        }
        if (trim($r->antenna) !== $o->antenna) {
            $this->changes[] = 'antenna '.trim($r->antenna);
            $o->antenna = trim($r->antenna);
        }
        if (null !== $r->moves && $r->moves !== $o->moves) {
            $this->changes[] = $r->moves ? 'the receiver moved' : 'the receiver stood';
            $o->moves = $r->moves;
        }
        $this->trim($o);
    }

    private function trim(Occupation $o): void
    {
        $recorded = $o->recorded();
        $from = null !== $this->request->trimFrom && $this->request->trimFrom > $recorded->from ? $this->request->trimFrom : null;
        $to = null !== $this->request->trimTo && $this->request->trimTo < $recorded->to ? $this->request->trimTo : null;
        if ($from === $o->trimFrom && $to === $o->trimTo) {
            return;
        }
        if (($to ?? $recorded->to) - ($from ?? $recorded->from) < Overlaps::LEAST) {
            throw new UnusableInput('/trimTo', 'less than two minutes would be left of the session');
        }
        $why = '' === trim($this->request->reason) ? '' : ': '.trim($this->request->reason);
        $this->changes[] = null === $from && null === $to ? 'the whole session is used' : \sprintf(
            'trimmed to %.0f of %.0f minutes%s', (($to ?? $recorded->to) - ($from ?? $recorded->from)) / 60.0,
            ($recorded->to - $recorded->from) / 60.0, $why,
        );
        $o->trimFrom = $from;
        $o->trimTo = $to;
    }
}
