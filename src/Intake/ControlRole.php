<?php

declare(strict_types=1);

namespace App\Intake;

use App\Intake\Format\Reading;
use App\Survey\Point;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\PointRecord;

/** What the marks of a control list are to the network, where the list itself does not say. */
final readonly class ControlRole
{
    /** Of answers that make them no control. */
    private const ROLES = ['information' => Point::SURVEYED, 'check' => Point::CHECK];

    public function __construct(private Meaning $meaning)
    {
    }

    public function isAsked(Reading $reading): bool
    {
        return '' === $this->meaning->control && self::isSilent($reading) && $reading->size() > 0;
    }

    /**
     * @param list<PointRecord> $records
     *
     * @return list<PointRecord> held or weighted as answered
     */
    public function applied(Reading $reading, array $records): array
    {
        if (!self::isSilent($reading)) {
            return $records;
        }
        $sigma = $this->meaning->sigma;

        return match ($this->meaning->control) {
            'hold' => array_map(
                static fn (PointRecord $r): PointRecord => $r->fixed(null === $r->h ? 'en' : 'enh', [null, null, null]), $records,
            ),
            'weight' => array_map(
                static fn (PointRecord $r): PointRecord => $r->fixed('', [$sigma, $sigma, null === $r->h ? null : $sigma]), $records,
            ),
            default => $records,
        };
    }

    /**
     * Marks that are for information only are points like others: nothing draws or uses them as control. Check points are known
     * and compared with, and held out of everything that is computed.
     */
    public function role(FileKind $kind): string
    {
        return FileKind::Control === $kind ? self::ROLES[$this->meaning->control] ?? Point::CONTROL : Point::SURVEYED;
    }

    private static function isSilent(Reading $reading): bool
    {
        return FileKind::Control === $reading->kind() && !$reading->statesControl();
    }
}
