<?php

declare(strict_types=1);

namespace App\Survey;

use App\Project\Project;
use App\Result\Content;

final class ObservationsContent implements Content
{
    public function __construct(private readonly ObservationRepository $observations, private readonly CorrectionRepository $corrections)
    {
    }

    public static function kind(): string
    {
        return 'observations';
    }

    public function version(Project $project, string $which): string
    {
        return $this->observations->version($project);
    }

    public function words(): string
    {
        return 'observations';
    }

    public function origin(Project $project): array
    {
        $texts = Origins::of($this->observations->origins($project), 'observations');
        foreach ($this->observations->asides($project) as $aside) {
            $reason = '' === $aside['reason'] ? 'no reason given' : $aside['reason'];
            $texts[] = \sprintf('%d set aside by %s: %s', $aside['count'], $aside['by'], $reason);
        }

        foreach ($this->corrections->all($project) as $c) {
            $texts[] = \sprintf('corrected by %s: %s%s', $c->author, $c->words, '' === $c->reason ? '' : ', '.$c->reason);
        }

        return $texts;
    }
}
