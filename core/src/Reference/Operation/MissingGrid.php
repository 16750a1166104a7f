<?php

declare(strict_types=1);

namespace Mensura\Reference\Operation;

/** The best way needs a grid that is not there. */
final class MissingGrid extends \DomainException
{
    public static function of(Candidate $candidate, ?Candidate $next): self
    {
        $needs = [] !== $candidate->missing ? 'the grid '.implode(' and ', $candidate->missing)
            .', which is not installed' : implode(' and ', $candidate->unsupported).', which is not computed here';

        return new self(\sprintf(
            '"%s" (%s) needs %s%s',
            $candidate->name, $candidate->accuracyText(), $needs,
            null === $next ? '; there is no other way here' : \sprintf(
                '; the best way without it is "%s" (%s)', $next->name, $next->accuracyText(),
            ),
        ));
    }
}
